import { dropPart } from '../../../../server/usecases/keep-part';
import { dropLightPreview } from '../../../../server/usecases/light-preview';
import { answer, foreign } from '../../respond';

export async function DELETE(request: Request, { params }: { params: Promise<{ kept: string }> }) {
  const refusal = foreign(request);
  if (refusal) return refusal;
  const { kept } = await params;
  const dropped = dropPart(kept);
  if (dropped.ok) await dropLightPreview(kept);
  return answer(dropped);
}
