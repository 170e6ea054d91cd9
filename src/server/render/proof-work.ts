/** A proof that a task works on: what it is of, and the right to write what is made of it. */
import type { Brief } from '../../core/brief/brief';
import { readBrief } from '../../core/brief/read-brief';
import { layerCount, type FilmLayers, type TileRect, tilesOf } from '../../core/film/film';
import { DiskFilm } from '../files/film-store';
import { filmPath } from '../files/proof-files';
import type { TaskContext } from '../jobs/serve-task';
import { assertLease, type Lease } from '../store/lease';
import { findRevision } from '../store/projects';
import { findProof, type ProofFacts, type ProofRow, writeProof } from '../store/proofs';

export interface ProofWork {
  /** As it was when the work began. */
  row: ProofRow;
  brief: Brief;
  /** Content hash of its model. */
  model: string;
  project: string;
  tiles: TileRect[];
  lease: Lease;
  context: TaskContext<'render' | 'finish'>;
  /** Throws LeaseLost when somebody else works on it by now. */
  write(facts: ProofFacts): void;
}

export function openProofWork(proof: string, lease: Lease, context: ProofWork['context']): ProofWork {
  const row = findProof(proof);
  const revision = row && findRevision(row.revision_id);
  if (!row || !revision) throw new Error(`openProofWork: there is no proof ${proof}`);
  return {
    row,
    brief: readBrief(row.brief_json),
    model: revision.glb_sha256,
    project: revision.project_id,
    tiles: tilesOf(row.width_px, row.height_px),
    lease,
    context,
    write: (facts) => writeProof(row.id, lease, facts)
  };
}

export const openFilm = ({ row, tiles, lease }: ProofWork, layers: FilmLayers): Promise<DiskFilm> =>
  DiskFilm.open(filmPath(row.id), tiles.length, layerCount(layers), () => assertLease(lease));
