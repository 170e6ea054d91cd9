/**
 * Surroundings that ship: skies by hour and cloud, six studios, six rooms. Each can be taken and changed; the library
 * stays as it is.
 */
import { PLACES } from '../catalogue/places';
import { ROOM_KEYS, ROOMS } from '../lights/room/room';
import { STUDIO_SET_KEYS, STUDIO_SETS } from '../lights/studio/sets';
import { capital } from './amounts';
import { CUMULUS_DEFAULTS, type SkySurroundings, type Surroundings, SURROUNDINGS_DEFAULTS } from './brief';

export interface LibraryEntry {
  key: string;
  name: string;
  surroundings: Surroundings;
}

const place = PLACES[0]!;
const sky = (
  key: string,
  name: string,
  time: string,
  cloud: number,
  visibility_km: number,
  more: Partial<SkySurroundings> = {}
): LibraryEntry => ({
  key: `sky-${key}`,
  name,
  surroundings: {
    ...SURROUNDINGS_DEFAULTS.sky,
    latitude_deg: place.latitude_deg,
    longitude_deg: place.longitude_deg,
    time,
    cloud,
    visibility_km,
    ...more
  }
});

export const SURROUNDINGS_LIBRARY: readonly LibraryEntry[] = [
  sky('dawn', 'First sun', '2026-05-04T05:40:00+02:00', 0.05, 45),
  sky('morning', 'Clear morning', '2026-06-21T08:30:00+02:00', 0, 80),
  sky('noon', 'Summer noon', '2026-06-21T13:00:00+02:00', 0.1, 60),
  sky('winter', 'Winter noon', '2026-12-21T12:00:00+01:00', 0.1, 70),
  sky('thin', 'Thin cloud', '2026-09-10T15:00:00+02:00', 0.55, 35),
  sky('overcast', 'Overcast', '2026-10-12T12:30:00+02:00', 1, 20),
  sky('haze', 'Hazy afternoon', '2026-08-02T17:30:00+02:00', 0.15, 9),
  sky('low', 'Low sun', '2026-10-12T17:10:00+02:00', 0.1, 40),
  sky('dusk', 'After sunset', '2026-10-12T18:30:00+02:00', 0, 60),
  sky('fair', 'Fair-weather clouds', '2026-06-21T10:30:00+02:00', 0, 70, {
    cumulus: { ...CUMULUS_DEFAULTS, cover: 0.35, base_m: 1300, seed: 4 }
  }),
  sky('broken', 'Broken clouds', '2026-04-18T16:00:00+02:00', 0.1, 50, {
    cumulus: { ...CUMULUS_DEFAULTS, cover: 0.65, base_m: 900, seed: 2, sun: 'behind' }
  }),
  sky('moon', 'Full moon', '2026-09-26T22:30:00+02:00', 0, 60, { moon_ev: 6 }),
  ...STUDIO_SET_KEYS.map(
    (set): LibraryEntry => ({
      key: `studio-${set}`,
      name: capital(STUDIO_SETS[set].name),
      surroundings: { ...SURROUNDINGS_DEFAULTS.studio, set }
    })
  ),
  ...ROOM_KEYS.map(
    (room): LibraryEntry => ({
      key: `room-${room}`,
      name: capital(ROOMS[room].name),
      surroundings: { ...SURROUNDINGS_DEFAULTS.room, room }
    })
  )
];

/** An entry for a model: where north lies in it is the model's affair and stays. */
export const takenFor = (entry: LibraryEntry, now: Surroundings): Surroundings =>
  entry.surroundings.kind === 'sky' && now.kind === 'sky'
    ? { ...entry.surroundings, north_deg: now.north_deg }
    : entry.surroundings;
