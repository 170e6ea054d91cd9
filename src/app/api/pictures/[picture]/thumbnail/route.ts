import { pictureThumbnail } from '../../../../../server/usecases/picture-thumbnail';
import { sendFile } from '../../../respond';

/** A small picture of a picture that has no proof, as its brief is now. Who asks names the state, so it can be kept. */
export async function GET(_request: Request, { params }: { params: Promise<{ picture: string }> }) {
  return sendFile(await pictureThumbnail((await params).picture), 'image/png');
}
