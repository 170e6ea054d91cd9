/**
 * The sides in px and, for a sheet, in mm, cm or inches; each can be typed, the others follow
 * (core/output/edit-size.ts).
 */
import { limitsOf } from '../../../core/brief/limits';
import { useState } from 'react';
import type { SizeChoice } from '../../../core/catalogue/size-choice';
import { editSize, MAX_SIDE_PX, PPI, SIDE_MM } from '../../../core/output/edit-size';
import { resolveSize } from '../../../core/output/size';
import { MM_PER_INCH } from '../../../core/units/units';
import { NumberField } from '../../../ui/number-field';
import { Words } from '../../../ui/words';

export type SheetUnit = 'mm' | 'cm' | 'in';
const UNITS: Record<SheetUnit, { name: string; mm: number; digits: number }> = {
  mm: { name: 'mm', mm: 1, digits: 1 },
  cm: { name: 'cm', mm: 10, digits: 2 },
  in: { name: 'inches', mm: MM_PER_INCH, digits: 2 }
};
const SIDES = ['width', 'height'] as const;

interface Props {
  size: SizeChoice;
  unit: SheetUnit;
  onUnit: (unit: SheetUnit) => void;
  onSize: (size: SizeChoice) => void;
  bleed_mm: number;
  onBleed: (bleed_mm: number) => void;
}

export function SizeFields({ size, unit, onUnit, onSize, bleed_mm, onBleed }: Props) {
  const [locked, setLocked] = useState(true);
  const sheet = resolveSize(size);
  const { mm, digits, name } = UNITS[unit];
  const limit =
    Math.max(sheet.width_px, sheet.height_px) > MAX_SIDE_PX * 0.999
      ? `This is the most there can be: ${MAX_SIDE_PX.toLocaleString('en')} px a side: beyond it a ` +
        `file passes the 4 GB that many programs can open.`
      : sheet.ppi !== null && sheet.ppi >= PPI.max
        ? `This is the most there can be: ${PPI.max.toLocaleString('en')} ppi.`
        : sheet.ppi !== null && sheet.ppi <= PPI.min
          ? `This is the least there can be: ${PPI.min} ppi.`
          : null;
  const label = (side: string, of: string) => `${side === 'width' ? 'Width' : 'Height'} in ${of}`;
  return (
    <div className="sec" style={{ display: 'grid', gap: 8 }}>
      <div className="wh">
        <span className="u">px</span>
        {SIDES.map((side, i) => (
          <span key={side} style={{ display: 'contents' }}>
            {i > 0 ? <span className="x2">×</span> : null}
            <NumberField
              label={label(side, 'px')}
              value={sheet[`${side}_px`]}
              min={1}
              max={MAX_SIDE_PX}
              onChange={(px) => onSize(editSize(size, { side, px }, locked))}
            />
          </span>
        ))}
        <button
          type="button"
          className="lock"
          aria-label={locked ? 'Proportion locked' : 'Proportion free'}
          aria-pressed={locked}
          title={
            'paper' in size ? 'A paper has its own proportion; typing its sides makes a sheet of your own' : undefined
          }
          onClick={() => setLocked(!locked)}
        >
          <svg
            width="26"
            height="58"
            viewBox="0 0 26 58"
            fill="none"
            stroke="currentColor"
            strokeWidth="1.2"
            aria-hidden="true"
          >
            <path d="M2 13h11v9M2 45h11v-9" />
            <rect x="8" y="26.5" width="10" height="7.5" fill={locked ? 'currentColor' : 'none'} />
            <path d={locked ? 'M10 26.5v-2a3 3 0 0 1 6 0v2' : 'M10 26.5v-4a3 3 0 0 1 6 0'} />
          </svg>
        </button>
        {sheet.width_mm === null ? (
          <>
            <span className="u" />
            <span className="note" style={{ gridColumn: '2 / 5' }}>
              Screens have no print size.{' '}
              <button type="button" className="lk act" onClick={() => onSize(editSize(size, { own: true }, locked))}>
                Use paper
              </button>
            </span>
          </>
        ) : (
          <>
            <span className="u">{unit}</span>
            {SIDES.map((side, i) => (
              <span key={side} style={{ display: 'contents' }}>
                {i > 0 ? <span className="x2">×</span> : null}
                <NumberField
                  label={label(side, name)}
                  value={sheet[`${side}_mm`]! / mm}
                  min={SIDE_MM.min / mm}
                  max={SIDE_MM.max / mm}
                  digits={digits}
                  onChange={(v) => onSize(editSize(size, { side, mm: v * mm }, locked))}
                />
              </span>
            ))}
          </>
        )}
      </div>
      {limit ? (
        <p className="note" role="status">
          {limit}
        </p>
      ) : null}
      {sheet.width_mm === null ? null : (
        <div className="rows">
          <span>Bleed beyond the trim</span>
          <NumberField
            label="Bleed"
            value={bleed_mm}
            {...limitsOf('bleed_mm')}
            digits={1}
            unit="mm"
            onChange={onBleed}
          />
        </div>
      )}
      {sheet.width_mm === null ? null : (
        <div className="row">
          <Words
            label="Unit of length"
            value={unit}
            options={(Object.keys(UNITS) as SheetUnit[]).map((key) => ({ key, label: UNITS[key].name }))}
            onChoose={onUnit}
          />
          <button
            type="button"
            className="lk act"
            title="Pixels only, no paper"
            onClick={() => onSize(editSize(size, { screen: true }, locked))}
          >
            Pixels only
          </button>
        </div>
      )}
    </div>
  );
}
