import { readFile } from 'node:fs/promises';
import { rawScreenPath, screenPath, thumbnailPath } from '../../../../../server/files/proof-files';

/**
 * The proof's picture for the screen; ?small for its thumbnail, ?raw for it as rendered when it is denoised, ?n=...
 * names the state of it and may be kept.
 */
export async function GET(request: Request, { params }: { params: Promise<{ proof: string }> }) {
  const { proof } = await params;
  const query = new URL(request.url).searchParams;
  if (!/^[0-9a-z]{6,40}$/.test(proof)) return new Response(null, { status: 404 });
  const bytes = await readFile(
    query.has('small') ? thumbnailPath(proof) : query.has('raw') ? rawScreenPath(proof) : screenPath(proof)
  ).catch(() => null);
  if (!bytes) return new Response(null, { status: 404 });
  return new Response(new Uint8Array(bytes), {
    headers: { 'Content-Type': 'image/png', 'Cache-Control': 'private, no-cache' }
  });
}
