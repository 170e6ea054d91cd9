import { listModelParts } from '../../../../../server/usecases/list-model-parts';
import { toResponse } from '../../../respond';

/** The tree of a model, with what each part weighs. */
export async function GET(_request: Request, { params }: { params: Promise<{ sha: string }> }) {
  return toResponse(await listModelParts((await params).sha));
}
