/** Counters of changes, kept by triggers (migrations/015_jobs.sql): one a project, and one for the desk. */
import { prepared } from './database';

/** Of all projects and the desk. */
export const allStamps = (): Map<string, number> =>
  new Map(
    (prepared('SELECT scope, number FROM stamps').all() as { scope: string; number: number }[]).map((row) => [
      row.scope,
      row.number
    ])
  );

export const stampOf = (scope: string): number =>
  (prepared('SELECT number FROM stamps WHERE scope = ?').get(scope) as { number: number } | undefined)?.number ?? 0;
