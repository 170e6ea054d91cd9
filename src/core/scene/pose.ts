/**
 * A model posed for a picture: parts turned and moved, left out, or kept for their shadow alone. Parts go by their paths;
 * what holds for a part holds for all within it. The bounds stay, so that a studio and a ground stay where they are while
 * a product is turned in them.
 */
import { type Affine, applyAffine, multiplyAffine } from '../math/affine';
import { add, subtract, type Vec3 } from '../math/vec3';
import { isWithin } from './part-paths';
import { type Scene, type SceneGeometry, type SceneLight, type SceneMaterial, worldParts } from './scene';

export const SEEN = ['whole', 'indirect', 'shadow', 'out'] as const;
/**
 * `indirect`: the camera does not see it, but its shadow and its reflection. `shadow`: its shadow alone is seen. `out`: it
 * is not there.
 */
export type SeenPart = (typeof SEEN)[number];

export interface PosedPart {
  /** Its path; empty for the whole model. */
  part: string;
  seen: SeenPart;
  /** Degrees about the X axis, then about Y, then about Z, right-handed; about `about_m`. */
  turn_deg: readonly [number, number, number];
  /** After the turn. */
  move_m: readonly [number, number, number];
  /** What it turns about, where the model came in. */
  about_m: readonly [number, number, number];
}

const radians = (deg: number) => (deg * Math.PI) / 180;

/** From where a part came in to where it is posed. */
export function poseMatrix({ turn_deg, move_m, about_m }: Omit<PosedPart, 'part' | 'seen'>): Affine {
  const [cx, cy, cz] = turn_deg.map((d) => Math.cos(radians(d))) as [number, number, number];
  const [sx, sy, sz] = turn_deg.map((d) => Math.sin(radians(d))) as [number, number, number];
  const turn: Affine = [
    cz * cy,
    sz * cy,
    -sy,
    cz * sy * sx - sz * cx,
    sz * sy * sx + cz * cx,
    cy * sx,
    cz * sy * cx + sz * sx,
    sz * sy * cx - cz * sx,
    cy * cx,
    0,
    0,
    0
  ];
  const moved = add(subtract(about_m, applyAffine(turn, about_m)), move_m);
  return [...(turn.slice(0, 9) as unknown as Vec3 & [number]), ...moved] as unknown as Affine;
}

export const isMoved = ({ turn_deg, move_m }: Pick<PosedPart, 'turn_deg' | 'move_m'>): boolean =>
  [...turn_deg, ...move_m].some((v) => v !== 0);

const UNSEEN_BY = { indirect: 'camera', shadow: 'mirrors' } as const;
/** A material's copy for parts that are seen so. */
type UnseenMaterial = (material: number, seen: keyof typeof UNSEEN_BY) => number;

interface Effect {
  matrix: Affine | null;
  seen: SeenPart;
}
const UNPOSED: Effect = { matrix: null, seen: 'whole' };

/** What all settings together do to a path: the innermost turns first, the strongest of what is not seen counts. */
function effects(settings: readonly PosedPart[]): (path: string) => Effect {
  const inwards = [...settings].sort((a, b) => b.part.length - a.part.length);
  const known = new Map<string, Effect>();
  return (path) => {
    const found = known.get(path);
    if (found) return found;
    let effect = UNPOSED;
    for (const setting of inwards) {
      if (!isWithin(path, setting.part)) continue;
      const seen = SEEN[Math.max(SEEN.indexOf(effect.seen), SEEN.indexOf(setting.seen))]!;
      const own = isMoved(setting) ? poseMatrix(setting) : null;
      const matrix = own && effect.matrix ? multiplyAffine(own, effect.matrix) : (own ?? effect.matrix);
      effect = { matrix, seen };
    }
    known.set(path, effect);
    return effect;
  };
}

