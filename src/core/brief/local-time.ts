/** Local date and time of a sky, as ISO 8601 with its offset from UTC states them, without any conversion. */

export interface LocalTime {
  year: number;
  month: number;
  day: number;
  hour: number;
  minute: number;
  /** `Z` or as +02:00. */
  offset: string;
}

export const twoDigits = (n: number): string => String(n).padStart(2, '0');

/** What cannot be read is noon on a first of January. */
export function localTime(iso: string): LocalTime {
  const match = /^(\d{4})-(\d{2})-(\d{2})T(\d{2}):(\d{2})(?::\d{2}(?:\.\d+)?)?(Z|[+-]\d{2}:?\d{2})?$/.exec(iso);
  if (!match) return { year: 2026, month: 1, day: 1, hour: 12, minute: 0, offset: 'Z' };
  return {
    year: Number(match[1]),
    month: Number(match[2]),
    day: Number(match[3]),
    hour: Number(match[4]),
    minute: Number(match[5]),
    offset: match[6] ?? 'Z'
  };
}

export function offsetMs(offset: string): number {
  if (offset === 'Z') return 0;
  return (offset[0] === '-' ? -1 : 1) * (Number(offset.slice(1, 3)) * 60 + Number(offset.slice(-2))) * 60_000;
}

/** The ISO text of so many minutes after midnight, kept within that day. */
export function isoAt(
  { year, month, day, offset }: Pick<LocalTime, 'year' | 'month' | 'day' | 'offset'>,
  minutes: number
): string {
  const m = Math.min(1439, Math.max(0, Math.round(minutes)));
  return `${year}-${twoDigits(month)}-${twoDigits(day)}T${twoDigits(Math.floor(m / 60))}:${twoDigits(m % 60)}:00${offset}`;
}
