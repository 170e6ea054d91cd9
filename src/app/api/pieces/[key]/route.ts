import { viewPiece } from '../../../../server/usecases/view-piece';
import { sendFile, toResponse } from '../../respond';

/** A piece of the library as a GLB. */
export async function GET(_request: Request, { params }: { params: Promise<{ key: string }> }) {
  const piece = await viewPiece((await params).key);
  return piece.ok ? sendFile(piece.value, 'model/gltf-binary') : toResponse(piece);
}
