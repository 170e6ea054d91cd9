import { stat } from 'node:fs/promises';
import { MEDIA_TYPES } from '../../../../../core/catalogue/file-kinds';
import { askedDelivery } from '../../../../../server/usecases/asked-delivery';
import { deliverProof } from '../../../../../server/usecases/deliver-proof';
import { attachment, streamOf, toResponse } from '../../../respond';

/** A file of a proof; with `weigh`, how large it is, in bytes; with `inline`, to be shown and printed, not saved. */
export async function GET(request: Request, { params }: { params: Promise<{ proof: string }> }) {
  const query = new URL(request.url).searchParams;
  const asked = askedDelivery(query);
  if (!asked.ok) return toResponse(asked);
  const file = await deliverProof((await params).proof, asked.value);
  if (!file.ok) return toResponse(file);
  const { size } = await stat(file.value.path);
  if (query.has('weigh')) return Response.json({ bytes: size, name: file.value.name });
  return new Response(streamOf(file.value.path), {
    headers: {
      'Content-Type': MEDIA_TYPES[asked.value.kind],
      'Content-Length': String(size),
      'Content-Disposition': query.has('inline') ? 'inline' : attachment(file.value.name),
      'Cache-Control': 'private, no-cache'
    }
  });
}
