/** A model of the content store, ready to be prepared for any brief of it. */
import { readFile } from 'node:fs/promises';
import type { Brief, Surroundings } from '../../core/brief/brief';
import type { Scene } from '../../core/scene/scene';
import { readScene } from '../../formats/gltf/read-scene';
import type { FloatImage } from '../../formats/hdr/read-hdr';
import { config } from '../config';
import { contentPath } from '../files/content-store';
import { findPack, packKey } from '../files/pack-store';
import { readCapturedOf } from './captured-file';
import { loadKernel } from './kernel-file';
import { readWebs } from './photometric-files';
import { type Prepared, prepare } from './session';

export interface StoredScene {
  scene: Scene;
  captured: FloatImage | null;
  module: WebAssembly.Module;
  /** `ev100`: an exposure metered before, to go on with exactly. */
  prepare(brief: Brief, ev100?: number | null): Promise<Prepared>;
}

export const readModel = async (model: string): Promise<Scene> =>
  readScene(new Uint8Array(await readFile(contentPath('models', model))));

/** `surroundings`: those that every brief has that is prepared; their image is read once. */
export async function openStoredScene(model: string, surroundings: Surroundings): Promise<StoredScene> {
  const module = await loadKernel();
  const scene = await readModel(model);
  const captured = await readCapturedOf(surroundings);
  return {
    scene,
    captured,
    module,
    prepare: async (brief, ev100 = null) =>
      prepare({
        scene,
        brief,
        captured,
        webs: await readWebs(brief),
        module,
        threads: config.threads,
        ev100,
        findPack: (input, build) => findPack(packKey(model, input), build)
      })
  };
}
