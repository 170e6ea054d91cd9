/** Towns by name, from the GeoNames list that ships with the application (build/towns.tsv, made by scripts/towns.mjs). */
import { readFileSync } from 'node:fs';
import { config } from '../config';
import { singleton } from '../jobs/singleton';
import type { TownDto } from '../../contracts/dto';

const MOST = 12;

interface Town {
  /** Without accents, in lower case. */
  key: string;
  line: string;
}

/** In the order of the file, which has the towns that a time zone is named after first. */
const towns = (): Town[] =>
  singleton('towns', () =>
    readFileSync(config.built('towns.tsv'), 'utf8')
      .split('\n')
      .filter(Boolean)
      .map((line) => ({ key: plainName(line.slice(0, line.indexOf('\t'))), line }))
  );

/** "São Paulo" is found as "sao paulo". */
export const plainName = (text: string): string =>
  text
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/** Those that begin with the text, the very name first; then those with a later word that does. */
export function findTowns(text: string): TownDto[] {
  const wanted = plainName(text);
  if (wanted.length < 2) return [];
  const exact: Town[] = [];
  const begins: Town[] = [];
  const within: Town[] = [];
  for (const town of towns()) {
    if (town.key === wanted) exact.push(town);
    else if (town.key.startsWith(wanted)) begins.push(town);
    else if (within.length < MOST && town.key.includes(` ${wanted}`)) within.push(town);
    if (exact.length >= MOST) break;
  }
  begins.sort((a, b) => a.key.length - b.key.length);
  return [...exact, ...begins, ...within].slice(0, MOST).map(({ line }) => {
    const [name, region, country, latitude, longitude] = line.split('\t') as [string, string, string, string, string];
    return { name, region, country, latitude_deg: Number(latitude), longitude_deg: Number(longitude) };
  });
}
