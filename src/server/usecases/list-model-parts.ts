/** What is read from the head of a model's file. The last ones are kept in memory; a model never changes under its hash. */
import { closeSync, openSync, readSync } from 'node:fs';
import { LRUCache } from 'lru-cache';
import { type Result, ok, refused } from '../../core/result/result';
import type { ModelPart } from '../../core/scene/model-part';
import { cameraAspects, type GlbHead, listParts, readHead } from '../../formats/gltf/list-parts';
import type { ImportReport } from '../../formats/model/import-report';
import { contentPath, has, isContentHash } from '../files/content-store';
import { singleton } from '../jobs/singleton';

const known = () => singleton('model-parts', () => new LRUCache<string, ModelPart[]>({ max: 8 }));

export async function listModelParts(sha256: string): Promise<Result<ModelPart[]>> {
  if (!isContentHash(sha256) || !(await has('models', sha256)))
    return refused('this model is no longer there; reload the page', 'gone');
  const there = known().get(sha256);
  if (there) return ok(there);
  const parts = listParts(headOf(sha256));
  known().set(sha256, parts);
  return ok(parts);
}

const aspects = () => singleton('camera-aspects', () => new LRUCache<string, Map<string, number | null>>({ max: 64 }));

/** A report whose cameras say the proportion of their frame, as those of models brought in earlier do not. */
export function withAspects(report: ImportReport, sha256: string): ImportReport {
  if (report.cameras.every((camera) => camera.aspect !== undefined)) return report;
  const known = aspects().get(sha256) ?? cameraAspects(headOf(sha256));
  aspects().set(sha256, known);
  const cameras = report.cameras.map((camera) => ({
    ...camera,
    aspect: camera.aspect ?? known.get(camera.name) ?? null
  }));
  return { ...report, cameras };
}

/** A GLB up to the end of its description, without its geometry. */
function headOf(sha256: string): GlbHead {
  const file = openSync(contentPath('models', sha256), 'r');
  try {
    const start = Buffer.alloc(20);
    readSync(file, start, 0, start.length, 0);
    const head = Buffer.alloc(20 + start.readUInt32LE(12));
    readSync(file, head, 0, head.length, 0);
    return readHead(head);
  } finally {
    closeSync(file);
  }
}
