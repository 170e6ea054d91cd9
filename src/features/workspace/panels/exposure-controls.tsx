/** Exposure as a camera has it: metered, kept at a value, or by f-number, shutter and ISO; and what is sharp. */
import { limitsOf } from '../../../core/brief/limits';
import { NBSP } from '../../../core/brief/amounts';
import type { Brief, CameraExposure } from '../../../core/brief/brief';
import { evOfCamera } from '../../../core/brief/exposure';
import type { FreeViewpoint } from '../../../core/camera/viewpoint';
import { dot, normalize, subtract } from '../../../core/math/vec3';
import { NumberField } from '../../../ui/number-field';
import { PointerScale } from '../../../ui/pointer-scale';
import { Words } from '../../../ui/words';
import type { ChangeBrief } from '../use-brief';
import type { Picking } from '../view';

interface Props {
  brief: Brief;
  view: FreeViewpoint;
  /** EV100 of what is on the stage. */
  reading: number | null;
  picking: Picking | null;
  onPicking: (picking: Picking | null) => void;
  onChange: ChangeBrief;
}

const STOPS = Array.from({ length: 23 }, (_, i) => i - 4).map((value) => ({
  value,
  strong: value % 4 === 0,
  label: value % 4 === 0 ? String(value).replace('-', '−') : undefined
}));
const ev = (v: number) => `${v.toFixed(1)}${NBSP}EV`;
const kindOf = (brief: Brief) =>
  'metered' in brief.exposure ? 'metered' : 'ev100' in brief.exposure ? 'kept' : 'camera';
// A usual camera indoors, for who begins without a reading.
const FIRST_CAMERA: CameraExposure = { f_number: 8, shutter_s: 1 / 60, iso: 100 };

export function ExposureControls({ brief, view, reading, picking, onPicking, onChange }: Props) {
  const { exposure } = brief;
  const lens = (part: Partial<FreeViewpoint>): Partial<Brief> => ({ viewpoint: { ...view, ...part } });
  const choose = (kind: 'metered' | 'kept' | 'camera') => {
    if (kind === 'metered') onChange({ exposure: { metered: true } });
    else if (kind === 'kept') onChange({ exposure: { ev100: reading === null ? 12 : Math.round(reading * 10) / 10 } });
    else {
      const f = view.f_number ?? FIRST_CAMERA.f_number;
      // the shutter that gives what is seen now
      onChange({
        exposure: {
          f_number: f,
          iso: FIRST_CAMERA.iso,
          shutter_s: reading === null ? FIRST_CAMERA.shutter_s : tidy((f * f) / 2 ** reading)
        }
      });
    }
  };
  const camera = 'shutter_s' in exposure ? exposure : null;
  const focusing = picking?.asks === 'focus';
  const sharpAll = view.f_number === null;
  const setF = (f_number: number) =>
    onChange({ ...(camera ? { exposure: { ...camera, f_number } } : {}), ...(sharpAll ? {} : lens({ f_number })) });
  return (
    <div className="sec">
      <span className="lab">Exposure</span>
      <Words
        label="Exposure"
        value={kindOf(brief)}
        options={[
          { key: 'metered', label: 'Metered' },
          { key: 'kept', label: 'Kept' },
          { key: 'camera', label: 'Camera' }
        ]}
        onChoose={choose}
      />
      {'metered' in exposure ? (
        <p className="note" style={{ marginTop: 4 }}>
          The meter makes a middle grey of the frame’s log mean, without its darkest tenth and brightest twentieth (ISO
          2720)
          {reading === null ? '.' : `; it reads ${ev(reading)} now. Kept, it stays while the light changes.`}
        </p>
      ) : null}
      {'ev100' in exposure ? (
        <>
          <PointerScale
            label="Exposure"
            value={exposure.ev100}
            min={-4}
            max={18}
            step={0.1}
            ticks={STOPS}
            valueText={ev(exposure.ev100)}
            onChange={(v, joins) => onChange({ exposure: { ev100: Math.round(v * 10) / 10 } }, joins)}
          />
          <div className="rows">
            <span>At ISO 100</span>
            <NumberField
              label="Exposure value"
              value={exposure.ev100}
              {...limitsOf('exposure.fixed.ev100')}
              digits={1}
              unit="EV"
              onChange={(ev100) => onChange({ exposure: { ev100 } })}
            />
          </div>
        </>
      ) : null}
      {camera ? (
        <div className="rows" style={{ marginTop: 6 }}>
          <span>f-number</span>
          <NumberField label="f-number" value={camera.f_number} min={0.5} max={128} digits={1} onChange={setF} />
          <span>Shutter, 1 / …</span>
          <NumberField
            label="Shutter"
            value={1 / camera.shutter_s}
            min={1e-5}
            max={1e6}
            digits={camera.shutter_s > 0.1 ? 2 : 0}
            unit="of a second"
            onChange={(n) => onChange({ exposure: { ...camera, shutter_s: 1 / n } })}
          />
          <span>ISO</span>
          <NumberField
            label="ISO"
            value={camera.iso}
            {...limitsOf('exposure.camera.iso')}
            onChange={(iso) => onChange({ exposure: { ...camera, iso } })}
          />
          <span>That is, at ISO 100</span>
          <span className="n">{ev(evOfCamera(camera.f_number, camera.shutter_s, camera.iso))}</span>
        </div>
      ) : null}
      {view.projection === 'perspective' ? (
        <div style={{ marginTop: 9 }}>
          <span className="lab">Sharp</span>
          <Words
            label="Sharp"
            value={sharpAll ? 'all' : 'lens'}
            options={[
              { key: 'all', label: 'All through' },
              { key: 'lens', label: 'As the lens has it' }
            ]}
            onChoose={(key) =>
              onChange(lens({ f_number: key === 'all' ? null : (camera?.f_number ?? FIRST_CAMERA.f_number) }))
            }
          />
          {sharpAll ? null : (
            <>
              {camera ? null : (
                <div className="rows" style={{ marginTop: 6 }}>
                  <span>f-number</span>
                  <NumberField label="f-number" value={view.f_number!} min={0.5} max={128} digits={1} onChange={setF} />
                </div>
              )}
              <div className="rows">
                <span>Sharpest at</span>
                <NumberField
                  label="Sharpest at"
                  value={view.focus_m}
                  none="its target"
                  min={0.001}
                  max={1e6}
                  digits={3}
                  unit="m"
                  onChange={(focus_m) => onChange(lens({ focus_m }))}
                />
              </div>
              <button
                type="button"
                className="lk act"
                aria-pressed={focusing}
                onClick={() =>
                  onPicking(
                    focusing
                      ? null
                      : {
                          asks: 'focus',
                          says: 'Press what should be sharpest.',
                          onPick: (point, _normal, joins) =>
                            onChange(
                              lens({
                                focus_m:
                                  Math.round(
                                    1000 *
                                      dot(
                                        subtract(point, view.position_m),
                                        normalize(subtract(view.target_m, view.position_m))
                                      )
                                  ) / 1000
                              }),
                              joins
                            )
                        }
                  )
                }
              >
                {focusing ? 'Done' : 'Press what should be sharp'}
              </button>
            </>
          )}
        </div>
      ) : null}
    </div>
  );
}

/** A shutter time as a whole part of a second, where it is shorter than a fifth. */
const tidy = (seconds: number) => (seconds < 0.2 ? 1 / Math.round(1 / seconds) : Math.round(seconds * 100) / 100);
