/** Exposure: automatic, fixed at an exposure value, or by f-number, shutter and ISO as on a camera. */
import { limitsOf } from '../../../core/brief/limits';
import { NBSP } from '../../../core/brief/amounts';
import type { Brief } from '../../../core/brief/brief';
import { evOfCamera } from '../../../core/brief/exposure';
import type { FreeViewpoint } from '../../../core/camera/viewpoint';
import { NumberField } from '../../../ui/number-field';
import { PointerScale } from '../../../ui/pointer-scale';
import { Words } from '../../../ui/words';
import type { ChangeBrief } from '../use-brief';
import { FIRST_CAMERA } from './focus-controls';

interface Props {
  brief: Brief;
  view: FreeViewpoint;
  /** EV100 of what is on the stage. */
  reading: number | null;
  onChange: ChangeBrief;
}

const STOPS = Array.from({ length: 23 }, (_, i) => i - 4).map((value) => ({
  value,
  strong: value % 4 === 0,
  label: value % 4 === 0 ? String(value).replace('-', '−') : undefined
}));
const ev = (v: number) => `${v.toFixed(1)}${NBSP}EV`;
const HOW_IT_MEASURES =
  'A meter reads the picture (ISO 2720). A studio’s paper is exposed to look like paper; other scenes are opened until ' +
  'their middle or their bright parts are where a photographer has them.';
const kindOf = (brief: Brief) =>
  'metered' in brief.exposure ? 'metered' : 'ev100' in brief.exposure ? 'fixed' : 'camera';

export function ExposureControls({ brief, view, reading, onChange }: Props) {
  const { exposure } = brief;
  const choose = (kind: 'metered' | 'fixed' | 'camera') => {
    if (kind === 'metered') onChange({ exposure: { metered: true } });
    else if (kind === 'fixed') onChange({ exposure: { ev100: reading === null ? 12 : Math.round(reading * 10) / 10 } });
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
  // one f-number sets the exposure and, where the lens has a depth of field, that too
  const setF = (f_number: number) =>
    onChange({
      ...(camera ? { exposure: { ...camera, f_number } } : {}),
      ...(view.f_number === null ? {} : { viewpoint: { ...view, f_number } })
    });
  return (
    <div className="sec first">
      <span className="lab">Exposure</span>
      <Words
        label="Exposure"
        value={kindOf(brief)}
        options={[
          { key: 'metered', label: 'Automatic' },
          { key: 'fixed', label: 'Fixed' },
          { key: 'camera', label: 'Camera' }
        ]}
        onChoose={choose}
      />
      {'metered' in exposure ? (
        <p className="note" style={{ marginTop: 4 }}>
          {reading === null ? 'Automatic exposure.' : `Automatic exposure, now ${ev(reading)}.`}{' '}
          <span title={HOW_IT_MEASURES}>It follows the light; Fixed keeps it.</span>
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
    </div>
  );
}

/** A shutter time as a whole part of a second, where it is shorter than a fifth. */
const tidy = (seconds: number) => (seconds < 0.2 ? 1 / Math.round(1 / seconds) : Math.round(seconds * 100) / 100);
