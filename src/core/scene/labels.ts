/**
 * Pictures on faces of a model, as printed or stuck on: what lies under a label, cut to its outline, is drawn once more a
 * little above itself with the picture over it, so that a label follows a curved face. Cutting after Sutherland and
 * Hodgman 1974.
 */
import { applyAffine, IDENTITY } from '../math/affine';
import { add, cross, dot, frameAround, normalize, scale, subtract, type Vec3 } from '../math/vec3';
import { normalUnder } from './move-geometry';
import { PATH_JOINT } from './part-paths';
import {
  MATERIAL_DEFAULTS,
  type Scene,
  type SceneGeometry,
  type ScenePart,
  type SceneTexture,
  worldParts
} from './scene';
import { joinGeometries, plainGeometry } from './triangles';

export interface Label {
  name: string;
  /** Of its picture. */
  file: string;
  position_m: Vec3;
  normal: Vec3;
  width_cm: number;
  turn_deg: number;
  shine: number;
  shown: boolean;
}

// Faces turned away by more than this from where a label looks have none of it: cosine.
const TURNED_AWAY = 0.2;
/** Above what it lies on, of its width. */
const ABOVE = 5e-4;

/** `pictures` by file. A label over nothing is none. Throws a RangeError when a picture is not there. */
export function putLabels<T extends Scene>(
  scene: T,
  labels: readonly Label[],
  pictures: ReadonlyMap<string, SceneTexture>
): T {
  const shown = labels.filter((l) => l.shown);
  if (shown.length === 0) return scene;
  const textures = [...scene.textures];
  const materials = [...scene.materials];
  const parts: ScenePart[] = scene.geometry.indices.length > 0 ? [...worldParts(scene)] : [];
  const world: SceneGeometry[] = [scene.geometry];
  let first = scene.geometry.triangleMaterials.length;
  for (const label of shown) {
    const picture = pictures.get(label.file);
    if (!picture)
      throw new RangeError(
        `labels: the picture of "${label.name}" is not here; bring it in again, or remove the label`
      );
    const cut = cutOut(scene, label, picture.height / picture.width);
    if (!cut) continue;
    const texture = textures.push(picture) - 1;
    const material =
      materials.push({
        ...MATERIAL_DEFAULTS,
        name: materialName(label),
        alphaMode: hasClear(picture) ? 'blend' : 'opaque',
        baseTexture: { texture, uvSet: 0, wrapS: 'clamp', wrapT: 'clamp', transform: [1, 0, 0, 0, 1, 0] }
      }) - 1;
    world.push({ ...cut.geometry, triangleMaterials: cut.geometry.triangleMaterials.fill(material) });
    parts.push({ name: label.name, path: `${cut.path}${PATH_JOINT}${label.name}`, first, matrix: IDENTITY });
    first += cut.geometry.triangleMaterials.length;
  }
  return { ...scene, textures, materials, parts, geometry: joinGeometries(world) };
}

const materialName = ({ name }: Pick<Label, 'name'>): string => `label ${name}`;

/** Labels as shiny as a brief says: that is the rig's, not the pack's. */
export function polishLabels<T extends Pick<Scene, 'materials'>>(scene: T, labels: readonly Label[]): T {
  if (labels.length === 0) return scene;
  const shines = new Map(labels.map((l) => [materialName(l), l.shine]));
  return {
    ...scene,
    materials: scene.materials.map((m) => {
      const shine = shines.get(m.name);
      return shine === undefined ? m : { ...m, roughness: 1 - shine };
    })
  };
}

const hasClear = ({ pixels }: SceneTexture): boolean => {
  for (let i = 3; i < pixels.length; i += 4) if (pixels[i]! < 255) return true;
  return false;
};

/** In a label's own frame: its middle is the origin, x to the right, y up, z away from the face. */
interface Corner {
  place: Vec3;
  normal: Vec3;
}

