import { useState } from 'react';
import { type Brief, canonicalJson } from '../../../core/brief/brief';
import { DESTINATIONS } from '../../../core/catalogue/destinations';
import { PAPER_NAMES, PAPERS, type Paper } from '../../../core/catalogue/papers';
import type { SizeChoice } from '../../../core/catalogue/size-choice';
import { paperMm, resolvedPpi, resolveSize } from '../../../core/output/size';
import { MM_PER_INCH } from '../../../core/units/units';
import { NumberField } from '../../../ui/number-field';
import { PointerScale } from '../../../ui/pointer-scale';
import { Words } from '../../../ui/words';
import type { ChangeBrief } from '../use-brief';

interface Props {
  brief: Brief;
  was: Brief | null;
  inches: boolean;
  onInches: (inches: boolean) => void;
  onChange: ChangeBrief;
}

const BANDS = [
  { from: 72, to: 120, label: 'screen' },
  { from: 120, to: 220, label: 'board' },
  { from: 220, to: 340, label: 'print' },
  { from: 340, to: 600, label: 'fine print' }
];
const TICKS = [72, 80, 90, 100, 110, 120, 130, 140, 150, 160, 170, 180, 190, 200, 220, 240, 260, 280, 300, 325, 350, 375, 400, 450, 500, 550, 600].map((value) => ({
  value,
  strong: [72, 100, 150, 200, 300, 400, 600].includes(value),
  label: [72, 100, 150, 200, 300, 400, 600].includes(value) ? String(value) : undefined
}));

