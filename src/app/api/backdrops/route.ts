import { addBackdrop } from '../../../server/usecases/add-backdrop';
import { answer, readUpload } from '../respond';

export async function POST(request: Request) {
  const sent = await readUpload(request, 'picture');
  return sent instanceof Response ? sent : answer(await addBackdrop(sent.upload, sent.name));
}