/** `aspect`: height over width of the picture. Null when nothing lies under it. */
function cutOut(scene: Scene, label: Label, aspect: number): { geometry: SceneGeometry; path: string } | null {
  const z = normalize(label.normal);
  // upright on walls; on floors and tables its top points away from +z
  const upright: Vec3 = Math.abs(z[1]) > 0.9 ? [0, 0, z[1] > 0 ? -1 : 1] : [0, 1, 0];
  const flat = normalize(cross(upright, z));
  const x0: Vec3 = Number.isFinite(flat[0]) ? flat : frameAround(z).tangent;
  const y0 = cross(z, x0);
  const [c, s] = [Math.cos((label.turn_deg * Math.PI) / 180), Math.sin((label.turn_deg * Math.PI) / 180)];
  const x = add(scale(x0, c), scale(y0, s));
  const y = add(scale(x0, -s), scale(y0, c));
  const half: Vec3 = [label.width_cm / 200, (label.width_cm / 200) * aspect, 0];
  const reach: Vec3 = [half[0], half[1], Math.max(half[0], half[1])];
  const into = (p: Vec3): Vec3 => {
    const d = subtract(p, label.position_m);
    return [dot(d, x), dot(d, y), dot(d, z)];
  };
  const out = { positions: [] as number[], normals: [] as number[], uv: [] as number[], indices: [] as number[] };
  let nearest = Number.POSITIVE_INFINITY;
  let path = '';
  const lift = ABOVE * (label.width_cm / 100);
  const take = (corners: Corner[], of: string) => {
    if (corners.every((p) => dot(p.normal, z) < TURNED_AWAY)) return;
    const local = corners.map((p) => ({ ...p, place: into(p.place) }));
    for (const k of [0, 1, 2])
      if (local.every((p) => p.place[k]! > reach[k]!) || local.every((p) => p.place[k]! < -reach[k]!)) return;
    const cut = clip(local, reach);
    if (cut.length < 3) return;
    const middle = scale(
      cut.reduce<Vec3>((sum, p) => add(sum, p.place), [0, 0, 0]),
      1 / cut.length
    );
    const away = Math.hypot(...middle);
    if (away < nearest) [nearest, path] = [away, of];
    const from = out.positions.length / 3;
    for (const { place, normal } of cut) {
      const n = normalize(normal);
      const world = [0, 1, 2].map(
        (k) => label.position_m[k]! + x[k]! * place[0] + y[k]! * place[1] + z[k]! * place[2] + n[k]! * lift
      );
      out.positions.push(...world);
      out.normals.push(...n);
      out.uv.push(0.5 + place[0] / (2 * half[0]), 0.5 - place[1] / (2 * half[1]));
    }
    for (let k = 2; k < cut.length; k++) out.indices.push(from, from + k - 1, from + k);
  };
  eachTriangle(scene, label.position_m, Math.hypot(...reach), take);
  if (out.indices.length === 0) return null;
  const geometry = plainGeometry(out);
  geometry.uv0.set(out.uv);
  return { geometry, path };
}

/** Triangles of everything within `radius` of a place, in the world. */
function eachTriangle(
  scene: Scene,
  middle: Vec3,
  radius: number,
  take: (corners: Corner[], path: string) => void
): void {
  const walk = (
    geometry: SceneGeometry,
    from: number,
    to: number,
    path: string,
    move: ((p: Vec3) => Vec3) | null,
    turn: ((n: Vec3) => Vec3) | null
  ) => {
    const { positions, normals, indices } = geometry;
    const at = (values: Float32Array, v: number): Vec3 => [values[v * 3]!, values[v * 3 + 1]!, values[v * 3 + 2]!];
    for (let t = from; t < to; t++) {
      const corners: Corner[] = [];
      for (let k = 0; k < 3; k++) {
        const v = indices[t * 3 + k]!;
        const place = at(positions, v);
        corners.push({ place: move ? move(place) : place, normal: at(normals, v) });
      }
      if ([0, 1, 2].some((k) => outside(corners, k, middle, radius))) continue;
      take(turn ? corners.map((p) => ({ ...p, normal: turn(p.normal) })) : corners, path);
    }
  };
  const parts = worldParts(scene);
  parts.forEach(({ name, path = name, first }, i) => {
    const end = parts[i + 1]?.first ?? scene.geometry.triangleMaterials.length;
    walk(scene.geometry, first, end, path, null, null);
  });
  for (const { object, matrix, name, path = name } of scene.instances) {
    const geometry = scene.objects[object]!;
    walk(geometry, 0, geometry.triangleMaterials.length, path, (p) => applyAffine(matrix, p), normalUnder(matrix));
  }
}

const outside = (corners: readonly Corner[], k: number, middle: Vec3, radius: number): boolean =>
  corners.every((p) => p.place[k]! > middle[k]! + radius) || corners.every((p) => p.place[k]! < middle[k]! - radius);

/** What of a polygon lies within a box about the origin. */
function clip(polygon: readonly Corner[], reach: Vec3): Corner[] {
  let out = [...polygon];
  for (const k of [0, 1, 2]) {
    for (const sign of [1, -1]) {
      const inside = (p: Corner) => sign * p.place[k]! <= reach[k]!;
      const next: Corner[] = [];
      out.forEach((p, i) => {
        const q = out[(i + 1) % out.length]!;
        if (inside(p)) next.push(p);
        if (inside(p) === inside(q)) return;
        const t = (sign * reach[k]! - p.place[k]!) / (q.place[k]! - p.place[k]!);
        const between = (a: Vec3, b: Vec3): Vec3 => add(scale(a, 1 - t), scale(b, t));
        next.push({ place: between(p.place, q.place), normal: between(p.normal, q.normal) });
      });
      out = next;
    }
  }
  return out;
}
