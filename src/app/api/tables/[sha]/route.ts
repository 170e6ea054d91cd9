import { tableFile } from '../../../../server/usecases/add-table';
import { sendFile } from '../../respond';

/** A colour table, as it was brought in. */
export async function GET(_request: Request, { params }: { params: Promise<{ sha: string }> }) {
  return sendFile(tableFile((await params).sha), 'text/plain; charset=latin1');
}
