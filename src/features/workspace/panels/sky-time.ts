/** A sky's moment as panels have it: day of the year and minutes of the day, in the sky's own offset. */
import { isoAt } from '../../../core/brief/local-time';

const DAY_MS = 86_400_000;

export const isoOnDay = (year: number, dayOfYear: number, minutes: number, offset: string): string => {
  const date = new Date(Date.UTC(year, 0, 1) + (dayOfYear - 1) * DAY_MS);
  return isoAt({ year, month: date.getUTCMonth() + 1, day: date.getUTCDate(), offset }, minutes);
};

/** The first is 1. */
export const dayOfYear = (t: { year: number; month: number; day: number }): number =>
  Math.round((Date.UTC(t.year, t.month - 1, t.day) - Date.UTC(t.year, 0, 1)) / DAY_MS) + 1;
