/**
 * Which photometric file says where a lamp's light goes: none, one that is here, or one to bring in; and its polar
 * curve.
 */
import type { PhotometricDto } from '../../../contracts/dto';
import { NBSP, wholeText } from '../../../core/brief/amounts';
import { BringIn } from '../../../ui/bring-in';
import { bringIn, withAdded } from '../../shared/send';
import type { PanelContext } from '../view';
import { ItemRow } from './item-row';
import { PolarChart } from './polar-chart';

type Props = Pick<PanelContext, 'workspace' | 'onMessage' | 'onWorkspace'> & {
  file: string | null /** How it shines without one. */;
  without: string;
  onChoose: (file: PhotometricDto | null) => void;
};

export function PhotometryControls({ workspace, file, without, onChoose, onMessage, onWorkspace }: Props) {
  const chosen = workspace.photometric.find((p) => p.sha256 === file) ?? null;
  const add = async (document: File, onShare: (share: number) => void) => {
    const made = await bringIn<PhotometricDto>('/api/photometric', document, onShare);
    if (!made.ok) return onMessage(made.message);
    onMessage(null);
    onWorkspace((w) => ({ ...w, photometric: withAdded(w.photometric, made.value) }));
    onChoose(made.value);
  };
  return (
    <div className="sec">
      <span className="lab">Photometric file</span>
      <div className="list" role="group" aria-label="Photometric file">
        <button type="button" aria-pressed={file === null} onClick={() => onChoose(null)}>
          {without}
        </button>
      </div>
      <div role="group" aria-label="Photometric files">
        {workspace.photometric.map((p) => (
          <ItemRow
            key={p.sha256}
            kind="photometric"
            id={p.sha256}
            name={p.name}
            onWorkspace={onWorkspace}
            onMessage={onMessage}
          >
            <button type="button" aria-pressed={p.sha256 === file} onClick={() => onChoose(p)}>
              {p.name}
              <span className="n">
                {wholeText(p.lumen)}
                {NBSP}lm{p.watts ? `, ${wholeText(p.watts)}${NBSP}W` : ''}
              </span>
            </button>
          </ItemRow>
        ))}
      </div>
      <BringIn label="Choose a photometric file" accept=".ies,.ldt,.txt" word="Bring in an .ies or .ldt" onFile={add} />
      {chosen ? <PolarChart curve={chosen.curve} name={chosen.name} /> : null}
    </div>
  );
}
