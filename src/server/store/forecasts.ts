/** Probes, what proofs took against their forecast, and what is known of this machine, in plain SQL. */
import type { Cost } from '../../core/forecast/costs';
import type { Probe } from '../../core/forecast/forecast';
import { prepared } from './database';

// Of a project; older ones were of another light or another day.
const PAIRS_KEPT = 8;
// a name of its own for each filter: what was measured of the one before says nothing of this
const DENOISE_SPEED = 'both_ways_clean_seconds_per_megapixel';
// How much a new measurement of the machine counts against what was known.
const NEWS = 0.4;

export function findProbe(key: string): Probe | null {
  const row = prepared('SELECT probe_json FROM probes WHERE key_sha256 = ?').get(key) as
    | { probe_json: string }
    | undefined;
  return row ? (JSON.parse(row.probe_json) as Probe) : null;
}

export const saveProbe = (key: string, probe: Probe, now: number) =>
  prepared('INSERT OR REPLACE INTO probes VALUES (?, ?, ?)').run(key, JSON.stringify(probe), now);

export const savePair = (
  proofId: string,
  projectId: string,
  forecastSeconds: number,
  tookSeconds: number,
  now: number
) =>
  prepared('INSERT OR REPLACE INTO forecast_pairs VALUES (?, ?, ?, ?, ?)').run(
    proofId,
    projectId,
    forecastSeconds,
    tookSeconds,
    now
  );

/** Took over forecast, of the project's last proofs. */
export const ratiosOf = (projectId: string): number[] =>
  (
    prepared(
      'SELECT took_seconds / forecast_seconds AS ratio FROM forecast_pairs WHERE project_id = ? ORDER BY ended_at_ms DESC LIMIT ?'
    ).all(projectId, PAIRS_KEPT) as { ratio: number }[]
  ).map((r) => r.ratio);

export const denoiseSpeed = (): number | null =>
  (prepared('SELECT value FROM machine WHERE name = ?').get(DENOISE_SPEED) as { value: number } | undefined)?.value ??
  null;

export function saveDenoiseSpeed(secondsPerMegapixel: number): void {
  const known = denoiseSpeed();
  prepared('INSERT OR REPLACE INTO machine VALUES (?, ?)').run(
    DENOISE_SPEED,
    known === null ? secondsPerMegapixel : known + NEWS * (secondsPerMegapixel - known)
  );
}

/** `whole`: all that was to be measured; else it was stopped. */
export function findCosts(key: string): { costs: Cost[]; whole: boolean } | null {
  const row = prepared('SELECT costs_json, whole FROM costs WHERE key_sha256 = ?').get(key) as
    | { costs_json: string; whole: 0 | 1 }
    | undefined;
  return row ? { costs: JSON.parse(row.costs_json) as Cost[], whole: row.whole === 1 } : null;
}

export const saveCosts = (key: string, costs: readonly Cost[], whole: boolean, now: number) =>
  prepared('INSERT OR REPLACE INTO costs (key_sha256, costs_json, made_at_ms, whole) VALUES (?, ?, ?, ?)').run(
    key,
    JSON.stringify(costs),
    now,
    whole ? 1 : 0
  );
