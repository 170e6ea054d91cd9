/** Keeps surroundings for all projects, or a cue for one, under a name; and lets go of one. */
import { parseBrief } from '../../contracts/brief';
import type { KeptLightDto } from '../../contracts/dto';
import { partOf } from '../../core/brief/kept-part';
import { deleteKeptLight, insertKeptLight, listKeptLights } from '../store/kept-lights';
import { findProject } from '../store/projects';
import { done, newId, type Outcome, refused } from './identify';

export function keepLight(projectId: string, kind: unknown, name: string, brief: unknown): Outcome<KeptLightDto> {
  if (!findProject(projectId)) return refused('this project is no longer there; reload the page', 'gone');
  if (kind !== 'surroundings' && kind !== 'cue') return refused('say whether surroundings or a cue are kept');
  const plain = name.trim().slice(0, 80);
  if (!plain) return refused('give it a name');
  if (listKeptLights(projectId).some((k) => k.kind === kind && k.name === plain)) return refused(`"${plain}" is there already; choose another name`);
  const parsed = parseBrief(brief);
  if (!parsed.ok) return refused(parsed.message, 'bad_brief');
  const part = partOf(parsed.value, kind);
  const id = newId();
  insertKeptLight({ id, kind, project_id: kind === 'cue' ? projectId : null, name: plain, part_json: JSON.stringify(part), created_at_ms: Date.now() });
  return done({ id, kind, name: plain, part });
}

export const dropLight = (id: string): Outcome<null> => (deleteKeptLight(id) ? done(null) : refused('it is no longer there; reload the page', 'gone'));
