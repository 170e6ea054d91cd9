/**
 * Reads a photometric file after ANSI/IES LM-63 (1991 to 2019), type C, absolute or relative. Intensities come out in
 * cd.
 */
import { type MeasuredWeb, mirrorWeb } from '../../core/lights/web/web';
import type { PhotometricFile } from './photometric-file';
import { checkAngles, checkCandela, PhotometryRefused } from './refused';

/** Of all systems. */
export const LINE_END = /\r\n|\r|\n/;
/** The line that only these files have. */
export const TILT = /^\s*TILT\s*=/;

export function readLm63(text: string): PhotometricFile {
  const lines = text.split(LINE_END);
  const tilt = lines.findIndex((l) => TILT.test(l));
  if (tilt < 0)
    throw new PhotometryRefused(
      1,
      "there is no line TILT=, so this is not an LM-63 file; export it anew from the maker's data"
    );
  const keyword = (word: string) =>
    lines
      .slice(0, tilt)
      .find((l) => l.trim().toUpperCase().startsWith(`[${word}]`))
      ?.replace(/^\s*\[[^\]]*\]\s*/, '')
      .trim() ?? '';
  const numbers = numbersFrom(lines, tilt + 1);
  const kindOfTilt = lines[tilt]!.split('=')[1]!.trim().toUpperCase();
  if (kindOfTilt === 'INCLUDE') {
    numbers.next('lamp to luminaire geometry');
    const pairs = numbers.next('number of tilt angles');
    for (let i = 0; i < pairs * 2; i++) numbers.next('tilt');
  } else if (kindOfTilt !== 'NONE')
    throw new PhotometryRefused(tilt + 1, `tilt data in another file ("${kindOfTilt}") cannot be read; use TILT=NONE`);
  const lamps = numbers.next('number of lamps');
  const lumens = numbers.next('lumens a lamp');
  const multiplier = numbers.next('multiplier');
  const verticals = numbers.count('number of vertical angles');
  const horizontals = numbers.count('number of horizontal angles');
  const type = numbers.next('photometric type');
  if (type !== 1)
    throw new PhotometryRefused(
      numbers.line(),
      `photometric type ${type} (B or A) cannot be read; export it as type C`
    );
  for (const what of ['unit', 'width', 'length', 'height']) numbers.next(what);
  const ballast = numbers.next('ballast factor');
  const future = numbers.next('ballast-lamp factor');
  const watts = numbers.next('input watts');
  const angles = numbers.take(verticals, 'vertical angle');
  checkAngles(angles, 'vertical', 0, 180, numbers.line());
  const planes = numbers.take(horizontals, 'horizontal angle');
  checkAngles(planes, 'horizontal', 0, 360, numbers.line());
  // relative files state lumens, absolute ones -1; both hold candela already
  const factor = multiplier * ballast * (future || 1);
  if (!(lamps > 0) || !Number.isFinite(lumens) || !(factor > 0))
    throw new PhotometryRefused(
      tilt + 2,
      `${lamps} lamps with a factor of ${factor} give no light; check the numbers behind TILT`
    );
  const candela = planes.map(() => {
    const values = numbers.take(verticals, 'candela').map((v) => v * factor);
    checkCandela(values, numbers.line());
    return values;
  });
  return {
    name: keyword('LUMINAIRE') || keyword('LUMCAT') || keyword('MANUFAC'),
    web: unfold({ planes, angles, candela }, numbers.line()),
    watts: watts > 0 ? watts : null
  };
}

/** The planes that the file leaves out for symmetry. */
function unfold(web: MeasuredWeb, line: number): MeasuredWeb {
  const first = web.planes[0]!;
  const last = web.planes.at(-1)!;
  if (web.planes.length === 1 || last === first) return { ...web, planes: [0], candela: [web.candela[0]!] };
  if (first === 90 && last === 270) return mirrorWeb(web, 180);
  if (first !== 0 || ![90, 180, 360].includes(last))
    throw new PhotometryRefused(
      line,
      `horizontal angles from ${first} to ${last} leave part of the turn open; they end at 0, 90, 180 or 360`
    );
  if (last === 360) return { ...web, planes: web.planes.slice(0, -1), candela: web.candela.slice(0, -1) };
  return last === 180 ? mirrorWeb(web, 0) : mirrorWeb(mirrorWeb(web, 90, 180), 0);
}

function numbersFrom(lines: readonly string[], first: number) {
  let line = first;
  let words: string[] = [];
  let used = 0;
  const next = (what: string): number => {
    while (used === words.length) {
      if (line >= lines.length)
        throw new PhotometryRefused(lines.length, `the file ends before its ${what}; it is cut short, so get it anew`);
      words = lines[line++]!.split(/[\s,]+/).filter(Boolean);
      used = 0;
    }
    const word = words[used++]!;
    const value = Number(word);
    if (!Number.isFinite(value))
      throw new PhotometryRefused(line, `"${word}" stands where the ${what} should; expected a number`);
    return value;
  };
  const take = (count: number, what: string) => Array.from({ length: count }, () => next(what));
  const count = (what: string) => {
    const value = next(what);
    if (!Number.isInteger(value) || value < 1 || value > 3601)
      throw new PhotometryRefused(line, `the ${what} is ${value}; expected a whole number from 1`);
    return value;
  };
  return { next, take, count, line: () => line };
}
