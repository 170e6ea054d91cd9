import { askedDelivery } from '../../../../../server/usecases/asked-delivery';
import { deliverSet, proofsOfSet } from '../../../../../server/usecases/deliver-proof';
import { NoBody } from '../../../../../contracts/requests';
import { attachment, mutation, toResponse } from '../../../respond';

/** The newest finished proof of each picture, in one ZIP. */
export async function GET(request: Request, { params }: { params: Promise<{ project: string }> }) {
  const asked = askedDelivery(new URL(request.url).searchParams);
  if (!asked.ok) return toResponse(asked);
  const files = await deliverSet((await params).project, asked.value);
  if (!files.ok) return toResponse(files);
  return new Response(files.value, {
    headers: {
      'Content-Type': 'application/zip',
      'Content-Disposition': attachment('pictures.zip'),
      'Cache-Control': 'private, no-cache'
    }
  });
}

/** Which proofs they are, so that each can be saved by itself. */
export const POST = mutation(NoBody, (_, { project }: { project: string }) => proofsOfSet(project));
