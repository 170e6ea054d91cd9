import { describe, expect, it } from 'vitest';
import { findTowns, plainName } from './find-towns';

const first = (text: string) => {
  const [town] = findTowns(text);
  return town && [town.name, town.country, ...[town.latitude_deg, town.longitude_deg].map((v) => Math.round(v) + 0)];
};

describe('findTowns', () => {
  // coordinates to a degree: common knowledge
  it.each([
    ['london', ['London', 'United Kingdom', 52, 0]],
    ['Sydney', ['Sydney', 'Australia', -34, 151]],
    ['new york', ['New York City', 'United States', 41, -74]],
    ['sao paulo', ['São Paulo', 'Brazil', -24, -47]],
    ['ZURICH', ['Zürich', 'Switzerland', 47, 9]]
  ])('finds %s first', (text, town) => expect(first(text)).toEqual(town));

  it('tells towns of one name apart by region and country', () => {
    const found = findTowns('Springfield');
    expect(found.length).toBeGreaterThan(3);
    expect(new Set(found.map((t) => `${t.region} ${t.country} ${t.latitude_deg}`)).size).toBe(found.length);
  });

  it('asks for two letters, and finds nothing of no name', () => {
    expect(findTowns('s')).toEqual([]);
    expect(findTowns('xqzxqz')).toEqual([]);
  });
});

describe('plainName', () => {
  it('leaves accents and signs out', () => expect(plainName('  Saint-Étienne ')).toBe('saint etienne'));
});
