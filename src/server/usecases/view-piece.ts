/** The file of a piece of the library, drawn when it is first wanted. */
import { access } from 'node:fs/promises';
import { isPieceKey } from '../../core/catalogue/pieces';
import { type Result, ok, refused } from '../../core/result/result';
import { piecePath } from '../files/piece-path';
import { runTask } from '../jobs/run-task';

/** Its path. */
export async function viewPiece(key: string): Promise<Result<string>> {
  if (!isPieceKey(key)) return refused('there is no such piece; choose one of the list', 'gone');
  const path = piecePath(key);
  const there = await access(path).then(
    () => true,
    () => false
  );
  if (there) return ok(path);
  const made = await runTask('piece', { key });
  return made.ok ? ok(path) : made;
}
