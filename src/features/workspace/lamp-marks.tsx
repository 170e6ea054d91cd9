/** Where a picture's own lamps stand, marked over it: a ring each, with a line to where it shines. */
import { createCameraFrame, placeInPicture } from '../../core/camera/lens';
import type { FreeViewpoint } from '../../core/camera/viewpoint';
import { add, length, scale, subtract } from '../../core/math/vec3';
import type { LampMark } from './view';

interface Props {
  marks: readonly LampMark[];
  view: FreeViewpoint;
  aspect: number;
  onChoose: (index: number) => void;
}

// Of the way to it, as long as its line is drawn.
const LINE = 0.12;

export function LampMarks({ marks, view, aspect, onChoose }: Props) {
  const frame = createCameraFrame(view, aspect);
  if (!frame) return null;
  const percent = (v: number) => `${(100 * v).toFixed(2)}%`;
  return (
    <div className="marks">
      {marks.map((mark, i) => {
        const at = placeInPicture(frame, mark.at);
        if (!at || at.x < -0.1 || at.x > 1.1 || at.y < -0.1 || at.y > 1.1) return null;
        const end =
          mark.towards &&
          placeInPicture(frame, add(mark.at, scale(mark.towards, LINE * length(subtract(mark.at, frame.eye)))));
        return (
          <span key={`${mark.name}${i}`} className={mark.chosen ? 'on' : undefined}>
            {end ? (
              <svg aria-hidden="true">
                <line x1={percent(at.x)} y1={percent(at.y)} x2={percent(end.x)} y2={percent(end.y)} />
              </svg>
            ) : null}
            <button
              type="button"
              style={{ left: percent(at.x), top: percent(at.y) }}
              title={mark.name}
              aria-label={`${mark.name}, marked on the stage`}
              aria-pressed={mark.chosen}
              onClick={() => onChoose(i)}
            />
          </span>
        );
      })}
    </div>
  );
}
