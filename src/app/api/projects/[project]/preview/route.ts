import { PreviewBody } from '../../../../../contracts/requests';
import { setUpPreview } from '../../../../../server/usecases/set-up-preview';
import { mutation } from '../../../respond';

/** What the browser needs to render a brief by itself. */
export const POST = mutation(PreviewBody, async (body, { project }: { project: string }) => {
  const setup = await setUpPreview(project, body);
  if (!setup.ok) return setup;
  const headers = { 'Content-Type': 'application/octet-stream', 'Cache-Control': 'no-store' };
  return new Response(setup.value as BodyInit, { headers });
});
