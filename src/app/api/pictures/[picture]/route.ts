import { viewPicture } from '../../../../server/usecases/view-workspace';
import { query } from '../../respond';

export const dynamic = 'force-dynamic';

/** A picture with its newest proofs. */
export const GET = query(
  (_, { picture }: { picture: string }) => viewPicture(picture),
  'this picture is no longer there; choose another'
);
