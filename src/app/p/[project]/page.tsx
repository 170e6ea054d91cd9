import { notFound } from 'next/navigation';
import { Workspace } from '../../../features/workspace/workspace';
import { viewWorkspace } from '../../../server/usecases/view-workspace';

export const dynamic = 'force-dynamic';

type Props = { params: Promise<{ project: string }>; searchParams: Promise<{ picture?: string }> };

export async function generateMetadata({ params, searchParams }: Props) {
  const workspace = viewWorkspace((await params).project);
  if (!workspace) return { title: 'Not found' };
  const { picture } = await searchParams;
  return { title: (workspace.pictures.find((p) => p.id === picture) ?? workspace.pictures[0]!).name };
}

export default async function Page({ params, searchParams }: Props) {
  const workspace = viewWorkspace((await params).project);
  if (!workspace) notFound();
  return <Workspace initial={workspace} pictureId={(await searchParams).picture ?? null} />;
}
