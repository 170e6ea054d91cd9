/** The desk's sentences. */
import type { DeskDto } from '../../contracts/dto';
import { duration } from '../../core/brief/sentence';

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

export const COPY = {
  heading: 'All projects',
  skip: 'Skip to the projects',
  newProject: 'A new project',
  removed: 'Removed within the last ten minutes',
  bringBack: (name: string) => `Bring back ${name}`,
  more: (n: number) => `Show ${n} older project${n === 1 ? '' : 's'}`,
  named: 'Named after the file',
  drop: 'Drop a model here',
  formats: (names: string) => `${names}; with its files, a folder or a ZIP, up to 2\u00a0GB`,
  choose: 'Choose a file',
  chooseOther: 'Choose another file',
  reading: 'reading the model',
  stop: 'Stop',
  bringIn: 'Bring it in',
  refused: 'not brought in'
} as const;
