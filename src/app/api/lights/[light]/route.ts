import { dropLight } from '../../../../server/usecases/keep-light';
import { answer, foreign } from '../../respond';

export async function DELETE(request: Request, { params }: { params: Promise<{ light: string }> }) {
  return foreign(request) ?? answer(dropLight((await params).light));
}
