/** The name of a part; pressed, its box is drawn on the stage. */
import { nameOfPath } from '../../../core/scene/part-paths';
import { useWorkspaceStore } from '../workspace-store';

export function LookAt({ path, label = nameOfPath(path) }: { path: string; label?: string }) {
  const { partInHand, set } = useWorkspaceStore((state) => state);
  const shown = partInHand === path;
  return (
    <button
      type="button"
      className="lk"
      title={path}
      aria-pressed={shown}
      onClick={() => set({ partInHand: shown ? null : path })}
    >
      {label}
    </button>
  );
}