/** Throws a RangeError when nothing would be left. */
export function poseScene<T extends Scene>(scene: T, settings: readonly PosedPart[]): T {
  if (settings.length === 0) return scene;
  const effectOf = effects(settings);
  const materials = [...scene.materials];
  const unseen = new Map<string, number>();
  const unseenMaterial: UnseenMaterial = (material, seen) => {
    const key = `${material} ${seen}`;
    const known = unseen.get(key);
    if (known !== undefined) return known;
    const made: SceneMaterial = { ...materials[material]!, unseen: UNSEEN_BY[seen] };
    unseen.set(key, materials.push(made) - 1);
    return materials.length - 1;
  };
  const { geometry, parts } = posedWorld(scene, effectOf, unseenMaterial);
  const objects = [...scene.objects];
  const unseenObjects = new Map<string, number>();
  const instances = scene.instances.flatMap((instance) => {
    const { matrix, seen } = effectOf(instance.path ?? instance.name);
    if (seen === 'out') return [];
    const key = `${instance.object} ${seen}`;
    if (seen !== 'whole' && !unseenObjects.has(key)) {
      const own = scene.objects[instance.object]!;
      const triangleMaterials = own.triangleMaterials.map((m) => unseenMaterial(m, seen));
      unseenObjects.set(key, objects.push({ ...own, triangleMaterials }) - 1);
    }
    return [
      {
        ...instance,
        object: seen === 'whole' ? instance.object : unseenObjects.get(key)!,
        matrix: matrix ? multiplyAffine(matrix, instance.matrix) : instance.matrix
      }
    ];
  });
  if (geometry.indices.length === 0 && instances.length === 0)
    throw new RangeError('pose leaves nothing of the model; show some of it');
  const lights = scene.lights.flatMap((light) => posedLight(light, effectOf));
  const whole = effectOf('').matrix;
  const openings = scene.openings && whole ? { openings: scene.openings.map((o) => turnedOpening(o, whole)) } : {};
  return { ...scene, materials, geometry, parts, objects, instances, lights, ...openings };
}

function posedWorld(
  scene: Scene,
  effectOf: (path: string) => Effect,
  unseenMaterial: UnseenMaterial
): Pick<Scene, 'geometry' | 'parts'> {
  const own = worldParts(scene);
  const end = scene.geometry.triangleMaterials.length;
  const ranges = own.map((part, i) => ({
    part,
    from: part.first,
    to: own[i + 1]?.first ?? end,
    effect: effectOf(part.path ?? part.name)
  }));
  if (ranges.every(({ effect }) => effect.matrix === null && effect.seen === 'whole'))
    return { geometry: scene.geometry, parts: scene.parts };
  const kept = ranges.filter(({ effect }) => effect.seen !== 'out');
  const count = kept.reduce((sum, { from, to }) => sum + to - from, 0);
  const given = scene.geometry;
  const geometry: SceneGeometry = {
    ...given,
    positions: Float32Array.from(given.positions),
    normals: Float32Array.from(given.normals),
    tangents: Float32Array.from(given.tangents),
    indices: new Uint32Array(count * 3),
    triangleMaterials: new Uint32Array(count)
  };
  // a vertex belongs to one part (formats/gltf/place-pieces.ts)
  const done = new Uint8Array(given.positions.length / 3);
  let at = 0;
  const parts = kept.map(({ part, from, to, effect: { matrix, seen } }) => {
    const first = at;
    geometry.indices.set(given.indices.subarray(from * 3, to * 3), at * 3);
    for (let t = from; t < to; t++, at++) {
      const material = given.triangleMaterials[t]!;
      geometry.triangleMaterials[at] = seen === 'whole' || seen === 'out' ? material : unseenMaterial(material, seen);
    }
    if (matrix)
      for (let i = from * 3; i < to * 3; i++) {
        const v = given.indices[i]!;
        if (done[v]) continue;
        done[v] = 1;
        moveVertex(geometry, v, matrix);
      }
    return { ...part, first, matrix: matrix ? multiplyAffine(matrix, part.matrix) : part.matrix };
  });
  return { geometry, parts };
}

function moveVertex({ positions, normals, tangents }: SceneGeometry, v: number, m: Affine): void {
  const at = (from: Float32Array, i: number): Vec3 => [from[i]!, from[i + 1]!, from[i + 2]!];
  positions.set(applyAffine(m, at(positions, v * 3)), v * 3);
  normals.set(turnedBy(m, at(normals, v * 3)), v * 3);
  tangents.set(turnedBy(m, at(tangents, v * 4)), v * 4);
}

/** A direction after a rigid map. */
const turnedBy = (m: Affine, [x, y, z]: Vec3): Vec3 => [
  m[0] * x + m[3] * y + m[6] * z,
  m[1] * x + m[4] * y + m[7] * z,
  m[2] * x + m[5] * y + m[8] * z
];

const DIRECTIONS = ['direction', 'up', 'plane'] as const;

function posedLight(light: SceneLight, effectOf: (path: string) => Effect): SceneLight[] {
  if (light.path === undefined) return [light];
  const { matrix, seen } = effectOf(light.path);
  if (seen === 'out') return [];
  if (!matrix) return [light];
  const moved: Record<string, unknown> = { ...light };
  if ('position' in light) moved.position = applyAffine(matrix, light.position);
  for (const key of DIRECTIONS) if (key in moved) moved[key] = turnedBy(matrix, moved[key] as Vec3);
  return [moved as unknown as SceneLight];
}

type Opening = NonNullable<Scene['openings']>[number];
const turnedOpening = (o: Opening, m: Affine): Opening => ({
  ...o,
  middle_m: [...applyAffine(m, o.middle_m)],
  normal: [...turnedBy(m, o.normal)]
});
