import { dropLight } from '../../../../server/usecases/keep-light';
import { dropLightPreview, lightPreview } from '../../../../server/usecases/light-preview';
import { answer, foreign, sendFile } from '../../respond';

type Context = { params: Promise<{ light: string }> };

/** What surroundings that were kept do to a ball and a card. */
export async function GET(_request: Request, { params }: Context) {
  return sendFile(await lightPreview((await params).light), 'image/png', 'private, max-age=31536000, immutable');
}

export async function DELETE(request: Request, { params }: Context) {
  const refusal = foreign(request);
  if (refusal) return refusal;
  const { light } = await params;
  const dropped = dropLight(light);
  if (dropped.ok) await dropLightPreview(light);
  return answer(dropped);
}
