/** The right of a worker to write what its job makes: held as long as nobody has claimed the job since. */
import type { Job } from '../../core/job/job';
import { prepared } from './database';

export interface Lease {
  job: string;
  fence: number;
}

export const leaseOf = ({ id, fence }: Job): Lease => ({ job: id, fence });

/** Thrown where a worker writes whose job somebody else holds by now: it ends without a word. */
export class LeaseLost extends Error {
  constructor({ job, fence }: Lease) {
    super(`lease ${fence} of job ${job} is lost`);
  }
}

/** For statements that a worker writes with: true while its lease holds. Needs :job and :fence. */
export const LEASE_HOLDS =
  "EXISTS (SELECT 1 FROM jobs WHERE jobs.id = :job AND jobs.fence = :fence AND jobs.state = 'running')";

/** Throws LeaseLost when the lease no longer holds. */
export function assertLease(lease: Lease): void {
  if (!prepared(`SELECT 1 AS held WHERE ${LEASE_HOLDS}`).get(lease)) throw new LeaseLost(lease);
}
