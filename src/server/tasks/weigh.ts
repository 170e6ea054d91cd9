/** Finds the heaviest objects of a model that was brought in before they were looked for. */
import { weighHeaviest } from '../../core/scene/set-aside';
import { openReducer } from '../../formats/reduce-mesh';
import { serveTask } from '../jobs/serve-task';
import { readModel } from '../render/stored-scene';

serveTask('weigh', async ({ model }) => weighHeaviest(await readModel(model), await openReducer()));
