/** What is sharp: everything, or what lies near the distance at which the lens is focused. */
import { limitsOf } from '../../../core/brief/limits';
import type { Brief, CameraExposure } from '../../../core/brief/brief';
import { sharpDepths } from '../../../core/camera/drawn-views';
import { createCameraFrame } from '../../../core/camera/lens';
import type { FreeViewpoint } from '../../../core/camera/viewpoint';
import { dot, subtract, type Vec3 } from '../../../core/math/vec3';
import { NumberField } from '../../../ui/number-field';
import { Words } from '../../../ui/words';
import { LENS_COPY as COPY } from '../copy';
import type { PanelContext } from '../view';

// A usual camera indoors, for users who begin without a reading (common practice, no source).
export const FIRST_CAMERA: CameraExposure = { f_number: 8, shutter_s: 1 / 60, iso: 100 };

type Props = Pick<PanelContext, 'brief' | 'view' | 'picking' | 'onPicking' | 'onChange' | 'stageView' | 'onStageView'>;

export function FocusControls({ brief, view, picking, onPicking, onChange, stageView, onStageView }: Props) {
  const { exposure } = brief;
  const camera = 'shutter_s' in exposure ? exposure : null;
  const picksFocus = picking?.asks === 'focus';
  const lens = (part: Partial<FreeViewpoint>): Partial<Brief> => ({ viewpoint: { ...view, ...part } });
  const focusOn = (point: Vec3, _normal: Vec3, joins: boolean) => {
    // a level camera focuses along the horizon
    const ahead = createCameraFrame(view, 1)?.forward;
    if (!ahead) return;
    const focus_m = Math.round(1000 * dot(subtract(point, view.position_m), ahead)) / 1000;
    onChange(lens({ focus_m }), joins);
  };
  return (
    <div className="sec">
      <span className="lab">Focus</span>
      <Words
        label="Focus"
        value={view.f_number === null ? 'all' : 'lens'}
        options={[
          { key: 'all', label: 'Everything sharp' },
          { key: 'lens', label: 'Depth of field' }
        ]}
        onChoose={(key) =>
          onChange(lens({ f_number: key === 'all' ? null : (camera?.f_number ?? FIRST_CAMERA.f_number) }))
        }
      />
      {view.f_number === null ? null : (
        <>
          <div className="rows" style={{ marginTop: 6 }}>
            <span>f-number{camera ? ', also of the exposure' : ''}</span>
            <NumberField
              label="f-number of the lens"
              value={view.f_number}
              {...limitsOf('viewpoint.free.f_number')}
              digits={1}
              onChange={(f_number) =>
                onChange({ ...lens({ f_number }), ...(camera ? { exposure: { ...camera, f_number } } : {}) })
              }
            />
            <span>Focus distance</span>
            <NumberField
              label="Focus distance"
              value={view.focus_m}
              none="to the target"
              {...limitsOf('viewpoint.free.focus_m')}
              digits={3}
              unit="m"
              onChange={(focus_m) => onChange(lens({ focus_m }))}
            />
          </div>
          <p className="note">{sharpNote(view)}</p>
          <div className="rows">
            <span>{COPY.zone}</span>
            <input
              type="checkbox"
              className="toggle toggle-sm"
              aria-label={COPY.zone}
              checked={stageView.zone}
              onChange={(e) => onStageView({ zone: e.target.checked })}
            />
          </div>
          {stageView.zone ? <p className="note">{COPY.zoneSays}</p> : null}
          <button
            type="button"
            className="lk act"
            aria-pressed={picksFocus}
            onClick={() =>
              onPicking(picksFocus ? null : { asks: 'focus', says: 'Pick what should be sharpest.', onPick: focusOn })
            }
          >
            {picksFocus ? 'Done' : 'Pick what should be sharp'}
          </button>
        </>
      )}
    </div>
  );
}

function sharpNote(view: FreeViewpoint): string {
  const zone = sharpDepths(view);
  if (!zone) return '';
  const metres = (m: number) => (m < 1 ? `${Math.round(m * 1000)}\u00a0mm` : `${m.toFixed(2)}\u00a0m`);
  return COPY.sharp(metres(zone.near), Number.isFinite(zone.far) ? metres(zone.far) : COPY.endless);
}
