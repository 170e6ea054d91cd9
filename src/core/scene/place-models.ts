/**
 * Further models in a scene: pieces and models of other files that stand beside it, each as often as it is placed. What
 * stands is kept once and placed; lamps and panes, which have to be known where they are in the world, become part of
 * its own triangles.
 */
import { type Affine, applyAffine, IDENTITY, multiplyAffine } from '../math/affine';
import type { Vec3 } from '../math/vec3';
import { moveGeometry } from './move-geometry';
import { PATH_JOINT } from './part-paths';
import { poseScene, type SeenPart } from './pose';
import type {
  MaterialLayers,
  Scene,
  SceneGeometry,
  SceneInstance,
  SceneLight,
  SceneMaterial,
  ScenePart,
  TextureUse
} from './scene';
import { joinGeometries, takeTriangles } from './triangles';

export interface PlacedModel {
  name: string;
  /** Key of a piece, or hash of a model. */
  model: string;
  /** Of its foot. */
  position_m: readonly [number, number, number];
  /** About the upright axis, counterclockwise from above. */
  turn_deg: number;
  scale: number;
  seen: SeenPart;
}

/** The paths of what is placed begin with this. */
export const PLACED_ROOT = 'placed';

/** From the coordinates of a placed model to the world's: its foot's middle comes to its place. */
export function placeMatrix(
  { position_m, turn_deg, scale }: Pick<PlacedModel, 'position_m' | 'turn_deg' | 'scale'>,
  { min, max }: Pick<Scene, 'bounds'>['bounds']
): Affine {
  const [c, s] = [Math.cos((turn_deg * Math.PI) / 180) * scale, Math.sin((turn_deg * Math.PI) / 180) * scale];
  const turn: Affine = [c, 0, -s, 0, scale, 0, s, 0, c, 0, 0, 0];
  const foot = applyAffine(turn, [(min[0] + max[0]) / 2, min[1], (min[2] + max[2]) / 2]);
  return [...turn.slice(0, 9), ...position_m.map((v, k) => v - foot[k]!)] as unknown as Affine;
}

/** The bounds stay those of the model alone. Throws a RangeError when a model that is placed is not among `models`. */
export function placeModels<T extends Scene>(
  scene: T,
  placed: readonly PlacedModel[],
  models: ReadonlyMap<string, Scene>
): T {
  const there = placed.filter(({ seen }) => seen !== 'out');
  if (there.length === 0) return scene;
  const out = {
    materials: [...scene.materials],
    textures: [...scene.textures],
    objects: [...scene.objects],
    instances: [...scene.instances],
    lights: [...scene.lights],
    world: [] as SceneGeometry[],
    parts: [...scene.parts]
  };
  const joined = new Map<string, Joined>();
  let first = scene.geometry.triangleMaterials.length;
  for (const [i, placement] of there.entries()) {
    const { model, seen, name } = placement;
    const given = models.get(model);
    if (!given) throw new RangeError(`placed.model "${model}" is not here; choose another piece, or bring it in again`);
    const key = `${model} ${seen}`;
    const one = joined.get(key) ?? join(given, seen, out);
    joined.set(key, one);
    const matrix = placeMatrix(placement, given.bounds);
    const path = `${PLACED_ROOT}${PATH_JOINT}${i + 1} ${name}`;
    out.instances.push(
      ...one.instances.map((own) => ({ ...own, name, path, matrix: multiplyAffine(matrix, own.matrix) }))
    );
    out.lights.push(...one.lights.map((light) => placedLight(light, matrix, name)));
    if (one.world) {
      out.world.push(moveGeometry(one.world, matrix));
      out.parts.push({ name, path, first, matrix });
      first += one.world.triangleMaterials.length;
    }
  }
  const { world, ...rest } = out;
  // the model's own part keeps its name, or the parts of what is placed would begin with its triangles
  const parts: ScenePart[] =
    world.length > 0 && scene.parts.length === 0 && scene.geometry.indices.length > 0
      ? [{ name: '', first: 0, matrix: IDENTITY }, ...rest.parts]
      : rest.parts;
  const geometry = world.length > 0 ? joinGeometries([scene.geometry, ...world]) : scene.geometry;
  return { ...scene, ...rest, parts, geometry };
}

