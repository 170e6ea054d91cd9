/** The lens: projection, focal length and focus. */
import { fieldOfView, rollOf, withRoll } from '../../../core/camera/drawn-views';
import { createCameraFrame } from '../../../core/camera/lens';
import type { FreeViewpoint } from '../../../core/camera/viewpoint';
import { subtract } from '../../../core/math/vec3';
import { resolveSize } from '../../../core/output/size';
import { PointerScale } from '../../../ui/pointer-scale';
import { Words } from '../../../ui/words';
import { LENS_COPY as COPY } from '../copy';
import type { PanelContext } from '../view';
import { FocusControls } from './focus-controls';
import { Level } from './level';

const ROLLS = [-45, 0, 45].map((value) => ({ value, strong: value === 0 }));
const degrees = (deg: number): string => `${Math.round(deg * 10) / 10}°`;
const LENSES = [14, 18, 24, 28, 35, 50, 70, 100, 135, 200].map((value) => ({
  value,
  strong: [14, 24, 35, 50, 100, 200].includes(value),
  label: [14, 24, 35, 50, 100, 200].includes(value) ? String(value) : undefined
}));

type Props = Pick<
  PanelContext,
  'workspace' | 'brief' | 'was' | 'view' | 'picking' | 'onPicking' | 'onChange' | 'stageView' | 'onStageView'
>;

export function LensPanel(props: Props) {
  const { workspace, brief, was, view, onChange } = props;
  const set = (part: Partial<FreeViewpoint>, joins = false) => onChange({ viewpoint: { ...view, ...part } }, joins);
  const before =
    was && !('camera' in was.viewpoint)
      ? was.viewpoint.focal_length_mm
      : was && 'camera' in was.viewpoint
        ? (workspace.revision.report.cameras.find((c) => c.name === (was.viewpoint as { camera: string }).camera)
            ?.focal_length_mm ?? null)
        : null;
  const { width_px, height_px } = resolveSize(brief.size);
  const aspect = width_px / height_px;
  const field = fieldOfView(view.focal_length_mm, view.sensor_height_mm, aspect);
  return (
    <>
      <div className="sec first">
        <div className="row">
          <span className="lab">Projection</span>
          <Words
            label="Projection"
            value={view.projection}
            options={[
              { key: 'perspective', label: COPY.projections.perspective },
              { key: 'parallel', label: COPY.projections.parallel },
              { key: 'panorama', label: COPY.projections.panorama }
            ]}
            onChoose={(projection) =>
              set({
                projection,
                height_m:
                  projection === 'parallel'
                    ? (Math.hypot(...subtract(view.target_m, view.position_m)) * view.sensor_height_mm) /
                      view.focal_length_mm
                    : null
              })
            }
          />
        </div>
      </div>
      {view.projection === 'perspective' ? (
        <div className="sec">
          <div className="row">
            <span className="lab">Focal length</span>
            <span className="n">{Math.round(view.focal_length_mm)}&nbsp;mm</span>
          </div>
          <PointerScale
            label="Focal length"
            value={view.focal_length_mm}
            min={14}
            max={200}
            step={1}
            ticks={LENSES}
            valueText={`${Math.round(view.focal_length_mm)} mm`}
            was={before}
            changed={before !== null && Math.abs(before - view.focal_length_mm) > 0.5}
            logarithmic
            onChange={(focal_length_mm, joins) => set({ focal_length_mm }, joins)}
          />
          <p className="note" title="On a sensor 24 mm high, which the height of the picture fills.">
            {COPY.sees(degrees(field.across), degrees(field.upright))}
          </p>
          <div className="rows">
            <span>{COPY.upright}</span>
            <input
              type="checkbox"
              className="toggle toggle-sm"
              aria-label={COPY.upright}
              checked={view.upright}
              onChange={(e) => set({ upright: e.target.checked, ...(e.target.checked ? { up: [0, 1, 0] } : {}) })}
            />
          </div>
          {view.upright ? <p className="note">{shiftNote(view, aspect)}</p> : null}
          {view.upright ? null : (
            <Level
              name={COPY.roll}
              label={COPY.roll}
              value={Math.round(rollOf(view) * 10) / 10}
              range={[-45, 45, 0.5]}
              ticks={ROLLS}
              text={degrees(rollOf(view))}
              onChange={(deg, joins) => set({ up: withRoll(view, deg).up }, joins)}
            />
          )}
        </div>
      ) : null}
      {view.projection === 'panorama' ? (
        <p className="note">{COPY.panoramaSays(degrees(Math.min(360, 180 * aspect)))}</p>
      ) : null}
      {view.projection === 'perspective' ? <FocusControls {...props} /> : null}
    </>
  );
}

/** How far the lens is shifted, on its sensor. */
function shiftNote(view: FreeViewpoint, aspect: number): string {
  const frame = createCameraFrame(view, aspect);
  const shift = frame ? frame.shift[1] * (view.sensor_height_mm / 2) : 0;
  return frame && frame.up[1] === 1 ? COPY.uprightSays(`${shift.toFixed(1)}\u00a0mm`) : COPY.tooSteep;
}
