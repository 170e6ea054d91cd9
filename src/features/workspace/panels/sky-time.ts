/** A sky's moment as panels have it: day of the year and minutes of the day, by the clock of the place. */
import { tzOffset } from '@date-fns/tz';
import { isoAt, twoDigits } from '../../../core/brief/local-time';

const DAY_MS = 86_400_000;
const MINUTE_MS = 60_000;

export interface LocalMoment {
  year: number;
  /** Of the year, the first is 1. */
  day: number;
  /** After midnight. */
  minutes: number;
}

export const isoOnDay = (year: number, dayOfYear: number, minutes: number, offset: string): string => {
  const date = new Date(Date.UTC(year, 0, 1) + (dayOfYear - 1) * DAY_MS);
  return isoAt({ year, month: date.getUTCMonth() + 1, day: date.getUTCDate(), offset }, minutes);
};

/** The first is 1. */
export const dayOfYear = (t: { year: number; month: number; day: number }): number =>
  Math.round((Date.UTC(t.year, t.month - 1, t.day) - Date.UTC(t.year, 0, 1)) / DAY_MS) + 1;

/** The offset that clocks of a zone (IANA) have then, as "+02:00": half hours and daylight saving as they are in force. */
export function offsetInZone({ year, day, minutes }: LocalMoment, zone: string): string {
  const wall = Date.UTC(year, 0, 1) + (day - 1) * DAY_MS + minutes * MINUTE_MS;
  // the offset is asked for at an instant; the clock alone is known, so it is asked for twice
  const first = tzOffset(zone, new Date(wall));
  const offset = tzOffset(zone, new Date(wall - first * MINUTE_MS));
  const size = Math.abs(offset);
  return `${offset < 0 ? '-' : '+'}${twoDigits(Math.floor(size / 60))}:${twoDigits(size % 60)}`;
}

/** ISO 8601 of a clock's time in a zone. */
export const isoInZone = (moment: LocalMoment, zone: string): string =>
  isoOnDay(moment.year, moment.day, moment.minutes, offsetInZone(moment, zone));
