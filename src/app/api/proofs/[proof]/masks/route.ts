import { deliverMasks } from '../../../../../server/usecases/deliver-masks';
import { attachment, toResponse } from '../../../respond';

export const dynamic = 'force-dynamic';

/** The masks of a proof, in one ZIP. */
export async function GET(_request: Request, { params }: { params: Promise<{ proof: string }> }) {
  const made = await deliverMasks((await params).proof);
  if (!made.ok) return toResponse(made);
  return new Response(made.value.zip, {
    headers: {
      'Content-Type': 'application/zip',
      'Content-Disposition': attachment(made.value.name),
      'Cache-Control': 'private, no-store'
    }
  });
}
