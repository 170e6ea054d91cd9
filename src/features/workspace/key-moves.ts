/**
 * Moving about with keys, the stage in focus. Arrows turn about the target, with Shift they pan, plus and minus go nearer
 * and farther; W, A, S and D walk on a level at the height of the eye, Q and E look round, Page up and down rise and sink.
 */
import { Vector3 } from 'three';

export interface Standpoint {
  position: Vector3;
  target: Vector3;
  up: Vector3;
}

const TURN = Math.PI / 60;
const ARROWS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1]
};
/** Ahead, to the right, up: in steps. */
const STEPS: Record<string, readonly [number, number, number]> = {
  w: [1, 0, 0],
  s: [-1, 0, 0],
  d: [0, 1, 0],
  a: [0, -1, 0],
  PageUp: [0, 0, 1],
  PageDown: [0, 0, -1]
};
const LOOKS: Record<string, number> = { q: 1, e: -1 };

/** Null when the key moves nothing. `step_m`: of walking. */
export function movedByKey(
  { key, shiftKey }: { key: string; shiftKey: boolean },
  { position, target, up }: Standpoint,
  step_m: number
): Pick<Standpoint, 'position' | 'target'> | null {
  const offset = position.clone().sub(target);
  const right = new Vector3().crossVectors(up, offset).normalize();
  const both = (move: Vector3) => ({ position: position.clone().add(move), target: target.clone().add(move) });
  const arrow = ARROWS[key];
  if (arrow && shiftKey) {
    const above = new Vector3().crossVectors(offset, right).normalize();
    const step = offset.length() * 0.04;
    return both(right.multiplyScalar(arrow[0] * step).addScaledVector(above, arrow[1] * step));
  }
  if (arrow) {
    offset.applyAxisAngle(up, -arrow[0] * TURN);
    const tilted = offset.clone().applyAxisAngle(right, -arrow[1] * TURN);
    if (Math.abs(tilted.angleTo(up) - Math.PI / 2) < 1.5) offset.copy(tilted);
    return { position: target.clone().add(offset), target: target.clone() };
  }
  if (key === '+' || key === '=' || key === '-')
    return { position: target.clone().addScaledVector(offset, key === '-' ? 1.06 : 1 / 1.06), target: target.clone() };
  const step = STEPS[key] ?? STEPS[key.toLowerCase()];
  if (step) {
    const level = new Vector3(-offset.x, 0, -offset.z);
    // straight down there is no ahead: what is up in the picture
    if (level.length() < 1e-6) level.set(-up.x, 0, -up.z);
    level.normalize();
    const k = shiftKey ? 4 * step_m : step_m;
    return both(
      level
        .multiplyScalar(step[0] * k)
        .addScaledVector(right, step[1] * k)
        .add(new Vector3(0, step[2] * k, 0))
    );
  }
  const look = LOOKS[key.toLowerCase()];
  if (look === undefined) return null;
  const ahead = offset.negate().applyAxisAngle(new Vector3(0, 1, 0), look * TURN);
  return { position: position.clone(), target: position.clone().add(ahead) };
}
