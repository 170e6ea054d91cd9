import { packPath } from '../../../../server/files/pack-store';
import { sendFile } from '../../respond';

export async function GET(_request: Request, { params }: { params: Promise<{ key: string }> }) {
  return sendFile(packPath((await params).key), 'application/octet-stream');
}
