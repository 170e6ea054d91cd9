/** The box about the part in hand, drawn over the picture where the part is posed. */
import { createCameraFrame, placeInPicture } from '../../core/camera/lens';
import type { FreeViewpoint } from '../../core/camera/viewpoint';
import { applyAffine } from '../../core/math/affine';
import type { Vec3 } from '../../core/math/vec3';
import type { ModelPart } from '../../core/scene/model-part';
import { isWithin } from '../../core/scene/part-paths';
import { isMoved, type PosedPart, poseMatrix } from '../../core/scene/pose';

interface Props {
  part: ModelPart;
  pose: readonly PosedPart[];
  view: FreeViewpoint;
  aspect: number;
}

const EDGES = [0, 1, 2].flatMap((axis) =>
  [0, 1, 2, 3, 4, 5, 6, 7].filter((i) => !(i & (1 << axis))).map((i) => [i, i | (1 << axis)] as const)
);

export function PartFrame({ part, pose, view, aspect }: Props) {
  const frame = createCameraFrame(view, aspect);
  if (!frame) return null;
  const moves = pose
    .filter((p) => isWithin(part.path, p.part) && isMoved(p))
    .sort((a, b) => b.part.length - a.part.length)
    .map(poseMatrix);
  const corners = Array.from({ length: 8 }, (_, i): Vec3 => {
    const corner: Vec3 = [
      (i & 1 ? part.max_m : part.min_m)[0],
      (i & 2 ? part.max_m : part.min_m)[1],
      (i & 4 ? part.max_m : part.min_m)[2]
    ];
    return moves.reduce((p, m) => applyAffine(m, p), corner);
  }).map((corner) => placeInPicture(frame, corner));
  const percent = (v: number) => `${(100 * v).toFixed(2)}%`;
  return (
    <svg className="partframe" aria-hidden="true">
      {EDGES.map(([a, b]) => {
        const [from, to] = [corners[a], corners[b]];
        if (!from || !to) return null;
        return (
          <line key={`${a} ${b}`} x1={percent(from.x)} y1={percent(from.y)} x2={percent(to.x)} y2={percent(to.y)} />
        );
      })}
    </svg>
  );
}
