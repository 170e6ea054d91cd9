/** A named pointer scale with its value at the right, and where the value stood in the proof on the stage. */
import { PointerScale, type ScaleTick } from '../../../ui/pointer-scale';

interface LevelProps {
  name: string;
  label: string;
  value: number;
  range: readonly [min: number, max: number, step: number];
  ticks: ScaleTick[];
  text: string;
  /** Of the proof on the stage; null when there is none. */
  was?: number | null | undefined;
  logarithmic?: boolean;
  /** Where a double press puts it. */
  initial?: number;
  onChange: (value: number, joins: boolean) => void;
}

export function Level({
  name,
  label,
  value,
  range: [min, max, step],
  ticks,
  text,
  was,
  logarithmic,
  initial,
  onChange
}: LevelProps) {
  const changed = was != null && was !== value;
  return (
    <div className="ctl level">
      <span className="lab">{name}</span>
      <PointerScale
        label={label}
        width={130}
        value={value}
        min={min}
        max={max}
        step={step}
        logarithmic={logarithmic ?? false}
        initial={initial}
        ticks={ticks}
        valueText={text}
        was={was ?? null}
        changed={changed}
        onChange={onChange}
      />
      <span className={`n v${changed ? ' livec' : ''}`}>{text}</span>
    </div>
  );
}
