import { MaterialsBody } from '../../../contracts/requests';
import { readRules } from '../../../server/usecases/project-materials';
import { mutation } from '../respond';

/** Rules of a file, checked. */
export const POST = mutation(MaterialsBody, (rules) => readRules(rules));
