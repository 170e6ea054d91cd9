import { stat } from 'node:fs/promises';
import { refused } from '../../../../../core/result/result';
import { deliverProof } from '../../../../../server/usecases/deliver-proof';
import { streamOf, toResponse } from '../../../respond';

const TYPES = { png: 'image/png', jpg: 'image/jpeg', exr: 'image/x-exr' } as const;

export async function GET(request: Request, { params }: { params: Promise<{ proof: string }> }) {
  const query = new URL(request.url).searchParams;
  const kind = query.get('kind') ?? 'png';
  if (!Object.hasOwn(TYPES, kind)) return toResponse(refused('kind must be png, jpg or exr', 'bad_input'));
  const file = await deliverProof(
    (await params).proof,
    kind as keyof typeof TYPES,
    query.get('background') === 'clear' ? 'clear' : 'own',
    query.has('raw'),
    query.has('marks')
  );
  if (!file.ok) return toResponse(file);
  const { size } = await stat(file.value.path);
  return new Response(streamOf(file.value.path), {
    headers: {
      'Content-Type': TYPES[kind as keyof typeof TYPES],
      'Content-Length': String(size),
      // names of any script, and a plain one for what cannot read them (RFC 6266)
      'Content-Disposition':
        `attachment; filename="${file.value.name.replace(/[^\x20-\x7e]/g, '-')}"; ` +
        `filename*=UTF-8''${encodeURIComponent(file.value.name)}`,
      'Cache-Control': 'private, no-cache'
    }
  });
}
