import { Refusal } from '../../core/result/result';

/** A photometric file that cannot be read; the message says where and what to do. */
export class PhotometryRefused extends Refusal {
  constructor(
    readonly line: number,
    message: string
  ) {
    super('refused', `line ${line}: ${message}`);
  }
}

/** Ascending and within [least, most], else refused with the line. */
export function checkAngles(angles: readonly number[], kind: string, least: number, most: number, line: number): void {
  angles.forEach((angle, i) => {
    if (angle < least || angle > most)
      throw new PhotometryRefused(
        line,
        `the ${kind} angle ${angle} is impossible; it lies between ${least} and ${most} degrees`
      );
    if (i > 0 && angle <= angles[i - 1]!)
      throw new PhotometryRefused(
        line,
        `the ${kind} angles are not ascending: ${angles[i - 1]} is followed by ${angle}`
      );
  });
}

export function checkCandela(values: readonly number[], line: number): void {
  const bad = values.find((v) => v < 0);
  if (bad !== undefined)
    throw new PhotometryRefused(line, `an intensity of ${bad} cd is impossible; light cannot be less than none`);
}
