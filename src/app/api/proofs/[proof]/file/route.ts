import { stat } from 'node:fs/promises';
import { deliverProof } from '../../../../../server/usecases/deliver-proof';
import { answer, streamOf } from '../../../respond';

const TYPES = { png: 'image/png', jpg: 'image/jpeg', exr: 'image/x-exr' } as const;

export async function GET(request: Request, { params }: { params: Promise<{ proof: string }> }) {
  const query = new URL(request.url).searchParams;
  const kind = query.get('kind') ?? 'png';
  if (!(kind in TYPES)) return Response.json({ message: 'kind must be png, jpg or exr' }, { status: 400 });
  const file = await deliverProof(
    (await params).proof,
    kind as keyof typeof TYPES,
    query.get('background') === 'clear' ? 'clear' : 'own',
    query.has('raw'),
    query.has('marks')
  );
  if (!file.ok) return answer(file);
  const { size } = await stat(file.value.path);
  return new Response(streamOf(file.value.path), {
    headers: {
      'Content-Type': TYPES[kind as keyof typeof TYPES],
      'Content-Length': String(size),
      'Content-Disposition': `attachment; filename="${file.value.name}"`,
      'Cache-Control': 'private, no-cache'
    }
  });
}
