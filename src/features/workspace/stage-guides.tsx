/** Lines over the picture to compose by: thirds, diagonals, its middle, the horizon. They are in no file. */
import { createCameraFrame, placeInPicture } from '../../core/camera/lens';
import type { FreeViewpoint } from '../../core/camera/viewpoint';
import { add, scale, type Vec3 } from '../../core/math/vec3';
import type { Guides } from './use-stage-view';

interface Props {
  guides: Guides;
  view: FreeViewpoint;
  aspect: number;
}

type Line = readonly [x1: number, y1: number, x2: number, y2: number];

const LINES: Record<Exclude<Guides['lines'], 'none'>, readonly Line[]> = {
  thirds: [
    [1 / 3, 0, 1 / 3, 1],
    [2 / 3, 0, 2 / 3, 1],
    [0, 1 / 3, 1, 1 / 3],
    [0, 2 / 3, 1, 2 / 3]
  ],
  diagonals: [
    [0, 0, 1, 1],
    [0, 1, 1, 0]
  ],
  middle: [
    [0.5, 0, 0.5, 1],
    [0, 0.5, 1, 0.5]
  ]
};

export function StageGuides({ guides, view, aspect }: Props) {
  const lines = guides.lines === 'none' ? [] : LINES[guides.lines];
  const horizon = guides.horizon ? horizonLine(view, aspect) : null;
  if (lines.length === 0 && !horizon) return null;
  return (
    <svg className="guides" aria-hidden="true">
      {[
        ...lines.map((line) => ({ line, kind: 'guide' })),
        ...(horizon ? [{ line: horizon, kind: 'horizon' }] : [])
      ].map(({ line: [x1, y1, x2, y2], kind }) => (
        <line
          key={`${kind} ${x1} ${y1} ${x2} ${y2}`}
          className={kind}
          x1={percent(x1)}
          y1={percent(y1)}
          x2={percent(x2)}
          y2={percent(y2)}
        />
      ))}
    </svg>
  );
}

const percent = (v: number): string => `${(100 * v).toFixed(3)}%`;

/** From edge to edge; null where it is not in the picture, or there is none: in parallel projection. */
export function horizonLine(view: FreeViewpoint, aspect: number): Line | null {
  const frame = createCameraFrame(view, aspect);
  if (!frame || frame.parallel) return null;
  if (frame.panorama) return [0, 0.5, 1, 0.5];
  const { forward } = frame;
  const flat = Math.hypot(forward[0], forward[2]);
  if (flat < 1e-3) return null;
  const ahead: Vec3 = [forward[0] / flat, 0, forward[2] / flat];
  const aside: Vec3 = [-ahead[2], 0, ahead[0]];
  const at = (side: number) => placeInPicture(frame, add(frame.eye, scale(add(ahead, scale(aside, side)), 1e6)));
  const [a, b] = [at(-0.2), at(0.2)];
  if (!a || !b || Math.abs(a.x - b.x) < 1e-6) return null;
  const slope = (b.y - a.y) / (b.x - a.x);
  const y = (x: number) => a.y + slope * (x - a.x);
  return [0, y(0), 1, y(1)];
}