export function SizePanel({ brief, was, inches, onInches, onChange }: Props) {
  const { size } = brief;
  const [locked, setLocked] = useState(true);
  const sheet = resolveSize(size);
  const aspect = sheet.width_px / sheet.height_px;
  const set = (next: SizeChoice, joins = false) => onChange({ size: next }, joins);
  const destination = DESTINATIONS.find((d) => canonicalJson(d.size) === canonicalJson(size));
  const unit = inches ? MM_PER_INCH : 1;
  const wasPpi = was && 'ppi' in was.size ? was.size.ppi : null;

  const setPixels = (width: number, height: number) => set({ width_px: Math.max(1, Math.round(width)), height_px: Math.max(1, Math.round(height)) });
  const setMm = (width_mm: number, height_mm: number) => set({ width_mm: Math.round(width_mm * 10) / 10, height_mm: Math.round(height_mm * 10) / 10, ppi: sheet.ppi ?? 200 });
  const turned = (orientation: 'landscape' | 'portrait') => {
    if ('paper' in size) return set({ ...size, orientation });
    const turn = (orientation === 'landscape') !== aspect >= 1;
    if (!turn) return;
    if ('width_mm' in size) set({ ...size, width_mm: size.height_mm, height_mm: size.width_mm });
    else set({ width_px: size.height_px, height_px: size.width_px });
  };
  const orientation = aspect >= 1 ? 'landscape' : 'portrait';
  return (
    <>
      <fieldset className="sec tight" style={{ borderTop: 0, paddingTop: 0 }}>
        <span className="lab">Where will it be seen?</span>
        <div className="dest" role="radiogroup" aria-label="Where will it be seen?">
          {DESTINATIONS.map((d) => {
            const s = resolveSize(d.size);
            const k = Math.min(34 / s.width_px, 22 / s.height_px) * (0.55 + 0.45 * Math.min(1, s.width_px / 4300));
            const [w, h] = [s.width_px * k, s.height_px * k];
            return (
              <label key={d.key}>
                <input className="vh" type="radio" name="dest" checked={d === destination} onChange={() => set(d.size)} />
                <svg viewBox="0 0 34 22" aria-hidden="true">
                  <rect x={(34 - w) / 2} y={(22 - h) / 2} width={w} height={h} />
                </svg>
                <span>{d.name}</span>
                <span className="n">
                  {s.width_px} × {s.height_px}
                </span>
              </label>
            );
          })}
        </div>
      </fieldset>
      <div className="sec row" style={{ alignItems: 'end' }}>
        <label style={{ flex: 1 }}>
          <span className="lab">Paper</span>
          <span className="fld">
            <select
              className="grow"
              aria-label="Paper"
              value={'paper' in size ? size.paper : ''}
              onChange={(e) => e.target.value && set({ paper: e.target.value as Paper, orientation, ppi: sheet.ppi ?? 200 })}
            >
              {'paper' in size ? null : <option value="">{'ppi' in size ? 'own sheet' : 'none, a screen'}</option>}
              {PAPER_NAMES.map((name) => (
                <option key={name} value={name}>
                  {name} {inches ? `${(PAPERS[name][0] / 25.4).toFixed(1)} × ${(PAPERS[name][1] / 25.4).toFixed(1)} in` : `${PAPERS[name][0]} × ${PAPERS[name][1]} mm`}
                </option>
              ))}
            </select>
          </span>
        </label>
        <div>
          <span className="lab">Orientation</span>
          <div className="ori" role="radiogroup" aria-label="Orientation">
            {(['landscape', 'portrait'] as const).map((o) => (
              <button key={o} type="button" role="radio" aria-checked={o === orientation} aria-label={o === 'landscape' ? 'Landscape' : 'Portrait'} onClick={() => turned(o)}>
                {o === 'landscape' ? (
                  <svg width="20" height="14" aria-hidden="true">
                    <rect x=".5" y=".5" width="18" height="12.7" />
                  </svg>
                ) : (
                  <svg width="13" height="19" aria-hidden="true">
                    <rect x=".5" y=".5" width="12" height="17.5" />
                  </svg>
                )}
              </button>
            ))}
          </div>
        </div>
      </div>
      {sheet.ppi !== null && 'ppi' in size ? (
        <div className="sec" style={{ paddingBottom: 9 }}>
          <div className="row">
            <span className="lab">Pixels per inch</span>
            <span className="note">
              the eye resolves <span className="n">{Math.round(resolvedPpi(destination?.distance_m ?? 0.6))}</span> at {destination?.distance_m ?? 0.6}&nbsp;m
            </span>
          </div>
          <PointerScale label="Pixels per inch" value={size.ppi} min={72} max={600} step={5} ticks={TICKS} bands={BANDS} valueText={`${size.ppi} ppi`} was={wasPpi} changed={wasPpi !== null && wasPpi !== size.ppi} logarithmic onChange={(ppi, joins) => set({ ...size, ppi }, joins)} />
        </div>
      ) : null}
      <div className="sec" style={{ display: 'grid', gap: 8 }}>
        <div className="wh">
          <span className="u">px</span>
          <NumberField label="Width in px" value={sheet.width_px} min={1} max={32768} onChange={(w) => setPixels(w, locked ? w / aspect : sheet.height_px)} />
          <span className="x2">×</span>
          <NumberField label="Height in px" value={sheet.height_px} min={1} max={32768} onChange={(h) => setPixels(locked ? h * aspect : sheet.width_px, h)} />
          <button type="button" className="lock" aria-label={locked ? 'Proportion locked' : 'Proportion free'} aria-pressed={locked} onClick={() => setLocked(!locked)}>
            <svg width="26" height="58" viewBox="0 0 26 58" fill="none" stroke="currentColor" strokeWidth="1.2" aria-hidden="true">
              <path d="M2 13h11v9M2 45h11v-9" />
              <rect x="8" y="26.5" width="10" height="7.5" fill={locked ? 'currentColor' : 'none'} />
              <path d={locked ? 'M10 26.5v-2a3 3 0 0 1 6 0v2' : 'M10 26.5v-4a3 3 0 0 1 6 0'} />
            </svg>
          </button>
          <span className="u">{inches ? 'in' : 'mm'}</span>
          {sheet.width_mm === null || sheet.height_mm === null ? (
            <span className="note" style={{ gridColumn: '2 / 5' }}>
              a screen has no millimetres; choose a paper
            </span>
          ) : (
            <>
              <NumberField label={inches ? 'Width in inches' : 'Width in mm'} value={sheet.width_mm / unit} min={5 / unit} max={5000 / unit} digits={inches ? 2 : 1} onChange={(w) => setMm(w * unit, locked ? (w * unit) / aspect : sheet.height_mm!)} />
              <span className="x2">×</span>
              <NumberField label={inches ? 'Height in inches' : 'Height in mm'} value={sheet.height_mm / unit} min={5 / unit} max={5000 / unit} digits={inches ? 2 : 1} onChange={(h) => setMm(locked ? h * unit * aspect : sheet.width_mm!, h * unit)} />
            </>
          )}
        </div>
      </div>
      {sheet.width_mm !== null ? (
        <div className="sec row">
          <span className="lab">Rulers and fields in</span>
          <Words
            label="Unit of length"
            value={inches ? 'in' : 'mm'}
            options={[
              { key: 'mm', label: 'mm' },
              { key: 'in', label: 'inches' }
            ]}
            onChoose={(key) => onInches(key === 'in')}
          />
        </div>
      ) : null}
      {'paper' in size ? <p className="note">{paperMm(size.paper, size.orientation).join(' × ')}&nbsp;mm, trimmed</p> : null}
    </>
  );
}
