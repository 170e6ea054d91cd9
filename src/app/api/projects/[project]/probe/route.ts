import { BriefBody } from '../../../../../contracts/requests';
import { probePicture } from '../../../../../server/usecases/probe-picture';
import { mutation } from '../../../respond';

/** Measures what a forecast of the brief that is sent is made from. */
export const POST = mutation(BriefBody, ({ brief }, { project }: { project: string }) => probePicture(project, brief));
