import type { MaskName } from '../../../../../core/film/masks';
import { stageFilm } from '../../../../../server/usecases/stage-film';
import { sendFile, toResponse } from '../../../respond';

export const dynamic = 'force-dynamic';

/** `mask=part:NAME`, as often as wanted. */
const masksOf = (query: URLSearchParams): MaskName[] =>
  query
    .getAll('mask')
    .slice(0, MOST_MASKS)
    .map((text) => ({
      of: text.startsWith('material:') ? 'material' : 'part',
      name: text.slice(text.indexOf(':') + 1)
    }));
const MOST_MASKS = 16;

/**
 * What a screen shows of the proof's film; ?denoise= how much of the filter its light layers show, ?settled waits until
 * they are denoised; ?mask= whose coverage it has.
 */
export async function GET(request: Request, { params }: { params: Promise<{ proof: string }> }) {
  const query = new URL(request.url).searchParams;
  const denoise = Number(query.get('denoise') ?? 1);
  const film = await stageFilm((await params).proof, {
    denoise: Number.isFinite(denoise) ? Math.min(1, Math.max(0, denoise)) : 1,
    masks: masksOf(query),
    settled: query.has('settled')
  });
  return film.ok ? sendFile(film.value, 'application/octet-stream', 'private, no-store') : toResponse(film);
}
