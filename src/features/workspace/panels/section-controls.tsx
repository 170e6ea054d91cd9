/** A section plane through the model: level, or upright along either side; moved along its axis, seen from either side. */
import type { Brief } from '../../../core/brief/brief';
import type { FreeViewpoint } from '../../../core/camera/viewpoint';
import { normalize, type Vec3 } from '../../../core/math/vec3';
import { Words } from '../../../ui/words';
import { VIEWPOINT_COPY as COPY } from '../copy';
import type { Picking } from '../view';
import { Level } from './level';

interface Props {
  section: Brief['section'];
  view: FreeViewpoint;
  /** Of the model, m. */
  min_m: Vec3;
  max_m: Vec3;
  picking: Picking | null;
  onPicking: (picking: Picking | null) => void;
  onSet: (section: Brief['section'], joins?: boolean) => void;
}

type Kind = 'none' | 'level' | 'across' | 'along' | 'face';
const AXIS: Partial<Record<Kind, 0 | 1 | 2>> = { level: 1, across: 2, along: 0 };

const axisOf = (normal: Vec3): 0 | 1 | 2 | null => {
  const n = normalize(normal);
  const found = [0, 1, 2].find((k) => Math.abs(n[k]!) > 0.999);
  return found === undefined ? null : (found as 0 | 1 | 2);
};
const kindOf = (section: Brief['section']): Kind => {
  if (!section) return 'none';
  const axis = axisOf(section.normal);
  return axis === null ? 'face' : (['along', 'level', 'across'] as const)[axis];
};
const hundredth = (v: number) => Math.round(v * 100) / 100;

export function SectionControls({ section, view, min_m, max_m, picking, onPicking, onSet }: Props) {
  const kind = kindOf(section);
  const axis = section ? axisOf(section.normal) : null;
  const choose = (next: Kind) => {
    const k = AXIS[next];
    if (next === 'none' || k === undefined) return onSet(null);
    const middle = min_m.map((v, i) => hundredth((v + max_m[i]!) / 2)) as [number, number, number];
    // what lies towards the camera is taken away
    const sign = k === 1 || view.position_m[k] >= middle[k]! ? 1 : -1;
    const normal: [number, number, number] = [0, 0, 0];
    normal[k] = sign;
    onSet({ point_m: middle, normal });
  };
  const asking = picking?.asks === 'cut';
  return (
    <div className="sec">
      <div className="row">
        <span className="lab">{COPY.section}</span>
        <button
          type="button"
          className="lk act"
          aria-pressed={asking}
          onClick={() =>
            onPicking(
              asking
                ? null
                : {
                    asks: 'cut',
                    says: COPY.cutSays,
                    onPick: (point, normal, joins) => {
                      if (joins) return;
                      onPicking(null);
                      const rounded = (v: Vec3) => v.map((x) => Math.round(x * 1e4) / 1e4) as [number, number, number];
                      onSet({
                        point_m: rounded(point.map((p, i) => p - 0.001 * normal[i]!) as never),
                        normal: rounded(normal)
                      });
                    }
                  }
            )
          }
        >
          {COPY.cutAtFace}
        </button>
      </div>
      <Words
        label={COPY.section}
        value={kind}
        options={(['none', 'level', 'across', 'along'] as const).map((key) => ({ key, label: COPY.sections[key] }))}
        onChoose={choose}
      />
      {section && axis !== null ? (
        <Level
          name={COPY.cutAt}
          label={COPY.cutAt}
          value={section.point_m[axis]!}
          range={[min_m[axis]!, max_m[axis]!, (max_m[axis]! - min_m[axis]!) / 500]}
          ticks={[0, 0.25, 0.5, 0.75, 1].map((share) => ({
            value: min_m[axis]! + share * (max_m[axis]! - min_m[axis]!),
            strong: share === 0.5
          }))}
          text={`${section.point_m[axis]!.toFixed(2)}\u00a0m`}
          onChange={(v, joins) => {
            const point_m = [...section.point_m] as [number, number, number];
            point_m[axis] = Math.round(v * 1000) / 1000;
            onSet({ ...section, point_m }, joins);
          }}
        />
      ) : null}
      {section ? (
        <button
          type="button"
          className="lk act"
          onClick={() => onSet({ ...section, normal: section.normal.map((v) => -v || 0) as [number, number, number] })}
        >
          {COPY.otherSide}
        </button>
      ) : null}
      {section ? <p className="note">{COPY.sectionSays}</p> : null}
    </div>
  );
}
