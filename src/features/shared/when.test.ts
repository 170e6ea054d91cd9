import { describe, expect, it } from 'vitest';
import { dayOrClock, when } from './when';

const now = new Date(2026, 10, 30, 22, 40).getTime();
const in_ = (hours: number) => when(now + hours * 3_600_000, now);

describe('when', () => {
  it.each([
    [0.5, '23:10'],
    [1.5, 'tomorrow 00:10'],
    [25, 'tomorrow 23:40'],
    [93, 'Fri 4 Dec, 19:40'],
    [24 * 40, 'Sat 9 Jan 2027, 22:40'],
    [-23, 'yesterday 23:40'],
    [-60, 'Sat 28 Nov, 10:40']
  ])('in %s hours is %s', (hours, text) => expect(in_(hours)).toBe(text));
  it.each([
    [-1, '21:40'],
    [-23, '29 Nov'],
    [24 * 40, '9 Jan 2027']
  ])('%s hours from now is %s on a ticket', (hours, text) =>
    expect(dayOrClock(now + hours * 3_600_000, now)).toBe(text)
  );
});
