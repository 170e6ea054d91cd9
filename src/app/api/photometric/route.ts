import { addPhotometric } from '../../../server/usecases/add-photometric';
import { answer, readUpload } from '../respond';

export async function POST(request: Request) {
  const sent = await readUpload(request, 'photometric file');
  return sent instanceof Response ? sent : answer(await addPhotometric(sent.upload, sent.name));
}
