/** Encodes one file of a proof to hand over. */
import { whiteLuminance } from '../../core/brief/exposure';
import { isLinear } from '../../core/catalogue/file-kinds';
import { contentPath } from '../files/content-store';
import { serveTask } from '../jobs/serve-task';
import { readBackdrop } from '../render/backdrop-file';
import { readTable } from '../render/colour-table';
import { writeFilm } from '../render/deliver';
import { openFinishedFilm } from '../render/finished-film';

serveTask(
  'deliver',
  async ({ proof, film: hash, file, finish, ppi, marks, bleedPx, within, width, height, ev100, out }, { progress }) => {
    const { film, layers, cleaned } = await openFinishedFilm(proof, hash, width, height, finish.denoise > 0);
    const backdrop = isLinear(file.kind) ? null : await readBackdrop(finish.background, { width, height, within });
    const table = isLinear(file.kind) ? null : await readTable(finish);
    const view = { film, layers, cleaned, table, within, width, height, white: whiteLuminance(ev100) };
    const press = file.press === null ? null : contentPath('profiles', file.press);
    await writeFilm(out, view, { ...file, press, finish, ppi, backdrop, marks, bleedPx, onShare: progress });
    return null;
  }
);
