import { notFound } from 'next/navigation';
import { cache } from 'react';
import { WORKSPACE_COPY } from '../../../features/workspace/copy';
import { Workspace } from '../../../features/workspace/workspace';
import { viewWorkspace } from '../../../server/usecases/view-workspace';

export const dynamic = 'force-dynamic';

type Props = { params: Promise<{ project: string }>; searchParams: Promise<{ picture?: string }> };

/** Once a request: the title and the page are of the same state. */
const load = cache(viewWorkspace);

export async function generateMetadata({ params, searchParams }: Props) {
  const workspace = load((await params).project, (await searchParams).picture ?? null);
  if (!workspace) return { title: 'Not found' };
  return { title: { absolute: WORKSPACE_COPY.title(workspace.opened.picture.name, workspace.project.name) } };
}

export default async function Page({ params, searchParams }: Props) {
  const asked = (await searchParams).picture ?? null;
  const workspace = load((await params).project, asked);
  if (!workspace) notFound();
  return <Workspace initial={workspace} asked={asked} />;
}
