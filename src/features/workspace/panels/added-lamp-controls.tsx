/** A lamp of the picture's own: placed and aimed on the stage, its form and size, how much light and of what colour. */
import { limitsOf } from '../../../core/brief/limits';
import { kelvinText, wholeText } from '../../../core/brief/amounts';
import { normalize, subtract, type Vec3 } from '../../../core/math/vec3';
import { ADDED_FORMS, type AddedForm, type AddedLamp } from '../../../core/scene/added-lamps';
import { NumberField } from '../../../ui/number-field';
import { PointerScale } from '../../../ui/pointer-scale';
import { Words } from '../../../ui/words';
import { ADDED_FORM_NAMES, fillOpening, hangAt, type NewLamp } from '../new-lamp';
import type { Picking, PanelContext } from '../view';
import { PhotometryControls } from './photometry-controls';
import { tintText } from './white-controls';

type Props = Pick<PanelContext, 'workspace' | 'onMessage' | 'onWorkspace'> & {
  lamp: AddedLamp;
  before: AddedLamp | null;
  picking: Picking | null;
  onPicking: (picking: Picking | null) => void;
  onSet: (part: NewLamp, joins?: boolean) => void;
  onTakeOut: () => void;
};

const KELVINS = [1800, 2700, 4000, 6500, 12_000];
const TINTS = [-2, -1, 0, 1, 2].map((value) => ({ value, strong: value === 0 }));
const IS_RECTANGLE: Record<AddedForm, boolean> = { point: false, spot: false, panel: true, strip: true, window: true };
const AXES = ['x', 'y', 'z'] as const;

