import { useRef, useState } from 'react';
import { SURROUNDINGS_DEFAULTS, type Surroundings, type SurroundingsKind } from '../../../core/brief/brief';
import { PLACES } from '../../../core/catalogue/places';
import { NumberField } from '../../../ui/number-field';
import { PointerScale } from '../../../ui/pointer-scale';
import { Words } from '../../../ui/words';
import { send, upload } from '../../shared/send';
import type { Picking, ProjectPanelProps } from '../view';
import { GroundControls } from './ground-controls';
import { PlanDial } from './plan-dial';
import { SkyControls } from './sky-controls';
import { StudioControls } from './studio-controls';

const EV_TICKS = [-3, -2.5, -2, -1.5, -1, -0.5, 0, 0.5, 1, 1.5, 2, 2.5, 3].map((value) => ({ value, strong: Number.isInteger(value), label: value === -3 ? '−3' : value === 0 ? '0' : value === 3 ? '+3' : undefined }));
const signed = (v: number) => `${v > 0 ? '+' : v < 0 ? '−' : ''}${Math.abs(v).toFixed(1)}\u00a0EV`;

export function SurroundingsPanel({ workspace, brief, was, view, picking, onPicking, onChange, onMessage, onWorkspace }: ProjectPanelProps & { picking: Picking | null; onPicking: (picking: Picking | null) => void }) {
  const { min_m: min, max_m: max } = workspace.revision.report;
  const s = brief.surroundings;
  // what was set for a kind comes back when one returns to it
  const [kept, setKept] = useState<Partial<Record<SurroundingsKind, Surroundings>>>({});
  const set = (part: object, joins = false) => onChange({ surroundings: { ...s, ...part } as Surroundings }, joins);
  const choose = (kind: SurroundingsKind) => {
    setKept({ ...kept, [s.kind]: s });
    const place = PLACES[0]!;
    const fresh = kind === 'captured' ? { ...SURROUNDINGS_DEFAULTS.captured, file: workspace.captured[0]?.sha256 ?? 'none' } : kind === 'sky' ? { ...SURROUNDINGS_DEFAULTS.sky, latitude_deg: place.latitude_deg, longitude_deg: place.longitude_deg } : kind === 'even' ? { ...SURROUNDINGS_DEFAULTS.even, radiance: 1000 } : SURROUNDINGS_DEFAULTS[kind];
    onChange({ surroundings: kept[kind] ?? fresh });
  };
  const before = was?.surroundings.kind === s.kind ? was.surroundings : null;
  const brightnessBefore = before && 'brightness_ev' in before ? before.brightness_ev : null;
  return (
    <>
      <div style={{ paddingBottom: 11, fontSize: '1rem' }}>
        <Words
          label="Kind of surroundings"
          value={s.kind}
          options={[
            { key: 'sky', label: 'Sky' },
            { key: 'studio', label: 'Studio' },
            { key: 'captured', label: 'Captured' },
            { key: 'even', label: 'Even' }
          ]}
          onChoose={choose}
        />
      </div>
      {s.kind === 'sky' ? <SkyControls sky={s} before={before?.kind === 'sky' ? before : null} view={view} onSet={set} /> : null}
      {s.kind === 'studio' ? <StudioControls studio={s} before={before?.kind === 'studio' ? before : null} bounds={{ min, max }} view={view} picking={picking} onPicking={onPicking} onSet={set} /> : null}
      {s.kind === 'captured' ? <CapturedList workspace={workspace} file={s.file} onChoose={(file) => set({ file })} onMessage={onMessage} onWorkspace={onWorkspace} /> : null}
      {s.kind === 'even' ? (
        <div className="sec">
          <p className="say">The same light from everywhere, without a shadow’s direction.</p>
          <div className="rows">
            <span>Luminance</span>
            <NumberField label="Luminance" value={s.radiance} min={0} max={1e9} unit="cd/m²" onChange={(radiance) => set({ radiance })} />
          </div>
        </div>
      ) : null}
      {'brightness_ev' in s ? (
        <div className="sec">
          <div className="ctl">
            <span className="lab">Brightness</span>
            <PointerScale label="Brightness" width={130} value={s.brightness_ev} min={-3} max={3} step={0.1} ticks={EV_TICKS} valueText={signed(s.brightness_ev)} was={brightnessBefore} changed={brightnessBefore !== null && brightnessBefore !== s.brightness_ev} onChange={(v, joins) => set({ brightness_ev: Math.round(v * 10) / 10 }, joins)} />
            <span className={`n v${brightnessBefore !== null && brightnessBefore !== s.brightness_ev ? ' livec' : ''}`}>{signed(s.brightness_ev)}</span>
          </div>
          {'metered' in brief.exposure ? <p className="note">The exposure is metered, so brightness alone shows against lamps, not by itself.</p> : null}
        </div>
      ) : null}
      {s.kind !== 'even' ? (
        <div className="sec">
          <PlanDial report={workspace.revision.report} view={view} surroundings={s} onTurn={(angle, joins) => set(s.kind === 'sky' ? { north_deg: angle } : { rotation_deg: angle }, joins)} />
        </div>
      ) : null}
      <GroundControls ground={brief.ground} before={was?.ground ?? null} footM={min[1]} studio={s.kind === 'studio'} onChange={(ground, joins) => onChange({ ground }, joins)} />
      <div className="sec">
        <span className="lab">Exposure</span>
        <Words
          label="Exposure"
          value={'metered' in brief.exposure ? 'metered' : 'fixed'}
          options={[
            { key: 'metered', label: 'metered' },
            { key: 'fixed', label: 'fixed' }
          ]}
          onChoose={(key) => onChange({ exposure: key === 'metered' ? { metered: true } : { ev100: 12 } })}
        />
        {'ev100' in brief.exposure ? (
          <div style={{ width: 130 }}>
            <NumberField label="Exposure value" value={brief.exposure.ev100} min={-16} max={24} digits={1} unit="EV at ISO 100" onChange={(ev100) => onChange({ exposure: { ev100 } })} />
          </div>
        ) : null}
      </div>
    </>
  );
}

