/** The last steps of a proof, whether its film was rendered now or before: denoise it, measure its files, end. */
import type { FilmSource } from '../../core/film/store';
import { proofFolder } from '../files/proof-files';
import { folderBytes } from '../files/storage';
import { type DenoisableFilm, denoiseProof, showDenoised } from './denoise-step';
import { linearBytesPerPixel } from './deliver';
import type { ProofScreen } from './proof-screen';
import type { ProofWork } from './proof-work';

const OWN_FILTER =
  'by our own filter, because the learned one’s weights are not installed; start again with a connection to the ' +
  'package registry to have them';

/** `isDenoised`: its denoised film is there. False when it was released before its end. */
export async function denoiseAtEnd(
  work: ProofWork,
  film: DenoisableFilm,
  screen: ProofScreen,
  isDenoised: boolean
): Promise<boolean> {
  if (work.brief.finish.denoise === 0) return true;
  await screen.writeRaw();
  if (isDenoised) {
    await showDenoised(work, film, screen, true);
  } else {
    const isOver = () => work.context.stopRequest() === 'release';
    const end = await denoiseProof(work, film, screen, false, isOver);
    if (!end.ok) {
      if (end.code === 'stopped') return false;
      work.write({ denoise_share: null, denoised_grain: null, denoise_note: end.message });
      return true;
    }
    const { grain, learned } = end.value;
    work.write({ denoise_share: 1, denoised_grain: grain, denoise_note: learned ? null : OWN_FILTER });
  }
  await screen.refresh();
  return true;
}

/** Measures what its files weigh and ends it. */
export async function endProof(
  work: ProofWork,
  film: DenoisableFilm & { film: FilmSource },
  screen: ProofScreen,
  state: 'done' | 'kept'
): Promise<void> {
  const { row, brief, context } = work;
  context.progress({ phase: 'write', share: 1, secondsLeft: null });
  const view = { ...film, width: row.width_px, height: row.height_px };
  const exr = await linearBytesPerPixel(view, brief.finish);
  work.write({
    file_bytes: { ...(await screen.bytesPerPixel()), exr },
    disk_bytes: await folderBytes(proofFolder(row.id)),
    state,
    ended_at_ms: Date.now()
  });
}
