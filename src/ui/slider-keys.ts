/**
 * What a key makes of a slider's value: arrows to the right and up raise it by a step, with Shift by ten, as Page Up does;
 * Home and End go to its ends. Source: WAI-ARIA Authoring Practices, pattern "Slider".
 */
export interface SliderKey {
  key: string;
  shiftKey: boolean;
}

const STEPS: Record<string, number> = {
  ArrowRight: 1,
  ArrowUp: 1,
  ArrowLeft: -1,
  ArrowDown: -1,
  PageUp: 10,
  PageDown: -10
};
const LARGE = 10;

/** Null for every other key. The value may lie beyond the ends: whoever keeps it limits or wraps it. */
export function sliderValue(
  { key, shiftKey }: SliderKey,
  { value, min, max, step }: { value: number; min: number; max: number; step: number }
): number | null {
  if (key === 'Home') return min;
  if (key === 'End') return max;
  const by = STEPS[key];
  return by === undefined ? null : value + by * step * (shiftKey && key.startsWith('Arrow') ? LARGE : 1);
}
