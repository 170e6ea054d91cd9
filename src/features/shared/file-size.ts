/** How large a file's model is, by the unit and axis that it is read as. */
import { NBSP } from '../../core/brief/amounts';
import type { ReadAs } from '../../core/units/read-as';
import { type LengthUnit, METRES_PER_UNIT } from '../../core/units/units';

export const UNIT_NAMES: Record<LengthUnit, string> = {
  m: 'metres',
  mm: 'millimetres',
  cm: 'centimetres',
  in: 'inches',
  ft: 'feet'
};

const length = (metres: number): string => {
  if (metres < 0.01) return `${(metres * 1000).toFixed(1)}${NBSP}mm`;
  if (metres < 1) return `${(metres * 100).toFixed(metres < 0.1 ? 1 : 0)}${NBSP}cm`;
  return metres < 1000 ? `${metres.toFixed(metres < 10 ? 2 : 1)}${NBSP}m` : `${(metres / 1000).toFixed(1)}${NBSP}km`;
};

/** How large a model is in a unit, which axis up. `size`: along X, Y, Z of the file. */
export function sizeSentence(size: readonly [number, number, number], unit: LengthUnit, up: 'y' | 'z'): string {
  const [x, y, z] = size.map((v) => length(v * METRES_PER_UNIT[unit])) as [string, string, string];
  const [wide, deep, tall] = up === 'y' ? [x, z, y] : [x, y, z];
  return `In ${UNIT_NAMES[unit]} it is ${wide} wide, ${deep} deep and ${tall} tall.`;
}

/** Along X, Y, Z of the file in its unit, from what it measures in metres with Y up. */
export function sizeInFile(
  [x, y, z]: readonly [number, number, number],
  { unit, up }: ReadAs
): [number, number, number] {
  const axes = up === 'y' ? ([x, y, z] as const) : ([x, z, y] as const);
  return axes.map((v) => v / METRES_PER_UNIT[unit]) as [number, number, number];
}
