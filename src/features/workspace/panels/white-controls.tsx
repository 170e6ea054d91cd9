/** White balance: which light looks white, by name, in kelvin and tint, or picked on the stage. */
import { kelvinText, wholeText } from '../../../core/brief/amounts';
import type { Finish } from '../../../core/brief/brief';
import { balanceOfSeen, type WhiteBalance } from '../../../core/color/white-balance';
import type { Vec3 } from '../../../core/math/vec3';
import { PointerScale } from '../../../ui/pointer-scale';
import type { ChangeBrief } from '../use-brief';
import type { Picking } from '../view';

interface Props {
  finish: Finish;
  /** Of the proof on the stage. */
  before: Finish | null;
  picking: Picking | null;
  onPicking: (picking: Picking | null) => void;
  onChange: ChangeBrief;
  onMessage: (text: string | null) => void;
}

// Lights that pictures are taken in (common practice, no source).
const LIGHTS: readonly { name: string; kelvin: number }[] = [
  { name: 'Warm lamps', kelvin: 2700 },
  { name: 'Halogen', kelvin: 3200 },
  { name: 'Morning sun', kelvin: 4300 },
  { name: 'Noon sun', kelvin: 5500 },
  { name: 'Open shade', kelvin: 7500 }
];
const KELVINS = [2000, 2700, 4000, 6500, 12_000];
const TINTS = [-3, -2, -1, 0, 1, 2, 3].map((value) => ({ value, strong: value === 0 }));
// What the picture has when no balance is set: D65, a little to the green of the black bodies.
const AS_RENDERED: WhiteBalance = { kelvin: 6504, tint: 0.3 };

export const tintText = (tint: number) =>
  tint === 0 ? 'none' : `${Math.abs(tint).toFixed(1)} ${tint > 0 ? 'green' : 'magenta'}`;

export function WhiteControls({ finish, before, picking, onPicking, onChange, onMessage }: Props) {
  const { white } = finish;
  const set = (next: WhiteBalance | null, joins = false) => onChange({ finish: { ...finish, white: next } }, joins);
  const seen = white ?? AS_RENDERED;
  const was = before && (before.white ?? AS_RENDERED);
  const changed = was !== null && (was.kelvin !== seen.kelvin || was.tint !== seen.tint);
  const asking = picking?.asks === 'white';
  const take = (srgb: Vec3 | null) => {
    if (!srgb)
      return onMessage(
        'the true picture is not on the stage yet, and the model has no light of its own to tell ' +
          'white by. Pick again when the preview is ready'
      );
    const found = balanceOfSeen([...srgb], white);
    if (!found)
      return onMessage(
        'no white can be told from this place: it is black, blown out or too coloured. Pick something that is really white or grey'
      );
    onMessage(null);
    set({ kelvin: Math.round(found.kelvin / 10) * 10, tint: Math.round(found.tint * 10) / 10 });
    onPicking(null);
  };
  return (
    <div className="sec">
      <div className="row">
        <span className="lab">White balance</span>
        <span className="n small">
          {white ? `${kelvinText(white.kelvin)}${white.tint ? `, ${tintText(white.tint)}` : ''}` : 'as rendered'}
        </span>
      </div>
      <div className="list two-up" role="group" aria-label="White balance">
        <button type="button" aria-pressed={white === null} onClick={() => set(null)}>
          As rendered
        </button>
        {LIGHTS.map(({ name, kelvin }) => (
          <button
            key={name}
            type="button"
            aria-pressed={white?.kelvin === kelvin && white.tint === 0}
            title={`What is lit by ${kelvinText(kelvin)} looks white`}
            onClick={() => set({ kelvin, tint: 0 })}
          >
            {name}
          </button>
        ))}
      </div>
      <PointerScale
        label="Colour temperature"
        value={seen.kelvin}
        min={2000}
        max={12_000}
        step={50}
        logarithmic
        ticks={KELVINS.map((value) => ({ value, strong: true, label: wholeText(value) }))}
        valueText={kelvinText(seen.kelvin)}
        was={was?.kelvin ?? null}
        changed={changed}
        onChange={(kelvin, joins) => set({ kelvin, tint: white?.tint ?? 0 }, joins)}
      />
      <div className="ctl" style={{ marginTop: 6, gridTemplateColumns: '62px 130px 1fr' }}>
        <span className="lab">Tint</span>
        <PointerScale
          label="Tint"
          width={130}
          value={seen.tint}
          min={-3}
          max={3}
          step={0.1}
          ticks={TINTS}
          valueText={tintText(seen.tint)}
          onChange={(tint, joins) => set({ kelvin: seen.kelvin, tint: Math.round(tint * 10) / 10 }, joins)}
        />
        <span className="n v">{white ? tintText(white.tint) : 'none'}</span>
      </div>
      <button
        type="button"
        className="lk act"
        aria-pressed={asking}
        onClick={() =>
          onPicking(
            asking ? null : { asks: 'white', says: 'Pick something that is really white or grey.', onColor: take }
          )
        }
      >
        {asking ? 'Done' : 'Pick white'}
      </button>
    </div>
  );
}
