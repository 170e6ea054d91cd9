/** What can be shown beside the stage, to compare with it: the other pictures of the project, other proofs of this one. */
import type { ProofDto, WorkspaceDto } from '../../contracts/dto';
import { thumbnailOf } from '../shared/thumbnail';
import { pictureOf } from '../shared/ticket';
import { BESIDE_COPY } from './copy';

export interface Beside {
  /** Stays the same while its proofs become newer. */
  key: string;
  name: string;
  /** Address of its image. */
  src: string;
}

/** `current`: id of the picture on the stage; `shown`: id of its proof there. */
export function besides(
  { pictures }: Pick<WorkspaceDto, 'pictures'>,
  current: string,
  proofs: readonly ProofDto[],
  shown: string | null
): Beside[] {
  return [
    ...pictures
      .filter(({ id }) => id !== current)
      .map(({ id, name, lead, changes }) => ({
        key: `picture ${id}`,
        name,
        src: lead ? pictureOf({ id: lead.proof, picture_count: lead.count }, 'screen') : thumbnailOf(id, changes)
      })),
    ...proofs
      .filter((p) => p.id !== shown && p.picture_count > 0 && p.brief.patch === null)
      .map((p) => ({ key: `proof ${p.id}`, name: BESIDE_COPY.proof(p.number), src: pictureOf(p, 'screen') }))
  ];
}
