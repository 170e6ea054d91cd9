/** Which other picture or proof is shown beside the stage. */
import { besides } from '../beside';
import { BESIDE_COPY as COPY } from '../copy';
import type { PanelContext } from '../view';
import { useWorkspaceStore } from '../workspace-store';

type Props = Pick<PanelContext, 'workspace' | 'picture' | 'proofs' | 'shown'>;

export function ShownBeside({ workspace, picture, proofs, shown }: Props) {
  const { beside, set } = useWorkspaceStore((state) => state);
  const all = besides(workspace, picture.id, proofs, shown?.id ?? null);
  if (all.length === 0) return null;
  return (
    <label className="row">
      <span className="lab">{COPY.title}</span>
      <select
        className="fld"
        aria-label={COPY.title}
        value={all.some(({ key }) => key === beside) ? beside! : ''}
        onChange={(e) => set({ beside: e.target.value || null })}
      >
        <option value="">{COPY.none}</option>
        {all.map(({ key, name }) => (
          <option key={key} value={key}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}
