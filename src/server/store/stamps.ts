/** Counters of changes, kept by triggers (migrations/015_jobs.sql): one a project, and one for the desk. */
import { prepared } from './database';

export const stampOf = (scope: string): number =>
  (prepared('SELECT number FROM stamps WHERE scope = ?').get(scope) as { number: number } | undefined)?.number ?? 0;
