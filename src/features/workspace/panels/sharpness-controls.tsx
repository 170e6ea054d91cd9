/** Density against distance: what the eye resolves from there, and a word when pixels would show or are wasted. */
import type { Seen } from '../../../core/brief/brief';
import type { SizeChoice } from '../../../core/catalogue/size-choice';
import { ARMS_LENGTH_M } from '../../../core/output/destinations';
import { editSize } from '../../../core/output/edit-size';
import { askedPpi, resolvedPpi, resolveSize, resolvingDistance, sharpnessOf } from '../../../core/output/size';
import { NumberField } from '../../../ui/number-field';
import { PointerScale } from '../../../ui/pointer-scale';

interface Props {
  size: Extract<SizeChoice, { ppi: number }>;
  seen: Seen;
  /** Density of the proof on the stage. */
  wasPpi: number | null;
  onSize: (size: SizeChoice, joins?: boolean) => void;
  onDistance: (distance_m: number) => void;
}

const BANDS = [
  { from: 72, to: 120, label: 'screen' },
  { from: 120, to: 220, label: 'board' },
  { from: 220, to: 340, label: 'print' },
  { from: 340, to: 600, label: 'fine print' }
];
const LABELLED = [72, 100, 150, 200, 300, 400, 600];
const TICKS = [
  72, 80, 90, 100, 110, 120, 130, 140, 150, 160, 170, 180, 190, 200, 220, 240, 260, 280, 300, 325, 350, 375, 400, 450,
  500, 550, 600
].map((value) => ({
  value,
  strong: LABELLED.includes(value),
  label: LABELLED.includes(value) ? String(value) : undefined
}));

export function SharpnessControls({ size, seen, wasPpi, onSize, onDistance }: Props) {
  const distance = seen.distance_m ?? ARMS_LENGTH_M;
  const { width_mm, height_mm } = resolveSize(size);
  const long = Math.max(width_mm!, height_mm!);
  const asked = askedPpi(distance, long);
  const sharpness = sharpnessOf(size.ppi, distance, long);
  const nearest = resolvingDistance(size.ppi);
  return (
    <div className="sec" style={{ paddingBottom: 9 }}>
      <div className="row" style={{ gap: 6 }}>
        <span className="lab" style={{ whiteSpace: 'nowrap' }}>
          Pixels per inch
        </span>
        <span className="note">
          {Math.round(size.ppi * 10) / 10} ppi; the eye resolves {Math.round(resolvedPpi(distance))} at {distance}
          &nbsp;m
        </span>
      </div>
      <PointerScale
        label="Pixels per inch"
        value={size.ppi}
        min={72}
        max={600}
        step={5}
        ticks={TICKS}
        bands={BANDS}
        valueText={`${Math.round(size.ppi)} ppi`}
        was={wasPpi}
        changed={wasPpi !== null && wasPpi !== size.ppi}
        logarithmic
        onChange={(ppi, joins) => onSize(editSize(size, { ppi }, true), joins)}
      />
      <div className="rows" style={{ marginTop: 8 }}>
        <span>Seen from</span>
        <NumberField label="Seen from" value={distance} min={0.1} max={100} digits={2} unit="m" onChange={onDistance} />
      </div>
      {sharpness === 'fits' ? null : (
        <p className="say" role="status">
          {sharpness === 'coarse'
            ? `Its pixels would show from ${distance} m; they vanish from ${nearest.toFixed(nearest < 1 ? 2 : 1)} m on.`
            : `Finer than is seen: from ${distance} m ${asked} ppi is all one needs, even stepping closer. More only takes longer.`}{' '}
          <button type="button" className="lk act" onClick={() => onSize(editSize(size, { ppi: asked }, true))}>
            Use {asked} ppi
          </button>
        </p>
      )}
    </div>
  );
}
