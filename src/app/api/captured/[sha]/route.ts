import { capturedStrip } from '../../../../server/usecases/captured-strip';
import { sendFile } from '../../respond';

/** A captured image as a strip to turn it by. */
export async function GET(_request: Request, { params }: { params: Promise<{ sha: string }> }) {
  return sendFile(await capturedStrip((await params).sha), 'image/png');
}
