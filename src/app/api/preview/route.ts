import { NoBody } from '../../../contracts/requests';
import { previewComesFirst } from '../../../server/usecases/preview-first';
import { mutation } from '../respond';

export const POST = mutation(NoBody, () => {
  previewComesFirst();
  return new Response(null, { status: 204 });
});
