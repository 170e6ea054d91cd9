/**
 * A picture that comes onto a sheet of another proportion: the view widened so that nothing of it is cut, or the sheet
 * cut to it.
 */
import type { FreeViewpoint } from '../camera/viewpoint';
import type { SizeChoice } from '../catalogue/size-choice';
import { resolveSize } from './size';

export const aspectOf = (size: SizeChoice): number => {
  const { width_px, height_px } = resolveSize(size);
  return width_px / height_px;
};

/**
 * Whether two proportions are one: sheets of the A series differ by a few thousandths, because they are cut to whole
 * millimetres.
 */
export const sameAspect = (a: number, b: number): boolean => Math.abs(a / b - 1) < 5e-3;

/**
 * The view through which a frame of proportion `after` shows all that one of `before` showed. A wider frame does so by
 * itself, as the picture's height is the sensor's; a narrower one needs a wider view.
 */
export function widened(view: FreeViewpoint, before: number, after: number): FreeViewpoint {
  if (after >= before || sameAspect(before, after)) return view;
  const k = after / before;
  const height_m = view.height_m === null ? null : Math.round((view.height_m / k) * 1e5) / 1e5;
  return { ...view, focal_length_mm: Math.round(view.focal_length_mm * k * 1000) / 1000, height_m };
}

/** The largest sheet of a proportion within a size; at the same density. */
export function inProportion(size: SizeChoice, aspect: number): SizeChoice {
  const { width_px, height_px, width_mm, height_mm, ppi } = resolveSize(size);
  const within = (width: number, height: number): [number, number] =>
    width / height > aspect ? [height * aspect, height] : [width, width / aspect];
  if (width_mm !== null && height_mm !== null && ppi !== null) {
    const [w, h] = within(width_mm, height_mm);
    return { width_mm: Math.round(w * 100) / 100, height_mm: Math.round(h * 100) / 100, ppi };
  }
  const [w, h] = within(width_px, height_px);
  return { width_px: Math.max(1, Math.round(w)), height_px: Math.max(1, Math.round(h)) };
}
