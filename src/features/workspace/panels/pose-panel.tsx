/** The parts of the model, found by name or on the stage, posed for this picture; and the pieces that stand beside it. */
import type { WorkspaceDto } from '../../../contracts/dto';
import type { Brief } from '../../../core/brief/brief';
import { limitsOf } from '../../../core/brief/limits';
import { nameOfPath } from '../../../core/scene/part-paths';
import { PLACED_ROOT } from '../../../core/scene/place-models';
import { send } from '../../shared/send';
import { NumberField } from '../../../ui/number-field';
import { POSE_COPY as COPY } from '../copy';
import { lostParts } from '../posing';
import { useModelParts, usePartInHand, wholeModel } from '../use-model-parts';
import type { PanelContext } from '../view';
import { useWorkspaceStore } from '../workspace-store';
import { PartControls } from './part-controls';
import { PartList } from './part-list';
import { PieceControls } from './piece-controls';

export function PosePanel(context: PanelContext) {
  const { workspace, picture, brief, picking, onPicking, onChange, onMessage, onWorkspace, drawn } = context;
  const { report, glb_sha256 } = workspace.revision;
  const parts = useModelParts(glb_sha256);
  const { partInHand, partAlone, set } = useWorkspaceStore((state) => state);
  const choose = (part: string | null) => set({ partInHand: part, ...(part === null ? { partAlone: false } : {}) });
  const whole = wholeModel(workspace);
  const listed = parts === 'failed' || parts === null ? [] : parts;
  const inHand = usePartInHand(workspace, true);
  const asking = picking?.asks === 'part';
  const pick = () =>
    onPicking(
      asking
        ? null
        : {
            asks: 'part',
            says: COPY.pickSays,
            onPart: (path) => {
              onPicking(null);
              if (!path.startsWith(PLACED_ROOT)) choose(path);
            }
          }
    );
  const setPose = (pose: Brief['pose']) => onChange({ pose });
  /** What lost its place takes the pose of a part that is pressed. */
  const pointAt = (lostPart: string) =>
    onPicking({
      asks: 'part',
      says: COPY.pointAtSays(nameOfPath(lostPart)),
      onPart: (path) => {
        onPicking(null);
        if (path.startsWith(PLACED_ROOT)) return;
        setPose([
          ...brief.pose.filter((p) => p.part !== lostPart && p.part !== path),
          ...brief.pose.filter((p) => p.part === lostPart).map((p) => ({ ...p, part: path }))
        ]);
        choose(path);
      }
    });
  const lost = parts === null || parts === 'failed' ? [] : lostParts(brief.pose, parts);
  return (
    <>
      <p className="say">{COPY.say}</p>
      {parts === 'failed' ? <p className="note">{COPY.failed}</p> : null}
      <PartList
        parts={listed}
        whole={whole}
        pose={brief.pose}
        chosen={partInHand}
        onChoose={(path) => choose(path === partInHand ? null : path)}
        asking={asking}
        onPick={pick}
      />
      {inHand ? (
        <PartControls
          part={inHand}
          pose={brief.pose}
          alone={partAlone}
          onAlone={() => set({ partAlone: !partAlone, showModel: true })}
          onPose={setPose}
          ground_m={(brief.ground.kind === 'shadow' ? brief.ground.height_m : null) ?? report.min_m[1]}
          drawn={drawn}
        />
      ) : null}
      {lost.length > 0 ? (
        <div className="sec">
          <span className="lab">{COPY.lost}</span>
          {lost.map(({ part }) => (
            <div key={part} className="row">
              <span title={part}>{nameOfPath(part)}</span>
              <button type="button" className="lk act" onClick={() => pointAt(part)}>
                {COPY.pointAt}
              </button>
              <button
                type="button"
                className="lk act"
                onClick={() => setPose(brief.pose.filter((p) => p.part !== part))}
              >
                {COPY.forget}
              </button>
            </div>
          ))}
        </div>
      ) : null}
      {report.curves ? (
        <div className="sec">
          <div className="row">
            <span className="lab">{COPY.curves}</span>
            <NumberField
              label={COPY.curvesWidth}
              unit="mm"
              none={COPY.noCurves}
              {...limitsOf('curves_mm')}
              value={brief.curves_mm}
              onChange={(curves_mm) => onChange({ curves_mm })}
            />
          </div>
          <p className="note">{COPY.curvesThere(report.curves)}</p>
        </div>
      ) : null}
      <PieceControls
        project={workspace.project.id}
        further={workspace.further}
        onFurther={async () => {
          const now = await send<WorkspaceDto>('GET', `/api/projects/${workspace.project.id}?picture=${picture.id}`);
          if (now.ok) onWorkspace(now.value);
        }}
        placed={brief.placed}
        part={inHand}
        picking={picking}
        onPicking={onPicking}
        onPlaced={(placed) => onChange({ placed })}
        onMessage={onMessage}
        drawn={drawn}
      />
    </>
  );
}
