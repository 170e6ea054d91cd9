/**
 * Changes of a picture's brief: each is saved at once as a step that can be undone; a drag that goes on joins its step.
 */
import { parseBrief } from '../../contracts/brief';
import type { PictureDto } from '../../contracts/dto';
import { canonicalJson } from '../../core/brief/brief';
import { database } from '../store/database';
import { briefAt, findPicture, lastStep, pushBrief, replaceBrief, setStep } from '../store/pictures';
import { type Result, ok, refused } from '../../core/result/result';
import { pictureDto } from './to-dto';

const gone = () => refused('this picture is no longer there; reload the page', 'gone');

export function changeBrief(pictureId: string, input: unknown, joins: boolean): Result<PictureDto> {
  const parsed = parseBrief(input);
  if (!parsed.ok) return refused(parsed.message, 'bad_brief');
  return database()
    .transaction((): Result<PictureDto> => {
      const picture = findPicture(pictureId);
      if (!picture) return gone();
      const json = canonicalJson(parsed.value);
      if (briefAt(picture.id, picture.step) !== json) {
        if (joins && picture.step > 0 && picture.step === lastStep(picture.id)) replaceBrief(picture, json, Date.now());
        else pushBrief(picture, json, Date.now());
      }
      return ok(pictureDto(findPicture(pictureId)!));
    })
    .immediate();
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
