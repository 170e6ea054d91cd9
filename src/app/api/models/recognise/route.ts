import { RecogniseBody } from '../../../../contracts/requests';
import { recogniseUploads } from '../../../../server/usecases/create-project';
import { mutation } from '../../respond';

/** What uploaded files are, and what has to be asked before they become a project. */
export const POST = mutation(RecogniseBody, ({ files }, _, { signal }) => recogniseUploads(files, signal));