interface Joined {
  instances: SceneInstance[];
  /** What has to be known where it stands, in the model's own coordinates. */
  world: SceneGeometry | null;
  lights: SceneLight[];
}

/** Puts a model's materials, pictures and objects into the scene's lists. */
function join(
  given: Scene,
  seen: SeenPart,
  out: { materials: SceneMaterial[]; textures: Scene['textures']; objects: SceneGeometry[] }
): Joined {
  const model =
    seen === 'whole'
      ? given
      : poseScene(given, [{ part: '', seen, turn_deg: [0, 0, 0], move_m: [0, 0, 0], about_m: [0, 0, 0] }]);
  const [material, texture] = [out.materials.length, out.textures.length];
  out.materials.push(...model.materials.map((m) => withTextures(m, texture)));
  out.textures.push(...model.textures);
  const renumbered = (geometry: SceneGeometry): SceneGeometry => ({
    ...geometry,
    triangleMaterials: geometry.triangleMaterials.map((m) => m + material)
  });
  const instances = model.instances.map((instance) => ({
    ...instance,
    object: out.objects.push(renumbered(model.objects[instance.object]!)) - 1
  }));
  const stands: number[] = [];
  const fixed: number[] = [];
  for (const [t, m] of model.geometry.triangleMaterials.entries())
    (mayBePlaced(model.materials[m]!) ? stands : fixed).push(t);
  if (stands.length > 0) {
    const object = out.objects.push(renumbered(takeTriangles(model.geometry, stands))) - 1;
    instances.push({ object, name: '', matrix: IDENTITY });
  }
  const world = fixed.length > 0 ? renumbered(takeTriangles(model.geometry, fixed)) : null;
  return { instances, world, lights: model.lights.filter((l) => !l.hidden) };
}

/** Lamps and window panes have to be known where they stand in the world. */
export const mayBePlaced = (m: SceneMaterial): boolean =>
  m.emissive.every((c) => c === 0) && !(m.transmission > 0 && !m.solid);

const USES = [
  'baseTexture',
  'metalRoughTexture',
  'normalTexture',
  'emissiveTexture',
  'transmissionTexture'
] as const satisfies readonly (keyof SceneMaterial)[];

function withTextures(material: SceneMaterial, first: number): SceneMaterial {
  const moved = (use: TextureUse | null): TextureUse | null => use && { ...use, texture: use.texture + first };
  const uses = Object.fromEntries(USES.map((key) => [key, moved(material[key])]));
  const { layers } = material;
  if (!layers) return { ...material, ...uses };
  const textures = Object.fromEntries(
    Object.entries(layers.textures).map(([key, use]) => [key, moved(use)])
  ) as MaterialLayers['textures'];
  return { ...material, ...uses, layers: { ...layers, textures } };
}

/** A direction after a map that turns and scales evenly by `size`. */
const turned = (m: Affine, [x, y, z]: Vec3, size: number): Vec3 => [
  (m[0] * x + m[3] * y + m[6] * z) / size,
  (m[1] * x + m[4] * y + m[7] * z) / size,
  (m[2] * x + m[5] * y + m[8] * z) / size
];

/** Its light stays what it gives, however large the piece is made. */
function placedLight(light: SceneLight, m: Affine, name: string): SceneLight {
  const size = Math.hypot(m[0], m[1], m[2]);
  const moved: Record<string, unknown> = { ...light, name: light.name || name, path: undefined };
  if ('position' in light) moved.position = applyAffine(m, light.position);
  for (const key of ['direction', 'up', 'plane']) if (key in moved) moved[key] = turned(m, moved[key] as Vec3, size);
  return moved as unknown as SceneLight;
}
