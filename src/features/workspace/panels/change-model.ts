/** Asks for another reading of the model; the project as it is then. */
import type { PictureDto, WorkspaceDto } from '../../../contracts/dto';
import { send, type Sent } from '../../shared/send';

export async function changeModel(
  { project }: WorkspaceDto,
  picture: PictureDto,
  what: 'scale' | 'fineness' | 'repairs' | 'files',
  body: object
): Promise<Sent<WorkspaceDto>> {
  const sent = await send<null>('POST', `/api/projects/${project.id}/${what}`, body);
  return sent.ok ? send<WorkspaceDto>('GET', `/api/projects/${project.id}?picture=${picture.id}`) : sent;
}
