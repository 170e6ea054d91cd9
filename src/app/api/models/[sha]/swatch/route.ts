import { fileSwatch } from '../../../../../server/usecases/material-swatch';
import { sendFile } from '../../../respond';

/** A material of a model on its small object, by its `name` there, changed as `more` says. */
export async function GET(request: Request, { params }: { params: Promise<{ sha: string }> }) {
  const { searchParams } = new URL(request.url);
  const of = { model: (await params).sha, name: searchParams.get('name') ?? '' };
  return sendFile(await fileSwatch(of, searchParams.get('more')), 'image/png');
}
