import { Readable } from 'node:stream';
import { has, readStream } from '../../../../server/files/content-store';

export async function GET(_request: Request, { params }: { params: Promise<{ sha: string }> }) {
  const { sha } = await params;
  if (!/^[0-9a-f]{64}$/.test(sha) || !(await has('models', sha))) return new Response(null, { status: 404 });
  return new Response(Readable.toWeb(readStream('models', sha)) as ReadableStream, { headers: { 'Content-Type': 'model/gltf-binary', 'Cache-Control': 'private, max-age=31536000, immutable' } });
}
