/** A clock's time that carries its day when that is not today: "07:16", "tomorrow 07:16", "Fri 4 Dec, 07:16". */
import { twoDigits } from '../../core/brief/local-time';
import { MONTHS } from '../../core/brief/sentence';

const DAY_MS = 86_400_000;
const WEEKDAYS = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat'] as const;
const dayOf = (at: Date): number => new Date(at.getFullYear(), at.getMonth(), at.getDate()).getTime();

/** As short as a ticket is narrow: "07:16" of today, else its day alone, "4 Dec". */
export function dayOrClock(ms: number, nowMs = Date.now()): string {
  const at = new Date(ms);
  const now = new Date(nowMs);
  if (dayOf(at) === dayOf(now)) return when(ms, nowMs);
  const year = at.getFullYear() === now.getFullYear() ? '' : ` ${at.getFullYear()}`;
  return `${at.getDate()} ${MONTHS[at.getMonth()]!.slice(0, 3)}${year}`;
}

export function when(ms: number, nowMs = Date.now()): string {
  const at = new Date(ms);
  const now = new Date(nowMs);
  const clock = `${twoDigits(at.getHours())}:${twoDigits(at.getMinutes())}`;
  const days = Math.round((dayOf(at) - dayOf(now)) / DAY_MS);
  if (days === 0) return clock;
  if (days === 1) return `tomorrow ${clock}`;
  if (days === -1) return `yesterday ${clock}`;
  const year = at.getFullYear() === now.getFullYear() ? '' : ` ${at.getFullYear()}`;
  return `${WEEKDAYS[at.getDay()]} ${at.getDate()} ${MONTHS[at.getMonth()]!.slice(0, 3)}${year}, ${clock}`;
}
