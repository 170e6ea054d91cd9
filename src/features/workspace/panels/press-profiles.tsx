/** The presses that can be chosen by their ICC profiles, and the bringing in of one. */
import type { PressProfileDto } from '../../../contracts/dto';
import { BringIn } from '../../../ui/bring-in';
import { bringIn, withAdded } from '../../shared/send';
import { PRESS_COPY as COPY } from '../copy';
import type { PanelContext } from '../view';
import { ItemRow } from './item-row';

type Props = Pick<PanelContext, 'workspace' | 'onMessage' | 'onWorkspace'> & {
  /** Hash of the chosen one. */
  chosen: string | null;
  /** What it is without one; null where there must be one. */
  without: string | null;
  onChoose: (profile: string | null) => void;
};

export function PressProfiles({ workspace, chosen, without, onChoose, onMessage, onWorkspace }: Props) {
  const add = async (file: File, onShare: (share: number) => void) => {
    const made = await bringIn<PressProfileDto>('/api/profiles', file, onShare);
    if (!made.ok) return onMessage(made.message);
    onMessage(null);
    onWorkspace((w) => ({ ...w, press: withAdded(w.press, made.value) }));
    onChoose(made.value.sha256);
  };
  return (
    <>
      {without === null ? null : (
        <div className="list" role="group" aria-label={COPY.none}>
          <button type="button" aria-pressed={chosen === null} onClick={() => onChoose(null)}>
            {without}
          </button>
        </div>
      )}
      <div role="group" aria-label={COPY.profiles}>
        {workspace.press.map(({ sha256, name }) => (
          <ItemRow key={sha256} kind="profile" id={sha256} name={name} onWorkspace={onWorkspace} onMessage={onMessage}>
            <button type="button" aria-pressed={sha256 === chosen} onClick={() => onChoose(sha256)}>
              {name}
            </button>
          </ItemRow>
        ))}
      </div>
      <BringIn label={COPY.choose} accept=".icc,.icm" word={COPY.bring} onFile={add} />
    </>
  );
}
