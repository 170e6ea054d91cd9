import { libraryPreview } from '../../../../server/usecases/library-preview';
import { sendFile } from '../../respond';

/** What one of the library's surroundings does to a ball and a card. */
export async function GET(_request: Request, { params }: { params: Promise<{ key: string }> }) {
  return sendFile(libraryPreview((await params).key), 'image/png', 'private, no-cache');
}
