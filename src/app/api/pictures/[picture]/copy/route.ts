import { addPicture } from '../../../../../server/usecases/add-picture';
import { answer, foreign } from '../../../respond';

export async function POST(request: Request, { params }: { params: Promise<{ picture: string }> }) {
  return foreign(request) ?? answer(addPicture((await params).picture));
}
