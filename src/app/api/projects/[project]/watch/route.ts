import { WatchBody } from '../../../../../contracts/requests';
import { viewWatch, watchFile } from '../../../../../server/usecases/watched-file';
import { mutation, toResponse } from '../../../respond';

/** The files of the watched folder, and which of them the project follows; null where none is watched. */
export async function GET(_request: Request, { params }: { params: Promise<{ project: string }> }) {
  return toResponse(await viewWatch((await params).project));
}

/** Follows a file, or none. */
export const PUT = mutation(WatchBody, ({ file }, { project }: { project: string }) => watchFile(project, file));
