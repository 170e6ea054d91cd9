import { materialSwatch } from '../../../../server/usecases/material-swatch';
import { sendFile } from '../../respond';

/** A material of the library on its small object, changed as `more` says. */
export async function GET(request: Request, { params }: { params: Promise<{ key: string }> }) {
  const more = new URL(request.url).searchParams.get('more');
  return sendFile(await materialSwatch((await params).key, more), 'image/png');
}
