import { stat } from 'node:fs/promises';
import { NoBody } from '../../../../../contracts/requests';
import { MEDIA_TYPES } from '../../../../../core/catalogue/file-kinds';
import { ok } from '../../../../../core/result/result';
import { askedDelivery } from '../../../../../server/usecases/asked-delivery';
import { deliverProof } from '../../../../../server/usecases/deliver-proof';
import { attachment, mutation, reportProgress, streamOf, toResponse } from '../../../respond';

/** A file of a proof; with `inline`, to be shown and printed, not saved. */
export async function GET(request: Request, { params }: { params: Promise<{ proof: string }> }) {
  const query = new URL(request.url).searchParams;
  const asked = askedDelivery(query);
  if (!asked.ok) return toResponse(asked);
  const file = await deliverProof((await params).proof, asked.value, { signal: request.signal });
  if (!file.ok) return toResponse(file);
  const { size } = await stat(file.value.path);
  return new Response(streamOf(file.value.path), {
    headers: {
      'Content-Type': MEDIA_TYPES[asked.value.kind],
      'Content-Length': String(size),
      'Content-Disposition': query.has('inline') ? 'inline' : attachment(file.value.name),
      'Cache-Control': 'private, no-cache'
    }
  });
}

/** Writes the file, so that it can be got at once, and reports what share of it is written; how large it is, in bytes. */
export const POST = mutation(NoBody, (_, { proof }: { proof: string }, request) => {
  const asked = askedDelivery(new URL(request.url).searchParams);
  if (!asked.ok) return asked;
  return reportProgress<{ bytes: number; name: string }, number>(request, async (onProgress, signal) => {
    const file = await deliverProof(proof, asked.value, { onProgress, signal });
    return file.ok ? ok({ bytes: (await stat(file.value.path)).size, name: file.value.name }) : file;
  });
});
