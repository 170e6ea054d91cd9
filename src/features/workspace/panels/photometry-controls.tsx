/** Which photometric file says where a lamp's light goes: none, one that is here, or one to bring in; and its polar curve. */
import { useRef, useState } from 'react';
import type { PhotometricDto } from '../../../contracts/dto';
import { NBSP, wholeText } from '../../../core/brief/amounts';
import { send, upload } from '../../shared/send';
import type { ProjectPanelProps } from '../view';
import { PolarChart } from './polar-chart';

type Props = Pick<ProjectPanelProps, 'workspace' | 'onMessage' | 'onWorkspace'> & { file: string | null; /** How it shines without one. */ without: string; onChoose: (file: PhotometricDto | null) => void };

export function PhotometryControls({ workspace, file, without, onChoose, onMessage, onWorkspace }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const [share, setShare] = useState<number | null>(null);
  const chosen = workspace.photometric.find((p) => p.sha256 === file) ?? null;
  const bringIn = async (document: File) => {
    setShare(0);
    const sent = await upload(document, setShare, new AbortController().signal);
    const made = sent.ok ? await send<PhotometricDto>('POST', '/api/photometric', { upload: sent.value.upload, name: document.name }) : sent;
    setShare(null);
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
      <input
        ref={input}
        className="vh"
        type="file"
        accept=".ies,.ldt,.txt"
        aria-label="Choose a photometric file"
        onChange={(e) => {
          const document = e.target.files?.[0];
          if (document) void bringIn(document);
          e.target.value = '';
        }}
      />
      <button type="button" className="lk act" onClick={() => input.current?.click()}>
        {share === null ? 'Bring in an .ies or .ldt' : `${Math.floor(share * 100)}${NBSP}% is here`}
      </button>
      {chosen ? <PolarChart curve={chosen.curve} name={chosen.name} /> : null}
    </div>
  );
}
