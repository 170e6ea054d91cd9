/**
 * Whether a camera stands in a room lit through panes: of rays spread evenly around it almost none leaves the model
 * freely, and some meet a clear sheet. A spiral of directions, no random numbers, so the answer is the same everywhere.
 */
import type { Vec3 } from '../../core/math/vec3';
import { leadsThrough, type OpenFrame } from '../../core/scene/opening';
import * as L from '../assembly/layout';
import { openScene } from './kernel';
import type { PackedScene } from './rig';

const RAYS = 512;
const MAX_FREE = 0.02;

/** For any eye in the pack's coordinates, as the openings are; what goes out through one of those is not free. */
export type IndoorsQuestion = (eye: Vec3, openings: readonly OpenFrame[]) => boolean;

/** The scene is copied once, when there is something to ask. */
export function openIndoors(scene: PackedScene, module: WebAssembly.Module): IndoorsQuestion {
  const portals = new DataView(scene.rig.buffer, scene.rig.byteOffset).getUint32(L.P_PORTAL_COUNT, true);
  let opened: ReturnType<typeof openScene> | null = null;
  return (eye, openings) => {
    if (portals === 0 && openings.length === 0) return false;
    opened ??= openScene(scene, module, RAYS * 40);
    return standsIndoors(opened, eye, openings);
  };
}

function standsIndoors(
  { kernel, memory, at }: ReturnType<typeof openScene>,
  eye: Vec3,
  openings: readonly OpenFrame[]
): boolean {
  const f32 = new Float32Array(memory.buffer);
  const i32 = new Int32Array(memory.buffer);
  for (let i = 0; i < RAYS; i++) {
    const y = 1 - (2 * (i + 0.5)) / RAYS;
    const r = Math.sqrt(1 - y * y);
    const turn = i * Math.PI * (1 + Math.sqrt(5));
    f32.set(
      [eye[0], eye[1], eye[2], 0, r * Math.cos(turn), y, r * Math.sin(turn), Number.POSITIVE_INFINITY],
      (at >> 2) + i * 8
    );
  }
  const out = at + RAYS * 32;
  kernel.intersectMany(at, RAYS, out);
  let free = 0;
  for (let i = 0; i < RAYS; i++) {
    if (i32[(out >> 2) + i * 2 + 1]! >= 0) continue;
    const d = (at >> 2) + i * 8 + 4;
    const direction: Vec3 = [f32[d]!, f32[d + 1]!, f32[d + 2]!];
    if (!openings.some((o) => leadsThrough(o, eye, direction))) free++;
  }
  return free / RAYS <= MAX_FREE;
}
