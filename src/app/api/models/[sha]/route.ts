import { contentPath } from '../../../../server/files/content-store';
import { sendFile } from '../../respond';

export async function GET(_request: Request, { params }: { params: Promise<{ sha: string }> }) {
  const { sha } = await params;
  return sendFile(/^[0-9a-f]{64}$/.test(sha) ? contentPath('models', sha) : null, 'model/gltf-binary');
}
