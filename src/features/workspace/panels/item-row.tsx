/** One thing of a list in a panel, which can be renamed and removed. */
import type { ReactNode } from 'react';
import type { WorkspaceDto } from '../../../contracts/dto';
import { EditItem } from '../../shared/edit-item';
import type { PanelContext } from '../view';
import { useWorkspaceStore } from '../workspace-store';

const LISTS = {
  viewpoint: 'viewpoints',
  part: 'kept',
  captured: 'captured',
  photometric: 'photometric',
  backdrop: 'backdrops',
  profile: 'press'
} as const satisfies Record<string, keyof WorkspaceDto>;
type ListedKind = keyof typeof LISTS;
type Listed = { id?: string; sha256?: string; name: string };

/** The project with one thing of a list under another name, or without it when that is null. */
export function withName(workspace: WorkspaceDto, kind: ListedKind, id: string, name: string | null): WorkspaceDto {
  const key = LISTS[kind];
  const list = (workspace[key] as Listed[]).flatMap((item) =>
    (item.id ?? item.sha256) !== id ? [item] : name === null ? [] : [{ ...item, name }]
  );
  return { ...workspace, [key]: list };
}

type Props = Pick<PanelContext, 'onWorkspace' | 'onMessage'> & {
  kind: ListedKind;
  id: string;
  name: string;
  /** The button that chooses it. */
  children: ReactNode;
};

export function ItemRow({ kind, id, name, onWorkspace, onMessage, children }: Props) {
  const set = useWorkspaceStore((state) => state.set);
  return (
    <div className="row item">
      <div className="list">{children}</div>
      <EditItem
        kind={kind}
        id={id}
        name={name}
        onMessage={onMessage}
        onRenamed={(next) => onWorkspace((w) => withName(w, kind, id, next))}
        onRemoved={(removed) => {
          onWorkspace((w) => withName(w, kind, id, null));
          set({ removed });
        }}
      />
    </div>
  );
}
