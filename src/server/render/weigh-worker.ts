/** The process that weighs the objects of a model; started by weigh.ts. */
import { readFile } from 'node:fs/promises';
import { weighHeaviest } from '../../core/scene/set-aside';
import { readScene } from '../../formats/gltf/read-scene';
import { openReducer } from '../../formats/reduce-mesh';
import { contentPath } from '../files/content-store';
import { answerOnce } from './ask-worker';
import type { WeighJob, WeighSaid } from './weigh';

answerOnce(
  async ({ model }: WeighJob): Promise<WeighSaid> => ({
    ok: true,
    heaviest: weighHeaviest(
      await readScene(new Uint8Array(await readFile(contentPath('models', model)))),
      await openReducer()
    )
  })
);
