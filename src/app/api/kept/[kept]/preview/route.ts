import { lightPreview } from '../../../../../server/usecases/light-preview';
import { sendFile } from '../../../respond';

/**
 * What surroundings that were kept do to a ball and a card. Under an address of its own: a browser holds back what else
 * is asked of one that is still being answered.
 */
export async function GET(_request: Request, { params }: { params: Promise<{ kept: string }> }) {
  return sendFile(await lightPreview((await params).kept), 'image/png');
}
