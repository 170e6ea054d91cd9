/** The lens: projection, focal length and focus. */
import type { FreeViewpoint } from '../../../core/camera/viewpoint';
import { subtract } from '../../../core/math/vec3';
import { PointerScale } from '../../../ui/pointer-scale';
import { Words } from '../../../ui/words';
import type { PanelContext } from '../view';
import { FocusControls } from './focus-controls';

const LENSES = [14, 18, 24, 28, 35, 50, 70, 100, 135, 200].map((value) => ({
  value,
  strong: [14, 24, 35, 50, 100, 200].includes(value),
  label: [14, 24, 35, 50, 100, 200].includes(value) ? String(value) : undefined
}));

type Props = Pick<PanelContext, 'workspace' | 'brief' | 'was' | 'view' | 'picking' | 'onPicking' | 'onChange'>;

export function LensPanel({ workspace, brief, was, view, picking, onPicking, onChange }: Props) {
  const set = (part: Partial<FreeViewpoint>, joins = false) => onChange({ viewpoint: { ...view, ...part } }, joins);
  const before =
    was && !('camera' in was.viewpoint)
      ? was.viewpoint.focal_length_mm
      : was && 'camera' in was.viewpoint
        ? (workspace.revision.report.cameras.find((c) => c.name === (was.viewpoint as { camera: string }).camera)
            ?.focal_length_mm ?? null)
        : null;
  return (
    <>
      <div className="sec first">
        <div className="row">
          <span className="lab">Projection</span>
          <Words
            label="Projection"
            value={view.projection}
            options={[
              { key: 'perspective', label: 'perspective' },
              { key: 'parallel', label: 'parallel' }
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
            full-frame equivalent
          </p>
        </div>
      ) : null}
      {view.projection === 'perspective' ? (
        <FocusControls brief={brief} view={view} picking={picking} onPicking={onPicking} onChange={onChange} />
      ) : null}
    </>
  );
}
