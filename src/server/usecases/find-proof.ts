/** A proof by the names of its project and picture, for commands. */
import type { Finish } from '../../core/brief/brief';
import { readBrief } from '../../core/brief/read-brief';
import { type Result, ok, refused } from '../../core/result/result';
import { listPictures } from '../store/pictures';
import { listProofsOf, newestWhole } from '../store/proofs';

/** `number`: as on its ticket; null for the newest finished one of the whole picture. */
export function proofNumbered(
  project: string,
  name: string,
  number: number | null
): Result<{ id: string; finish: Finish }> {
  const pictures = listPictures(project).filter((picture) => picture.name === name);
  if (pictures.length !== 1)
    return refused(
      pictures.length === 0
        ? `there is no picture "${name}" in this project; it has ${listPictures(project)
            .map((picture) => `"${picture.name}"`)
            .join(', ')}`
        : `${pictures.length} pictures are called "${name}"; rename all but one`
    );
  const picture = pictures[0]!.id;
  const proof =
    number === null ? newestWhole(picture) : listProofsOf(picture, number + 1, 1).find((p) => p.number === number);
  return proof
    ? ok({ id: proof.id, finish: readBrief(proof.brief_json).finish })
    : refused(
        number === null ? `"${name}" has no finished proof yet; render it first` : `"${name}" has no proof ${number}`
      );
}
