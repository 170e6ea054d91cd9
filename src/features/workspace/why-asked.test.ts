import { describe, expect, it } from 'vitest';
import { whyAsked } from './why-asked';

const now = new Date(2026, 10, 30, 7, 40).getTime();
const ahead = { proofs: 0, seconds: 0, unknown: 0 };
const asked = (hours: number, diskBytes = 1e9, waits = 0) =>
  whyAsked(
    { seconds: hours * 3600, diskBytes },
    { ahead: { ...ahead, seconds: waits * 3600 }, free_bytes: 10e9 },
    now
  )?.replaceAll('\u00a0', ' ') ?? null;

describe('a render is asked about', () => {
  it('when it takes more than eight hours, with the day of its end', () => {
    expect(asked(8)).toBeNull();
    expect(asked(93)).toBe('This render takes about 93 h, until Fri 4 Dec, 04:40.');
    expect(asked(10, 1e9, 24)).toBe('This render takes about 10 h, until tomorrow 17:40.');
  });
  it('when it takes more than half of what is free on the disk', () => {
    expect(asked(1, 5e9)).toBeNull();
    expect(asked(1, 6e9)).toBe('This render needs 6.0 GB of the 10.0 GB that are free on the disk.');
  });
});
