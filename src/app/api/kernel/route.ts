import { readFile } from 'node:fs/promises';
import { kernelFile } from '../../../server/usecases/set-up-preview';

export const dynamic = 'force-dynamic';

/** The compiled kernel, for the browser's own threads. */
export async function GET() {
  return new Response(await readFile(kernelFile()), { headers: { 'Content-Type': 'application/wasm', 'Cache-Control': 'private, no-cache' } });
}
