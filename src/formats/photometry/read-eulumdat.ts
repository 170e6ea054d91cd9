/**
 * Reads a EULUMDAT file (Stockmar 1990): one value a line, intensities in cd per 1000 lm of the lamps, which come out
 * in cd.
 */
import { type MeasuredWeb, mirrorWeb } from '../../core/lights/web/web';
import type { PhotometricFile } from './photometric-file';
import { LINE_END } from './read-lm63';
import { checkAngles, checkCandela, PhotometryRefused } from './refused';

// Lines of the format, counted from 1.
const SYMMETRY = 3;
const PLANES = 4;
const ANGLES = 6;
const NAME = 9;
const FACTOR = 24;
const SETS = 26;
const LINES_A_SET = 6;
const DIRECT_RATIOS = 10;

export function readEulumdat(text: string): PhotometricFile {
  const lines = text.split(LINE_END);
  const number = (line: number, what: string): number => {
    const word = lines[line - 1]?.trim().replace(',', '.');
    if (!word) throw new PhotometryRefused(line, `the ${what} is missing; the file is cut short, so get it anew`);
    const value = Number(word.split(/\s+/)[0]);
    if (!Number.isFinite(value))
      throw new PhotometryRefused(line, `"${word}" stands where the ${what} should; expected a number`);
    return value;
  };
  const count = (line: number, what: string) => {
    const value = number(line, what);
    if (!Number.isInteger(value) || value < 1 || value > 721)
      throw new PhotometryRefused(line, `the ${what} is ${value}; expected a whole number from 1`);
    return value;
  };
  const symmetry = number(SYMMETRY, 'symmetry');
  const planeCount = count(PLANES, 'number of planes');
  const angleCount = count(ANGLES, 'number of angles');
  const sets = count(SETS, 'number of lamp sets');
  let flux = 0;
  let watts = 0;
  for (let s = 0; s < sets; s++) {
    const at = SETS + 1 + s * LINES_A_SET;
    flux += number(at + 2, 'flux of the lamps');
    watts += number(at + 5, 'power of the lamps');
  }
  if (!(flux > 0))
    throw new PhotometryRefused(
      SETS + 3,
      `the lamps give ${flux} lm; without their flux the intensities have no measure`
    );
  const firstPlane = SETS + 1 + sets * LINES_A_SET + DIRECT_RATIOS;
  const planes = Array.from({ length: planeCount }, (_, i) => number(firstPlane + i, 'plane'));
  checkAngles(planes, 'plane', 0, 360, firstPlane);
  const firstAngle = firstPlane + planeCount;
  const angles = Array.from({ length: angleCount }, (_, i) => number(firstAngle + i, 'angle'));
  checkAngles(angles, 'gamma', 0, 180, firstAngle);
  const given = planesGiven(symmetry, planeCount);
  const factor = (flux / 1000) * (number(FACTOR, 'conversion factor') || 1);
  const firstValue = firstAngle + angleCount;
  const candela = given.map((_, c) => {
    const values = Array.from(
      { length: angleCount },
      (_v, g) => number(firstValue + c * angleCount + g, 'intensity') * factor
    );
    checkCandela(values, firstValue + c * angleCount);
    return values;
  });
  const kept: MeasuredWeb = { planes: given.map((p) => planes[p] ?? 0), angles, candela };
  return { name: lines[NAME - 1]!.trim(), web: unfold(kept, symmetry), watts: watts > 0 ? watts : null };
}

/** Which of the planes have values in the file. */
function planesGiven(symmetry: number, planes: number): number[] {
  const range = (from: number, length: number) => Array.from({ length }, (_, i) => (from + i) % planes);
  switch (symmetry) {
    case 0:
      return range(0, planes);
    case 1:
      return [0];
    case 2:
      return range(0, planes / 2 + 1);
    case 3:
      return range((3 * planes) / 4, planes / 2 + 1);
    case 4:
      return range(0, planes / 4 + 1);
    default:
      throw new PhotometryRefused(SYMMETRY, `symmetry ${symmetry} does not exist; it is 0 to 4`);
  }
}

function unfold(web: MeasuredWeb, symmetry: number): MeasuredWeb {
  if (symmetry === 0) return web;
  if (symmetry === 1) return { ...web, planes: [0] };
  if (symmetry === 2) return mirrorWeb(web, 0);
  if (symmetry === 3) return mirrorWeb(web, 90);
  return mirrorWeb(mirrorWeb(web, 90, 180), 0);
}
