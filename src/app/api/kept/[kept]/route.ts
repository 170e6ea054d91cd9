import { NoBody } from '../../../../contracts/requests';
import { dropPart } from '../../../../server/usecases/keep-part';
import { dropLightPreview } from '../../../../server/usecases/light-preview';
import { mutation } from '../../respond';

export const DELETE = mutation(NoBody, async (_, { kept }: { kept: string }) => {
  const dropped = dropPart(kept);
  if (dropped.ok) await dropLightPreview(kept);
  return dropped;
});
