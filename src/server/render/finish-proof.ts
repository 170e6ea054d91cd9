/** Develops a proof whose film was rendered for another: nothing is prepared and nothing rendered. */
import { whiteLuminance } from '../../core/brief/exposure';
import { refuseDamaged } from '../files/film-store';
import { readLayers } from '../files/proof-files';
import type { RenderOutcome } from '../jobs/tasks';
import { denoiseAtEnd, endProof } from './end-proof';
import { ProofScreen } from './proof-screen';
import { openFilm, type ProofWork } from './proof-work';

export async function finishProof(work: ProofWork): Promise<RenderOutcome> {
  const { row } = work;
  const layers = await readLayers(row.id);
  const film = await openFilm(work, layers);
  try {
    await refuseDamaged(film, row.film_sha256, row.width_px, row.height_px, work.tiles);
    const white = whiteLuminance(row.ev100!);
    const screen = await ProofScreen.open(work, white);
    const whole = { film, layers, white };
    await screen.show(whole, true);
    await screen.refresh();
    if (!(await denoiseAtEnd(work, whole, screen, row.denoise_share === 1))) return 'released';
    await endProof(work, whole, screen, 'done');
    return 'done';
  } finally {
    await film.close();
  }
}