function CapturedList({ workspace, file, onChoose, onMessage, onWorkspace }: { file: string; onChoose: (sha: string) => void } & Pick<ProjectPanelProps, 'workspace' | 'onMessage' | 'onWorkspace'>) {
  const input = useRef<HTMLInputElement>(null);
  const [share, setShare] = useState<number | null>(null);
  const bringIn = async (image: File) => {
    setShare(0);
    const sent = await upload(image, setShare, new AbortController().signal);
    const made = sent.ok ? await send<{ sha256: string }>('POST', '/api/captured', { upload: sent.value.upload, name: image.name }) : sent;
    setShare(null);
    if (!made.ok) return onMessage(made.message);
    const { sha256 } = made.value as { sha256: string };
    onWorkspace((w) => ({ ...w, captured: w.captured.some((c) => c.sha256 === sha256) ? w.captured : [...w.captured, { sha256, name: image.name.replace(/\.[A-Za-z0-9]+$/, ''), width_px: 0, height_px: 0 }] }));
    onChoose(sha256);
  };
  return (
    <div className="sec">
      <span className="lab">Captured 360° images</span>
      <div className="list" role="group" aria-label="Captured images">
        {workspace.captured.map((c) => (
          <button key={c.sha256} type="button" aria-pressed={c.sha256 === file} onClick={() => onChoose(c.sha256)}>
            {c.name}
            <span className="n">{c.width_px > 0 ? `${c.width_px} × ${c.height_px}` : ''}</span>
          </button>
        ))}
      </div>
      {workspace.captured.length === 0 ? <p className="say">No image yet. An .hdr or .exr of the full circle, twice as wide as high, lights the model as the place was lit.</p> : null}
      <input
        ref={input}
        className="vh"
        type="file"
        accept=".hdr,.exr"
        aria-label="Choose a captured image"
        onChange={(e) => {
          const image = e.target.files?.[0];
          if (image) void bringIn(image);
          e.target.value = '';
        }}
      />
      <button type="button" className="lk act" onClick={() => input.current?.click()}>
        {share === null ? 'Bring in an .hdr or .exr' : `${Math.floor(share * 100)}\u00a0% is here`}
      </button>
    </div>
  );
}
