/** How one part of the model is posed: seen or not, turned, moved, on the ground. */
import type { RefObject } from 'react';
import type { Brief, PosedPart } from '../../../core/brief/brief';
import type { ModelPart } from '../../../core/scene/model-part';
import { SEEN } from '../../../core/scene/pose';
import { Words } from '../../../ui/words';
import { POSE_COPY as COPY } from '../copy';
import { roundedPlace, settingOfPart, withAxis, withPart } from '../posing';
import type { DrawnModel } from '../view';
import { AxisNames, XyzFields } from './xyz-fields';

interface Props {
  part: ModelPart;
  pose: Brief['pose'];
  alone: boolean;
  onAlone: () => void;
  onPose: (pose: Brief['pose']) => void;
  /** Where the ground lies, m. */
  ground_m: number;
  drawn: RefObject<DrawnModel | null>;
}

export const MM = 1000;
export const FAR_MM = 1e9;

export const SEEN_WORDS = SEEN.map((key) => ({ key, label: COPY.seen[key] }));

export function PartControls({ part, pose, alone, onAlone, onPose, ground_m, drawn }: Props) {
  const setting = settingOfPart(pose, part.path, part);
  const set = (less: Partial<PosedPart>) => onPose(withPart(pose, { ...setting, ...less }));
  const toGround = () => {
    const lowest = drawn.current?.lowestOf(part.path);
    if (lowest == null) return;
    const [x, y, z] = setting.move_m;
    set({ move_m: roundedPlace([x, y + ground_m - lowest, z]) });
  };
  const size = part.max_m.map((v, k) => v - part.min_m[k]!);
  return (
    <div className="sec part">
      <div className="row">
        <b>{part.name}</b>
        <span className="note n">{size.map((m) => (m < 10 ? m.toFixed(2) : m.toFixed(1))).join(' × ')}&nbsp;m</span>
      </div>
      <p className="note">{COPY.weighs(part.triangles, part.objects)}</p>
      <span className="lab">{COPY.inPicture}</span>
      <Words
        label={COPY.inPictureOf(part.name)}
        value={setting.seen}
        options={SEEN_WORDS}
        onChoose={(seen) => set({ seen })}
      />
      <div className="xyz">
        <AxisNames />
        <XyzFields
          name={COPY.turn}
          labels={COPY.turns}
          unit="°"
          min={-3600}
          max={3600}
          value={setting.turn_deg}
          onChange={(axis, deg) => set({ turn_deg: withAxis(setting.turn_deg, axis, deg) })}
        />
        <XyzFields
          name={COPY.move}
          labels={COPY.moves}
          unit="mm"
          min={-FAR_MM}
          max={FAR_MM}
          value={setting.move_m.map((m) => Math.round(m * MM * 10) / 10)}
          onChange={(axis, mm) => set({ move_m: withAxis(setting.move_m, axis, mm / MM) })}
        />
      </div>
      <div className="acts">
        <button type="button" className="lk act" onClick={toGround}>
          {COPY.ground}
        </button>
        <button
          type="button"
          className="lk act"
          disabled={!pose.some((p) => p.part === part.path)}
          onClick={() => onPose(pose.filter((p) => p.part !== part.path))}
        >
          {COPY.asItCame}
        </button>
        <button type="button" className="lk act" aria-pressed={alone} onClick={onAlone}>
          {COPY.alone}
        </button>
      </div>
    </div>
  );
}
