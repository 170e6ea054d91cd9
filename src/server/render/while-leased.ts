import { Refusal } from '../../core/result/result';
import type { RenderOutcome } from '../jobs/tasks';
import { LeaseLost } from '../store/lease';

/** Runs the work on a proof. When somebody else works on it by now, it ends quietly and leaves it to them. */
export async function whileLeased(work: () => Promise<RenderOutcome>): Promise<RenderOutcome> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof LeaseLost) return 'released';
    // sizes that cannot be, or more memory than there is
    if (error instanceof RangeError) throw new Refusal('bad_brief', error.message);
    throw error;
  }
}
