import { Readable } from 'node:stream';
import type { ReadableStream as NodeStream } from 'node:stream/web';
import { config } from '../../../server/config';
import { FileTooLarge, put } from '../../../server/files/content-store';
import { refused } from '../../../core/result/result';
import { STORAGE_SENTENCES, storageTroubleOf } from '../../../core/result/storage-trouble';
import { CROSS_ORIGIN, isCrossOrigin, toResponse } from '../respond';

export async function POST(request: Request) {
  if (isCrossOrigin(request)) return Response.json(CROSS_ORIGIN, { status: 403 });
  const most = config.maxUploadBytes;
  const tooLarge = () =>
    Response.json(
      {
        code: 'too_large',
        message: `the file is too large; at most ${Math.round(most / 2 ** 20)} MB can be brought in`
      },
      { status: 413 }
    );
  if (Number(request.headers.get('content-length') ?? 0) > most) return tooLarge();
  if (!request.body) return Response.json({ code: 'bad_input', message: 'the file is empty' }, { status: 400 });
  try {
    const { sha256, bytes } = await put('incoming', Readable.fromWeb(request.body as unknown as NodeStream), most);
    return Response.json({ upload: sha256, bytes });
  } catch (error) {
    if (error instanceof FileTooLarge) return tooLarge();
    const trouble = storageTroubleOf(error);
    if (trouble) return toResponse(refused(STORAGE_SENTENCES[trouble], trouble));
    return Response.json(
      { code: 'fault', message: 'the file was not uploaded completely. Choose it again' },
      { status: 500 }
    );
  }
}
