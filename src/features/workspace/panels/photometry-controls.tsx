/** Which photometric file says where a lamp's light goes: none, one that is here, or one to bring in; and its polar curve. */
import type { PhotometricDto } from '../../../contracts/dto';
import { NBSP, wholeText } from '../../../core/brief/amounts';
import { BringIn } from '../../../ui/bring-in';
import { send, upload } from '../../shared/send';
import type { ProjectPanelProps } from '../view';
import { PolarChart } from './polar-chart';

type Props = Pick<ProjectPanelProps, 'workspace' | 'onMessage' | 'onWorkspace'> & { file: string | null; /** How it shines without one. */ without: string; onChoose: (file: PhotometricDto | null) => void };

export function PhotometryControls({ workspace, file, without, onChoose, onMessage, onWorkspace }: Props) {
  const chosen = workspace.photometric.find((p) => p.sha256 === file) ?? null;
  const bringIn = async (document: File, onShare: (share: number) => void) => {
    const sent = await upload(document, onShare, new AbortController().signal);
    const made = sent.ok ? await send<PhotometricDto>('POST', '/api/photometric', { upload: sent.value.upload, name: document.name }) : sent;
    if (!made.ok) return onMessage(made.message);
    const added = made.value as PhotometricDto;
    onMessage(null);
    onWorkspace((w) => ({ ...w, photometric: w.photometric.some((p) => p.sha256 === added.sha256) ? w.photometric : [...w.photometric, added] }));
    onChoose(added);
  };
  return (
    <div className="sec">
      <span className="lab">Photometric file</span>
      <div className="list" role="group" aria-label="Photometric file">
        <button type="button" aria-pressed={file === null} onClick={() => onChoose(null)}>
          {without}
        </button>
        {workspace.photometric.map((p) => (
          <button key={p.sha256} type="button" aria-pressed={p.sha256 === file} onClick={() => onChoose(p)}>
            {p.name}
            <span className="n">
              {wholeText(p.lumen)}
              {NBSP}lm{p.watts ? `, ${wholeText(p.watts)}${NBSP}W` : ''}
            </span>
          </button>
        ))}
      </div>
      <BringIn label="Choose a photometric file" accept=".ies,.ldt,.txt" word="Bring in an .ies or .ldt" onFile={bringIn} />
      {chosen ? <PolarChart curve={chosen.curve} name={chosen.name} /> : null}
    </div>
  );
}
