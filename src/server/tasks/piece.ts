/** Draws a piece of the library. */
import { serveTask } from '../jobs/serve-task';
import { makePiece } from '../render/pieces';

serveTask('piece', async ({ key }) => {
  await makePiece(key);
  return null;
});
