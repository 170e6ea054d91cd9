import { describe, expect, it } from 'vitest';
import { readJson } from './read-json';

describe('JSON from outside', () => {
  it('is read', () => {
    expect(readJson('{"a":[1,{"b":"[[[[{{\\"["}]}')).toEqual({ ok: true, value: { a: [1, { b: '[[[[{{"[' }] } });
  });
  it.each([
    ['200,000 lists', '['.repeat(200_000)],
    ['33 levels that close', `${'['.repeat(33)}${']'.repeat(33)}`],
    ['objects in objects', `${'{"a":'.repeat(40)}1${'}'.repeat(40)}`]
  ])('is refused when it is too deep: %s', (_, text) => {
    expect(readJson(text)).toMatchObject({ ok: false, message: expect.stringMatching(/at most 32 levels/) });
  });
  it.each(['', '{', 'nothing', '{"a":}'])('is refused when it is none: %s', (text) => {
    expect(readJson(text)).toMatchObject({ ok: false, message: 'it must be JSON' });
  });
});
