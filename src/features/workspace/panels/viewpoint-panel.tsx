import type { PictureDto } from '../../../contracts/dto';
import { canonicalJson } from '../../../core/brief/brief';
import { frameWhole } from '../../../core/camera/frame-whole';
import type { FreeViewpoint } from '../../../core/camera/viewpoint';
import { subtract } from '../../../core/math/vec3';
import { resolveSize } from '../../../core/output/size';
import { KeepForm } from '../../../ui/keep-form';
import { NumberField } from '../../../ui/number-field';
import { PointerScale } from '../../../ui/pointer-scale';
import { Words } from '../../../ui/words';
import { send } from '../../shared/send';
import type { ProjectPanelProps } from '../view';

interface Props extends ProjectPanelProps {
  picture: PictureDto;
  onPicture: (picture: PictureDto) => void;
}

const LENSES = [14, 18, 24, 28, 35, 50, 70, 100, 135, 200].map((value) => ({
  value,
  strong: [14, 24, 35, 50, 100, 200].includes(value),
  label: [14, 24, 35, 50, 100, 200].includes(value) ? String(value) : undefined
}));

export function ViewpointPanel({
  workspace,
  picture,
  brief,
  was,
  view,
  onChange,
  onMessage,
  onWorkspace,
  onPicture
}: Props) {
  const { report } = workspace.revision;
  const size = resolveSize(brief.size);
  const set = (part: Partial<FreeViewpoint>, joins = false) => onChange({ viewpoint: { ...view, ...part } }, joins);
  const before =
    was && !('camera' in was.viewpoint)
      ? was.viewpoint.focal_length_mm
      : was && 'camera' in was.viewpoint
        ? (report.cameras.find((c) => c.name === (was.viewpoint as { camera: string }).camera)?.focal_length_mm ?? null)
        : null;

  const keep = async (name: string) => {
    const sent = await send<{ id: string }>('POST', `/api/projects/${workspace.project.id}/viewpoints`, {
      name,
      viewpoint: brief.viewpoint
    });
    if (sent.ok)
      onWorkspace((w) => ({
        ...w,
        viewpoints: [...w.viewpoints, { id: sent.value.id, name: name.trim(), viewpoint: brief.viewpoint }]
      }));
    onMessage(sent.ok ? null : sent.message);
    return sent.ok;
  };
  const rename = async (next: string) => {
    if (next.trim() === picture.name) return;
    const sent = await send<PictureDto>('PUT', `/api/pictures/${picture.id}/name`, { name: next });
    if (sent.ok) onPicture(sent.value);
    else onMessage(sent.message);
  };
  return (
    <>
      <label>
        <span className="lab">Name of the picture</span>
        <span className="fld">
          <input
            key={picture.id + picture.name}
            defaultValue={picture.name}
            aria-label="Name of the picture"
            maxLength={120}
            onBlur={(e) => void rename(e.target.value)}
            onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
          />
        </span>
      </label>
      {report.cameras.length > 0 ? (
        <div className="sec" style={{ borderTop: 0, marginTop: 10 }}>
          <span className="lab">Cameras of the model</span>
          <div className="list" role="group" aria-label="Cameras of the model">
            {report.cameras.map((camera) => (
              <button
                key={camera.name}
                type="button"
                aria-pressed={'camera' in brief.viewpoint && brief.viewpoint.camera === camera.name}
                onClick={() => onChange({ viewpoint: { camera: camera.name } })}
              >
                {camera.name}
                <span className="n">
                  {camera.projection === 'parallel' ? 'parallel' : `${Math.round(camera.focal_length_mm)}\u00a0mm`}
                </span>
              </button>
            ))}
          </div>
        </div>
      ) : null}
      <div className="sec">
        <span className="lab">Own viewpoints</span>
        <div className="list" role="group" aria-label="Own viewpoints">
          {workspace.viewpoints.map((v) => (
            <button
              key={v.id}
              type="button"
              aria-pressed={canonicalJson(v.viewpoint) === canonicalJson(brief.viewpoint)}
              onClick={() => onChange({ viewpoint: v.viewpoint })}
            >
              {v.name}
            </button>
          ))}
        </div>
        <KeepForm label="Name for this viewpoint" placeholder="name for where you stand now" onKeep={keep} />
      </div>
      <div className="sec">
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
          <p className="note">on a sensor 24&nbsp;mm high, which the picture’s height fills</p>
        </div>
      ) : null}
      <div className="sec">
        <button
          type="button"
          className="lk act"
          onClick={() =>
            onChange({
              viewpoint: frameWhole(
                report.min_m,
                report.max_m,
                size.width_px / size.height_px,
                view.focal_length_mm,
                subtract(view.position_m, view.target_m)
              )
            })
          }
        >
          Fill the frame with the whole model
        </button>
      </div>
      <div className="sec">
        <span className="lab">Eye height</span>
        <div style={{ width: 130 }}>
          <NumberField
            label="Eye height"
            value={view.position_m[1]}
            min={-1e6}
            max={1e6}
            digits={2}
            unit="m"
            onChange={(y) =>
              set({
                position_m: [view.position_m[0], y, view.position_m[2]],
                target_m: [view.target_m[0], view.target_m[1] + y - view.position_m[1], view.target_m[2]]
              })
            }
          />
        </div>
      </div>
    </>
  );
}
