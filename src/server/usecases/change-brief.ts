/**
 * Changes of a picture's brief: each is saved at once as a step that can be undone; a drag that goes on joins its step.
 * What another window changed meanwhile is merged, and is a step of its own.
 */
import { parseBrief } from '../../contracts/brief';
import type { ChangedPictureDto, PictureDto } from '../../contracts/dto';
import { type Brief, briefChanges, canonicalJson } from '../../core/brief/brief';
import { mergeBriefs } from '../../core/brief/merge';
import { readBrief } from '../../core/brief/read-brief';
import { database } from '../store/database';
import { briefAt, findPicture, lastStep, pushBrief, replaceBrief, setStep } from '../store/pictures';
import { type Result, ok, refused } from '../../core/result/result';
import { pictureDto } from './to-dto';

const gone = () => refused('this picture is no longer there; reload the page', 'gone');

/** `from`: the brief that was changed, when it is known. */
export function changeBrief(
  pictureId: string,
  input: unknown,
  joins: boolean,
  from: unknown = null
): Result<ChangedPictureDto> {
  const parsed = parseBrief(input);
  if (!parsed.ok) return refused(parsed.message, 'bad_brief');
  const began = from === null ? null : parseBrief(from);
  if (began && !began.ok) return refused(began.message, 'bad_brief');
  return database()
    .transaction((): Result<ChangedPictureDto> => {
      const picture = findPicture(pictureId);
      if (!picture) return gone();
      const there = briefAt(picture.id, picture.step)!;
      const others = began !== null && canonicalJson(began.value) !== there;
      const { brief, overridden } = others
        ? merged(began.value, parsed.value, readBrief(there))
        : mineAlone(parsed.value);
      const json = canonicalJson(brief);
      if (there !== json) {
        if (joins && !others && picture.step > 0 && picture.step === lastStep(picture.id))
          replaceBrief(picture, json, Date.now());
        else pushBrief(picture, json, Date.now());
      }
      return ok({ ...pictureDto(findPicture(pictureId)!), overridden: overridden.map((change) => change.label) });
    })
    .immediate();
}

const mineAlone = (brief: Brief): ReturnType<typeof mergeBriefs> => ({ brief, overridden: [] });

/** Mine as it is where the two together are no valid brief. */
function merged(from: Brief, mine: Brief, theirs: Brief): ReturnType<typeof mergeBriefs> {
  const joined = mergeBriefs(from, mine, theirs);
  return parseBrief(joined.brief).ok ? joined : { ...mineAlone(mine), overridden: briefChanges(theirs, from) };
}

/** One step back (-1) or forward (1) in the history of the brief. */
export function moveStep(pictureId: string, by: -1 | 1): Result<PictureDto> {
  return database()
    .transaction((): Result<PictureDto> => {
      const picture = findPicture(pictureId);
      if (!picture) return gone();
      const step = picture.step + by;
      if (step >= 0 && step <= lastStep(picture.id)) setStep(picture.id, step);
      return ok(pictureDto(findPicture(pictureId)!));
    })
    .immediate();
}
