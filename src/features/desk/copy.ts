/** The desk's sentences. */
import type { DeskDto } from '../../contracts/dto';
import { NBSP } from '../../core/brief/amounts';
import { duration } from '../../core/brief/sentence';
import { type LengthUnit, METRES_PER_UNIT } from '../../core/units/units';

const NUMBERS = ['No', 'One', 'Two', 'Three', 'Four', 'Five', 'Six', 'Seven', 'Eight', 'Nine'];
export const count = (n: number) => NUMBERS[n] ?? String(n);

export function deskSentence(desk: DeskDto): string {
  const n = desk.count;
  const first = n === 0 ? 'Nothing is on the desk yet.' : `${count(n)} project${n === 1 ? '' : 's'} on the desk.`;
  if (desk.running) return `${first} `;
  return n === 0 ? `${first} Bring in a model and make its first picture.` : `${first} Nothing is rendering.`;
}

export const runningPhrase = (desk: DeskDto) => {
  const left = desk.running?.seconds_left;
  return left === null || left === undefined ? ' is rendering.' : ` is rendering, ${duration(left)} left.`;
};

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

export const COPY = {
  heading: 'All projects',
  skip: 'Skip to the projects',
  newProject: 'A new project',
  removed: 'Removed within the last ten minutes',
  bringBack: (name: string) => `Bring back ${name}`,
  more: (n: number) => `Show ${n} older project${n === 1 ? '' : 's'}`,
  named: 'Named after the file',
  drop: 'Drop a model here',
  choose: 'Choose a file',
  chooseOther: 'Choose another file',
  reading: 'reading the model',
  stop: 'Stop',
  bringIn: 'Bring it in',
  refused: 'not brought in',
  person: 'A person of 1.75 m beside it'
} as const;
