/** Rules of materials for a whole project: taken by all its pictures at once, or read from a file that holds them. */
import { parseBrief } from '../../contracts/brief';
import { BRIEF_DEFAULTS, type Brief, canonicalJson } from '../../core/brief/brief';
import { migrateBrief } from '../../core/brief/migrate';
import { readBrief } from '../../core/brief/read-brief';
import { libraryMaterial } from '../../core/scene/material-library';
import { type Result, ok, refused } from '../../core/result/result';
import { database } from '../store/database';
import { briefAt, listPictures, pushBrief } from '../store/pictures';

/** Rules as a file has them: `{ "version": 1, "materials": [...] }`. */
export function readRules(input: unknown): Result<Brief['materials']> {
  const { version = 1, materials } = (input ?? {}) as { version?: unknown; materials?: unknown };
  if (!Array.isArray(materials))
    return refused(
      'the file holds no rules of materials; choose one that was saved with "Save the rules"',
      'bad_rules'
    );
  const parsed = parseBrief(migrateBrief({ ...BRIEF_DEFAULTS, materials }, version));
  if (!parsed.ok) return refused(parsed.message, 'bad_rules');
  for (const { becomes } of parsed.value.materials)
    if (becomes !== null && !libraryMaterial(becomes))
      return refused(`materials.becomes "${becomes}" is not in the library; choose another material`, 'bad_rules');
  return ok(parsed.value.materials);
}

/** Each picture that changes has one more step, which can be undone there. */
export function giveToAllPictures(projectId: string, materials: unknown): Result<{ pictures: number }> {
  const rules = readRules({ ...BRIEF_DEFAULTS, materials });
  if (!rules.ok) return rules;
  return database()
    .transaction((): Result<{ pictures: number }> => {
      let pictures = 0;
      for (const picture of listPictures(projectId)) {
        const there = briefAt(picture.id, picture.step)!;
        const json = canonicalJson({ ...readBrief(there), materials: rules.value });
        if (json === there) continue;
        pushBrief(picture, json, Date.now());
        pictures++;
      }
      return ok({ pictures });
    })
    .immediate();
}
