import { stageFilm } from '../../../../../server/usecases/stage-film';
import { sendFile, toResponse } from '../../../respond';

export const dynamic = 'force-dynamic';

/**
 * What a screen shows of the proof's film; ?denoise= how much of the filter its light layers show, ?settled waits until
 * they are denoised.
 */
export async function GET(request: Request, { params }: { params: Promise<{ proof: string }> }) {
  const query = new URL(request.url).searchParams;
  const denoise = Number(query.get('denoise') ?? 1);
  const film = await stageFilm((await params).proof, {
    denoise: Number.isFinite(denoise) ? Math.min(1, Math.max(0, denoise)) : 1,
    settled: query.has('settled')
  });
  return film.ok ? sendFile(film.value, 'application/octet-stream', 'private, no-store') : toResponse(film);
}
