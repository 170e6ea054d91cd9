import { backdropFile } from '../../../../server/usecases/add-backdrop';
import { sendFile } from '../../respond';

/** A picture that stands behind models, as it is kept. */
export async function GET(_request: Request, { params }: { params: Promise<{ sha: string }> }) {
  return sendFile(backdropFile((await params).sha), 'image/png');
}
