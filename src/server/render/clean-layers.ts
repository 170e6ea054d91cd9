/** The light layers of a proof's film as the filter leaves them: made once, kept beside the film. */
import { type Result, ok } from '../../core/result/result';
import { isWhole } from '../files/checksum';
import { cleanLayersPath } from '../files/proof-files';
import { runTask } from '../jobs/run-task';
import type { TaskInput } from '../jobs/tasks';

/** Nothing is done where they are there. */
export async function cleanLayers(film: TaskInput<'layers'>): Promise<Result<null>> {
  return (await isWhole(cleanLayersPath(film.proof))) ? ok(null) : runTask('layers', film);
}
