import { describe, expect, it } from 'vitest';
import { BRIEF_DEFAULTS, GROUND_DEFAULTS, SURROUNDINGS_DEFAULTS } from './brief';
import { isOpenBehind } from './open-behind';

const { studio, sky } = SURROUNDINGS_DEFAULTS;
const { ground } = BRIEF_DEFAULTS;

describe('isOpenBehind', () => {
  it.each([
    ['a sky', { surroundings: sky, ground }, true],
    ['a studio with its own paper', { surroundings: { ...studio, backdrop: null }, ground }, false],
    ['a studio with a sweep', { surroundings: { ...studio, backdrop: 'sweep' as const }, ground }, false],
    ['a studio without paper', { surroundings: { ...studio, backdrop: 'none' as const }, ground }, true],
    ['a ground of shadow in its place', { surroundings: studio, ground: GROUND_DEFAULTS }, true]
  ])('%s', (_, brief, open) => expect(isOpenBehind(brief)).toBe(open));
});
