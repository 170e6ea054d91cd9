import { parseNewProject } from '../../../contracts/new-project';
import { createProject } from '../../../server/usecases/create-project';
import { answer, badJson, foreign, readJson } from '../respond';

export async function POST(request: Request) {
  const refusal = foreign(request);
  if (refusal) return refusal;
  const body = await readJson(request);
  if (!body) return badJson();
  const input = parseNewProject(body);
  return input.ok ? answer(await createProject(input.value)) : answer(input);
}
