/**
 * Cues switch the whole light at once: which of sky and lamps are on, how strong, and an exposure that fits. A sky
 * moves to an hour of its own day; other surroundings are dimmed. Hours and stops: common practice, no source.
 */
import { sunPosition, sunTimes } from '../lights/sun/position';
import { type Brief, canonicalJson } from './brief';
import { isoAt, localTime, offsetMs } from './local-time';

export const CUES = ['day', 'evening', 'night'] as const;
export type Cue = (typeof CUES)[number];

// After sunset: still a glow in the sky; and long after.
const EVENING_MS = 20 * 60_000;
const NIGHT_MS = 3 * 3_600_000;
// The sun's least height, radians, for an hour to count as day.
const DAY_HEIGHT = 0.14;
const DIMMED_EV: Record<Cue, number> = { day: 0, evening: -3.5, night: -8 };

/** The same day at another moment, in the offset that `iso` has. */
function atMoment(iso: string, ms: number): string {
  const t = localTime(iso);
  const midnight = Date.UTC(t.year, t.month - 1, t.day) - offsetMs(t.offset);
  return isoAt(t, (ms - midnight) / 60_000);
}

function hourOf(cue: Cue, sky: Extract<Brief['surroundings'], { kind: 'sky' }>): string {
  const now = Date.parse(sky.time);
  const times = sunTimes(now, sky.latitude_deg, sky.longitude_deg, offsetMs(localTime(sky.time).offset));
  if (!times) return sky.time;
  if (cue === 'evening') return atMoment(sky.time, times.down + EVENING_MS);
  if (cue === 'night') return atMoment(sky.time, times.down + NIGHT_MS);
  const high = sunPosition(now, sky.latitude_deg, sky.longitude_deg).elevation >= DAY_HEIGHT;
  return high ? sky.time : atMoment(sky.time, times.up + 0.65 * (times.down - times.up));
}

/** What a cue makes of a brief whose model has these groups of lamps. Dimmers and colours that were set stay. */
export function followCue(
  brief: Brief,
  cue: Cue,
  groups: readonly string[]
): Pick<Brief, 'surroundings' | 'lamps' | 'exposure'> {
  const around = brief.surroundings;
  const surroundings =
    around.kind === 'sky'
      ? { ...around, time: hourOf(cue, around), brightness_ev: 0 }
      : around.kind === 'uniform'
        ? around
        : { ...around, brightness_ev: DIMMED_EV[cue] };
  const known = new Map(brief.lamps.groups.map((g) => [g.group, g]));
  const lit = cue !== 'day';
  return {
    surroundings,
    lamps: {
      ...brief.lamps,
      groups: groups.map((group) => ({
        dim_ev: 0,
        kelvin: null,
        photometry: null,
        ...known.get(group),
        group,
        on: lit
      })),
      only: null
    },
    exposure: { metered: true }
  };
}

/** The cue that a brief stands at, if any. */
export const cueOf = (brief: Brief, groups: readonly string[]): Cue | null =>
  CUES.find(
    (cue) => canonicalJson(pick(brief)) === canonicalJson(pick({ ...brief, ...followCue(brief, cue, groups) }))
  ) ?? null;

const pick = ({ surroundings, lamps, exposure }: Brief) => ({ surroundings, lamps, exposure });
