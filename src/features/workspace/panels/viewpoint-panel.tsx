/** Where the picture is seen from: its name, the model's cameras, saved viewpoints, the frame and the eye height. */
import { canonicalJson } from '../../../core/brief/brief';
import { DRAWN_VIEWS, drawnView } from '../../../core/camera/drawn-views';
import { frameWhole } from '../../../core/camera/frame-whole';
import type { FreeViewpoint } from '../../../core/camera/viewpoint';
import { subtract } from '../../../core/math/vec3';
import { resolveSize } from '../../../core/output/size';
import { KeepForm } from '../../../ui/keep-form';
import { NumberField } from '../../../ui/number-field';
import { send } from '../../shared/send';
import { VIEWPOINT_COPY } from '../copy';
import type { PanelContext } from '../view';
import { ItemRow } from './item-row';
import { SectionControls } from './section-controls';
import { ShownBeside } from './shown-beside';

type Props = Pick<
  PanelContext,
  | 'workspace'
  | 'picture'
  | 'proofs'
  | 'shown'
  | 'brief'
  | 'view'
  | 'picking'
  | 'onPicking'
  | 'onChange'
  | 'onMessage'
  | 'onWorkspace'
  | 'onPicture'
>;

export function ViewpointPanel({
  workspace,
  picture,
  proofs,
  shown,
  brief,
  view,
  picking,
  onPicking,
  onChange,
  onMessage,
  onWorkspace,
  onPicture
}: Props) {
  const { report } = workspace.revision;
  const size = resolveSize(brief.size);
  const set = (part: Partial<FreeViewpoint>, joins = false) => onChange({ viewpoint: { ...view, ...part } }, joins);

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
    const sent = await send<{ name: string }>('PUT', '/api/names', { kind: 'picture', id: picture.id, name: next });
    if (sent.ok) onPicture({ ...picture, name: sent.value.name, changes: picture.changes + 1 });
    onMessage(sent.ok ? null : sent.message);
    return sent.ok;
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
            onBlur={async (e) => {
              const field = e.currentTarget;
              // a refused name is not left standing as if it were saved
              if ((await rename(field.value)) === false) field.value = picture.name;
            }}
            onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
          />
        </span>
      </label>
      <ShownBeside workspace={workspace} picture={picture} proofs={proofs} shown={shown} />
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
        <span className="lab">Saved viewpoints</span>
        <div role="group" aria-label="Saved viewpoints">
          {workspace.viewpoints.map((v) => (
            <ItemRow
              key={v.id}
              kind="viewpoint"
              id={v.id}
              name={v.name}
              onWorkspace={onWorkspace}
              onMessage={onMessage}
            >
              <button
                type="button"
                aria-pressed={canonicalJson(v.viewpoint) === canonicalJson(brief.viewpoint)}
                onClick={() => onChange({ viewpoint: v.viewpoint })}
              >
                {v.name}
              </button>
            </ItemRow>
          ))}
        </div>
        <KeepForm label="Name for this viewpoint" placeholder="name this viewpoint" onKeep={keep} />
      </div>
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
          Fit the model to the frame
        </button>
        <span className="lab">{VIEWPOINT_COPY.drawn}</span>
        <div className="acts">
          {DRAWN_VIEWS.map((name) => (
            <button
              key={name}
              type="button"
              className="lk act"
              onClick={() =>
                onChange({
                  viewpoint: drawnView(
                    name,
                    report.min_m,
                    report.max_m,
                    size.width_px / size.height_px,
                    view.focal_length_mm
                  )
                })
              }
            >
              {VIEWPOINT_COPY.drawnViews[name]}
            </button>
          ))}
        </div>
      </div>
      <SectionControls
        section={brief.section}
        view={view}
        min_m={report.min_m}
        max_m={report.max_m}
        picking={picking}
        onPicking={onPicking}
        onSet={(section, joins) => onChange({ section }, joins)}
      />
      {report.one_sided ? (
        <div className="sec">
          <div className="rows">
            <span>{VIEWPOINT_COPY.openBacks}</span>
            <input
              type="checkbox"
              className="toggle toggle-sm"
              aria-label={VIEWPOINT_COPY.openBacks}
              checked={brief.open_backs}
              onChange={(e) => onChange({ open_backs: e.target.checked })}
            />
          </div>
          <p className="note">{VIEWPOINT_COPY.oneSided(report.one_sided)}</p>
        </div>
      ) : null}
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
