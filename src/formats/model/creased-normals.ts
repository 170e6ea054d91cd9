/**
 * Normals for triangles that came without: faces that meet at less than the crease angle share a smooth normal at their
 * common corners, others keep an edge. Each face counts by its area (common practice, no source).
 */
const CREASE_DEG = 35;
// Corners nearer than this share of the largest extent are one: files with single precision or few digits.
const SAME = 1e-6;
// Of a corner with more, not all are looked at: a fan of a hundred thousand would take hours.
const MOST_FACES = 256;

/** `positions`: nine numbers a triangle. Returns a normal a corner; zero where a triangle has no area. */
export function creasedNormals(positions: Float32Array, creaseDeg = CREASE_DEG): Float32Array {
  const triangles = Math.floor(positions.length / 9);
  const faces = new Float32Array(triangles * 3);
  const areas = new Float32Array(triangles);
  for (let t = 0; t < triangles; t++) {
    const o = t * 9;
    const [ax, ay, az] = [positions[o]!, positions[o + 1]!, positions[o + 2]!];
    const [ux, uy, uz] = [positions[o + 3]! - ax, positions[o + 4]! - ay, positions[o + 5]! - az];
    const [vx, vy, vz] = [positions[o + 6]! - ax, positions[o + 7]! - ay, positions[o + 8]! - az];
    const n = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx] as const;
    const size = Math.hypot(...n);
    areas[t] = size;
    if (size > 0) for (let k = 0; k < 3; k++) faces[t * 3 + k] = n[k]! / size;
  }
  const { first, next } = cornersByPlace(positions);
  const out = new Float32Array(triangles * 9);
  const least = Math.cos((creaseDeg * Math.PI) / 180);
  for (let corner = 0; corner < triangles * 3; corner++) {
    const own = Math.floor(corner / 3) * 3;
    const area = areas[own / 3]!;
    let [x, y, z] = [faces[own]! * area, faces[own + 1]! * area, faces[own + 2]! * area];
    let looked = 0;
    for (let other = first[corner]!; other >= 0 && looked < MOST_FACES; other = next[other]!, looked++) {
      const t = Math.floor(other / 3);
      const o = t * 3;
      const cosine = faces[own]! * faces[o]! + faces[own + 1]! * faces[o + 1]! + faces[own + 2]! * faces[o + 2]!;
      if (cosine < least || o === own) continue;
      x += faces[o]! * areas[t]!;
      y += faces[o + 1]! * areas[t]!;
      z += faces[o + 2]! * areas[t]!;
    }
    const size = Math.hypot(x, y, z) || 1;
    out[corner * 3] = x / size;
    out[corner * 3 + 1] = y / size;
    out[corner * 3 + 2] = z / size;
  }
  return out;
}

/** Of each corner the last one at its place, and of each the one before it there; -1 for none. */
function cornersByPlace(positions: Float32Array): { first: Int32Array; next: Int32Array } {
  const corners = Math.floor(positions.length / 3);
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const value of positions) {
    low = Math.min(low, value);
    high = Math.max(high, value);
  }
  const cell = Math.max(high - low, Number.MIN_VALUE) * SAME;
  const places = Int32Array.from({ length: corners * 3 }, (_, i) => Math.round((positions[i]! - low) / cell));
  const same = (a: number, b: number) =>
    places[a * 3] === places[b * 3] &&
    places[a * 3 + 1] === places[b * 3 + 1] &&
    places[a * 3 + 2] === places[b * 3 + 2];
  // open addressing over a table of the last corner of each place
  const size = 2 ** Math.ceil(Math.log2(Math.max(2, corners * 2)));
  const table = new Int32Array(size).fill(-1);
  const slots = new Int32Array(corners);
  const next = new Int32Array(corners).fill(-1);
  for (let i = 0; i < corners; i++) {
    let slot =
      (Math.imul(places[i * 3]!, 73_856_093) ^
        Math.imul(places[i * 3 + 1]!, 19_349_663) ^
        Math.imul(places[i * 3 + 2]!, 83_492_791)) &
      (size - 1);
    while (table[slot]! >= 0 && !same(table[slot]!, i)) slot = (slot + 1) & (size - 1);
    next[i] = table[slot]!;
    table[slot] = i;
    slots[i] = slot;
  }
  return { first: slots.map((slot) => table[slot]!), next };
}
