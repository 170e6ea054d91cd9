import { findPackFile } from '../../../../server/usecases/set-up-preview';
import { sendFile } from '../../respond';

export async function GET(_request: Request, { params }: { params: Promise<{ key: string }> }) {
  return sendFile(findPackFile((await params).key), 'application/octet-stream');
}
