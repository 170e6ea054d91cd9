/** Saves a part of a brief under a name, a cue for its project, every other part for all projects; and removes one. */
import { parseBrief } from '../../contracts/brief';
import type { KeptDto } from '../../contracts/dto';
import { type KeptKind, partOf, writePart } from '../../core/brief/kept-part';
import { insertKept, listKept } from '../store/kept';
import { findProject } from '../store/projects';
import { type Result, ok, refused } from '../../core/result/result';
import { newId } from './identify';

export function keepPart(projectId: string, kind: KeptKind, name: string, brief: unknown): Result<KeptDto> {
  if (!findProject(projectId)) return refused('this project is no longer there; reload the page', 'gone');
  const plain = name.trim().slice(0, 80);
  if (!plain) return refused('give it a name');
  if (listKept(projectId).some((k) => k.kind === kind && k.name === plain))
    return refused(`"${plain}" is there already; choose another name`);
  const parsed = parseBrief(brief);
  if (!parsed.ok) return refused(parsed.message, 'bad_brief');
  // a destination is what it asks for from now on
  const of =
    kind === 'destination'
      ? { ...parsed.value, seen: { ...parsed.value.seen, destination: { name: plain, size: parsed.value.size } } }
      : parsed.value;
  const part = partOf(of, kind);
  const id = newId();
  insertKept({
    id,
    kind,
    project_id: kind === 'cue' ? projectId : null,
    name: plain,
    part_json: writePart(part),
    created_at_ms: Date.now()
  });
  return ok({ id, kind, name: plain, part });
}
