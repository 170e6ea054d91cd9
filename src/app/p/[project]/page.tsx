import { notFound } from 'next/navigation';
import { cache } from 'react';
import { WORKSPACE_COPY } from '../../../features/workspace/copy';
import { Workspace } from '../../../features/workspace/workspace';
import { viewWorkspace } from '../../../server/usecases/view-workspace';
import { storedPage } from '../../storage-page';

export const dynamic = 'force-dynamic';

type Props = { params: Promise<{ project: string }>; searchParams: Promise<{ picture?: string }> };

/** Once a request: the title and the page are of the same state. */
const load = cache(viewWorkspace);

export async function generateMetadata({ params, searchParams }: Props) {
  const [{ project }, { picture = null }] = [await params, await searchParams];
  let workspace: ReturnType<typeof load>;
  try {
    workspace = load(project, picture);
  } catch {
    return {}; // the page says it
  }
  if (!workspace) return { title: 'Not found' };
  return { title: { absolute: WORKSPACE_COPY.title(workspace.opened.picture.name, workspace.project.name) } };
}

export default async function Page({ params, searchParams }: Props) {
  const asked = (await searchParams).picture ?? null;
  const { project } = await params;
  return storedPage(
    () => load(project, asked),
    (workspace) => {
      if (!workspace) notFound();
      return <Workspace initial={workspace} asked={asked} />;
    }
  );
}
