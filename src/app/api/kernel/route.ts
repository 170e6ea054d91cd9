import { config } from '../../../server/config';
import { sendFile } from '../respond';

export const dynamic = 'force-dynamic';

/** The compiled kernel, for the browser's own threads. */
export async function GET() {
  return sendFile(config.built('kernel.wasm'), 'application/wasm', 'private, no-cache');
}
