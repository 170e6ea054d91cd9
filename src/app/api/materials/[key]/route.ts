import { materialSwatch } from '../../../../server/usecases/material-swatch';
import { sendFile } from '../../respond';

/** A material of the library on its small object. */
export async function GET(_request: Request, { params }: { params: Promise<{ key: string }> }) {
  return sendFile(await materialSwatch((await params).key), 'image/png');
}
