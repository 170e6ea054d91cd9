import { pressColoursFile } from '../../../../server/usecases/press-profiles';
import { streamOf, toResponse } from '../../respond';

/** What the press of a profile makes of colours; core/finishing/press-proof.ts reads it. */
export async function GET(_request: Request, { params }: { params: Promise<{ sha: string }> }) {
  const file = await pressColoursFile((await params).sha);
  if (!file.ok) return toResponse(file);
  return new Response(streamOf(file.value), {
    headers: { 'Content-Type': 'application/octet-stream', 'Cache-Control': 'private, max-age=31536000, immutable' }
  });
}
