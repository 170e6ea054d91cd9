import { filterFile } from '../../../../server/usecases/set-up-preview';
import { sendFile } from '../../respond';

/** What the browser needs to run the learned filter: the inference runtime's files and the small weights. */
export async function GET(_request: Request, { params }: { params: Promise<{ file: string }> }) {
  const { file } = await params;
  return sendFile(
    filterFile(file),
    file.endsWith('.mjs')
      ? 'text/javascript'
      : file.endsWith('.wasm')
        ? 'application/wasm'
        : 'application/octet-stream',
    'private, no-cache'
  );
}
