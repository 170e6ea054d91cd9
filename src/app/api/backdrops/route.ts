import { addBackdrop } from '../../../server/usecases/add-backdrop';
import { answer, badJson, foreign, readJson } from '../respond';

export async function POST(request: Request) {
  const refusal = foreign(request);
  if (refusal) return refusal;
  const body = await readJson(request);
  if (!body || typeof body.upload !== 'string' || !/^[0-9a-f]{64}$/.test(body.upload)) return badJson();
  return answer(await addBackdrop(body.upload, String(body.name ?? 'picture').slice(0, 120)));
}
