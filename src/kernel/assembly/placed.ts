// Triangles of placed objects, brought to where they stand in the world, and the part that a triangle belongs to.
import {
  P_FIRST_PART,
  P_PART_COUNT,
  P_PARTS_PTR,
  PACK,
  PART_BYTES,
  PLACED_INVERSE,
  PLACED_MATRIX,
  PLACED_MIRRORED,
  PLACED_PART,
  V_COLOR,
  V_NORMAL,
  V_TANGENT,
  V_UV0,
  VERTEX_BYTES
} from './layout';

/** Gives this instance room for three vertices. */
export function setScratch(address: usize): void {
  scratch = address;
}
let scratch: usize = 0;

/** Copies a vertex of a placed object to where it stands in the world. Normals go by the inverse transpose. */
function bringVertex(from: usize, to: usize, placed: usize, mirrored: bool): void {
  const m = placed + PLACED_MATRIX,
    i = placed + PLACED_INVERSE;
  const x = load<f32>(from),
    y = load<f32>(from, 4),
    z = load<f32>(from, 8);
  const u = load<f32>(from, V_NORMAL),
    v = load<f32>(from, V_NORMAL + 4),
    w = load<f32>(from, V_NORMAL + 8);
  const p = load<f32>(from, V_TANGENT),
    q = load<f32>(from, V_TANGENT + 4),
    r = load<f32>(from, V_TANGENT + 8);
  for (let k: usize = 0; k < 3; k++) {
    const a = load<f32>(m + (k << 2)),
      b = load<f32>(m + (k << 2), 12),
      c = load<f32>(m + (k << 2), 24);
    store<f32>(to + (k << 2), a * x + b * y + c * z + load<f32>(m + (k << 2), 36));
    store<f32>(to + (k << 2), a * p + b * q + c * r, V_TANGENT);
    store<f32>(
      to + (k << 2),
      load<f32>(i + k * 12) * u + load<f32>(i + k * 12, 4) * v + load<f32>(i + k * 12, 8) * w,
      V_NORMAL
    );
  }
  makeUnit(to + V_NORMAL);
  makeUnit(to + V_TANGENT);
  memory.copy(to + V_UV0, from + V_UV0, 16);
  store<f32>(to, mirrored ? -load<f32>(from, V_TANGENT + 12) : load<f32>(from, V_TANGENT + 12), V_TANGENT + 12);
  store<u64>(to, load<u64>(from, V_COLOR), V_COLOR);
}

function makeUnit(at: usize): void {
  const x = load<f32>(at),
    y = load<f32>(at, 4),
    z = load<f32>(at, 8),
    length = sqrt<f32>(x * x + y * y + z * z);
  if (length < <f32>1e-20) return;
  store<f32>(at, x / length);
  store<f32>(at, y / length, 4);
  store<f32>(at, z / length, 8);
}

/**
 * Brings three vertices to the world; of a mirrored object the second and third change places, so that the front stays
 * outside.
 */
export function bringTriangle(a: usize, b: usize, c: usize, placed: usize): void {
  const mirrored = load<u32>(placed, PLACED_MIRRORED) != 0;
  bringVertex(a, broughtA(), placed, mirrored);
  bringVertex(b, mirrored ? broughtC() : broughtB(), placed, mirrored);
  bringVertex(c, mirrored ? broughtB() : broughtC(), placed, mirrored);
}

/** Where the vertices brought last stand. */
export function broughtA(): usize {
  return scratch;
}
export function broughtB(): usize {
  return scratch + VERTEX_BYTES;
}
export function broughtC(): usize {
  return scratch + <usize>(2 * VERTEX_BYTES);
}

/** Which part a triangle belongs to, by its number. */
export function partOf(triangle: i32, placed: usize): u32 {
  if (placed) return load<u32>(placed, PLACED_PART);
  const parts = <usize>load<u32>(PACK + P_PARTS_PTR);
  let low = load<u32>(PACK + P_FIRST_PART),
    high = load<u32>(PACK + P_PART_COUNT);
  while (low + 1 < high) {
    const middle = (low + high) >> 1;
    if (load<i32>(parts + <usize>(middle * PART_BYTES)) <= triangle) low = middle;
    else high = middle;
  }
  return low;
}
