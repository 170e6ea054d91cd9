import { dropLight } from '../../../../server/usecases/keep-light';
import { dropLightPreview } from '../../../../server/usecases/light-preview';
import { answer, foreign } from '../../respond';

export async function DELETE(request: Request, { params }: { params: Promise<{ light: string }> }) {
  const refusal = foreign(request);
  if (refusal) return refusal;
  const { light } = await params;
  const dropped = dropLight(light);
  if (dropped.ok) await dropLightPreview(light);
  return answer(dropped);
}
