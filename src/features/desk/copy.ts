/** The desk's sentences. */
import type { DeskDto } from '../../contracts/dto';
import { duration } from '../../core/brief/sentence';

const NUMBERS = ['No', 'One', 'Two', 'Three', 'Four', 'Five', 'Six', 'Seven', 'Eight', 'Nine'];
export const count = (n: number) => NUMBERS[n] ?? String(n);

export function deskSentence(desk: DeskDto): string {
  const n = desk.projects.length;
  const first = n === 0 ? 'Nothing is on the desk yet.' : `${count(n)} project${n === 1 ? '' : 's'} on the desk.`;
  if (desk.running) return `${first} `;
  return n === 0 ? `${first} Bring in a model and make its first picture.` : `${first} Nothing is rendering.`;
}

export const runningPhrase = (desk: DeskDto) => {
  const left = desk.running?.seconds_left;
  return left === null || left === undefined ? ' is rendering.' : ` is rendering, ${duration(left)} left.`;
};

export const FORMATS = 'glTF or GLB, also with its files or as a ZIP';
