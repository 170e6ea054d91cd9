import { addCaptured } from '../../../server/usecases/add-captured';
import { answer, readUpload } from '../respond';

export async function POST(request: Request) {
  const sent = await readUpload(request, 'captured');
  return sent instanceof Response ? sent : answer(await addCaptured(sent.upload, sent.name, sent.body.reduce === true));
}