export function AddedLampControls({ lamp, before, picking, onPicking, onSet, onTakeOut, ...project }: Props) {
  const asks = picking?.asks ?? null;
  const rectangle = IS_RECTANGLE[lamp.form];
  const ask = (what: 'lamp' | 'aim' | 'opening') => {
    if (asks === what) return onPicking(null);
    if (what === 'lamp')
      onPicking({
        asks: what,
        says: `Pick where ${lamp.name} should be; drag to move it.`,
        onPick: (point, normal, joins) => onSet(hangAt(lamp.form, point, normal), joins)
      });
    else if (what === 'aim')
      onPicking({
        asks: what,
        says: `Pick what ${lamp.name} should shine at.`,
        onPick: (point, _normal, joins) => onSet({ direction: aimed(lamp, point) }, joins)
      });
    else
      onPicking({
        asks: what,
        says: 'Pick the pane of the opening that it should fill.',
        onOpening: (opening) => {
          onSet(fillOpening(lamp, opening));
          onPicking(null);
        }
      });
  };
  return (
    <>
      <div className="sec">
        <div className="row">
          <h3 className="lampname">{lamp.name}</h3>
          <button type="button" className="lk act" onClick={onTakeOut}>
            Remove it
          </button>
        </div>
        <Words
          label="Form"
          value={lamp.form}
          options={ADDED_FORMS.map((key) => ({ key, label: ADDED_FORM_NAMES[key] }))}
          onChoose={(form: AddedForm) => onSet({ form })}
        />
        <div className="acts2" style={{ marginTop: 6 }}>
          <button type="button" className="lk act" aria-pressed={asks === 'lamp'} onClick={() => ask('lamp')}>
            {asks === 'lamp' ? 'Done' : 'Place it'}
          </button>
          {lamp.form === 'point' && lamp.photometry === null ? null : (
            <button type="button" className="lk act" aria-pressed={asks === 'aim'} onClick={() => ask('aim')}>
              {asks === 'aim' ? 'Done' : 'Aim it'}
            </button>
          )}
          {lamp.form === 'window' ? (
            <button type="button" className="lk act" aria-pressed={asks === 'opening'} onClick={() => ask('opening')}>
              {asks === 'opening' ? 'Done' : 'Fill an opening'}
            </button>
          ) : null}
        </div>
        <div className="rows" style={{ marginTop: 8 }}>
          {AXES.map((axis, k) => (
            <span key={axis} style={{ display: 'contents' }}>
              <span>{axis === 'y' ? 'Height, y' : `Place, ${axis}`}</span>
              <NumberField
                label={`Place, ${axis}`}
                value={lamp.position_m[k]!}
                min={-1e6}
                max={1e6}
                digits={2}
                unit="m"
                onChange={(v) =>
                  onSet({ position_m: lamp.position_m.map((p, i) => (i === k ? v : p)) as AddedLamp['position_m'] })
                }
              />
            </span>
          ))}
          {rectangle ? (
            <>
              <span>Width</span>
              <NumberField
                label="Width"
                value={lamp.width_m}
                {...limitsOf('lamps.added.width_m')}
                digits={2}
                unit="m"
                onChange={(width_m) => onSet({ width_m })}
              />
              <span>Height</span>
              <NumberField
                label="Height"
                value={lamp.height_m}
                {...limitsOf('lamps.added.height_m')}
                digits={2}
                unit="m"
                onChange={(height_m) => onSet({ height_m })}
              />
              <span>Rotation about its axis</span>
              <NumberField
                label="Rotation about its axis"
                value={lamp.turn_deg}
                {...limitsOf('lamps.added.turn_deg')}
                unit="°"
                onChange={(turn_deg) => onSet({ turn_deg })}
              />
            </>
          ) : null}
          {lamp.form === 'spot' && lamp.photometry === null ? (
            <>
              <span>Beam, full angle at half</span>
              <NumberField
                label="Beam"
                value={lamp.beam_deg}
                {...limitsOf('lamps.added.beam_deg')}
                unit="°"
                onChange={(beam_deg) => onSet({ beam_deg })}
              />
            </>
          ) : null}
          <span>Output</span>
          <NumberField
            label="Light"
            value={lamp.lumen}
            {...limitsOf('lamps.added.lumen')}
            unit="lm"
            onChange={(lumen) => onSet({ lumen })}
          />
        </div>
      </div>
      <div className="sec">
        <div className="row">
          <span className="lab">Colour</span>
          <span className="n small">{kelvinText(lamp.kelvin)}</span>
        </div>
        <PointerScale
          label="Colour"
          value={lamp.kelvin}
          min={1800}
          max={12_000}
          step={50}
          logarithmic
          ticks={KELVINS.map((value) => ({ value, strong: true, label: wholeText(value) }))}
          valueText={kelvinText(lamp.kelvin)}
          was={before?.kelvin}
          changed={before !== null && before.kelvin !== lamp.kelvin}
          onChange={(kelvin, joins) => onSet({ kelvin }, joins)}
        />
        <div className="ctl" style={{ marginTop: 6, gridTemplateColumns: '62px 130px 1fr' }}>
          <span className="lab">Tint</span>
          <PointerScale
            label="Tint"
            width={130}
            value={lamp.tint}
            min={-2}
            max={2}
            step={0.1}
            ticks={TINTS}
            valueText={tintText(lamp.tint)}
            onChange={(tint, joins) => onSet({ tint: Math.round(tint * 10) / 10 }, joins)}
          />
          <span className="n v">{tintText(lamp.tint)}</span>
        </div>
      </div>
      {rectangle ? null : (
        <PhotometryControls
          {...project}
          file={lamp.photometry}
          without={lamp.form === 'spot' ? 'Its beam' : 'Alike to all sides'}
          onChoose={(file) =>
            onSet(file ? { photometry: file.sha256, lumen: Math.round(file.lumen) } : { photometry: null })
          }
        />
      )}
    </>
  );
}

const aimed = (lamp: AddedLamp, point: Vec3): AddedLamp['direction'] =>
  normalize(subtract(point, lamp.position_m)).map((v) => Math.round(v * 1e5) / 1e5) as AddedLamp['direction'];
