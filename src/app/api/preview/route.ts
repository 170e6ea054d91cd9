import { previewComesFirst } from '../../../server/usecases/preview-first';
import { foreign } from '../respond';

export function POST(request: Request) {
  const refusal = foreign(request);
  if (refusal) return refusal;
  previewComesFirst();
  return new Response(null, { status: 204 });
}
