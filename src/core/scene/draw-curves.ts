/** The curves of a model as thin round rods, so that a picture shows them. */
import { IDENTITY } from '../math/affine';
import { add, cross, frameAround, length, normalize, scale, subtract, type Vec3 } from '../math/vec3';
import { MATERIAL_DEFAULTS, type Scene, type SceneGeometry, type ScenePart, worldParts } from './scene';
import { joinGeometries } from './triangles';

const SIDES = 6;
/** More would weigh more than most models. */
export const MOST_SEGMENTS = 200_000;

/** Throws a RangeError when there are more than can be drawn. */
export function drawCurves<T extends Scene>(scene: T, width_mm: number | null): T {
  const { curves = [] } = scene;
  if (width_mm === null || curves.length === 0) return scene;
  const segments = curves.reduce((sum, c) => sum + c.segments.length / 6, 0);
  if (segments > MOST_SEGMENTS)
    throw new RangeError(
      `curves_mm: the model has ${segments.toLocaleString('en')} segments of curves; at most ` +
        `${MOST_SEGMENTS.toLocaleString('en')} can be drawn, so leave them out or export fewer`
    );
  const materials = [...scene.materials];
  const inks = new Map<number, number>();
  const parts: ScenePart[] = scene.geometry.indices.length > 0 ? [...worldParts(scene)] : [...scene.parts];
  let first = scene.geometry.triangleMaterials.length;
  const pieces: SceneGeometry[] = curves.map(({ name, path, segments: own, material }) => {
    const ink =
      inks.get(material) ??
      materials.push({
        ...MATERIAL_DEFAULTS,
        name: scene.materials[material]!.name,
        baseColor: [...(scene.materials[material]!.baseColor.slice(0, 3) as [number, number, number]), 1],
        specular: 0
      }) - 1;
    inks.set(material, ink);
    const geometry = rodsOf(own, width_mm / 2000, ink);
    parts.push({ name, ...(path === undefined ? {} : { path }), first, matrix: IDENTITY });
    first += geometry.triangleMaterials.length;
    return geometry;
  });
  return { ...scene, materials, parts, geometry: joinGeometries([scene.geometry, ...pieces]) };
}

/** A prism of six sides along each segment, smooth round it; its ends reach half a width farther, so that corners close. */
function rodsOf(segments: Float32Array, radius: number, material: number): SceneGeometry {
  const count = segments.length / 6;
  const vertices = count * SIDES * 2;
  const triangles = count * SIDES * 2;
  const out: SceneGeometry = {
    positions: new Float32Array(vertices * 3),
    normals: new Float32Array(vertices * 3),
    tangents: new Float32Array(vertices * 4),
    uv0: new Float32Array(vertices * 2),
    uv1: new Float32Array(vertices * 2),
    colors: new Uint16Array(vertices * 4).fill(65_535),
    indices: new Uint32Array(triangles * 3),
    triangleMaterials: new Uint32Array(triangles).fill(material)
  };
  for (let s = 0; s < count; s++) {
    const at = (k: number): Vec3 => [segments[s * 6 + k]!, segments[s * 6 + k + 1]!, segments[s * 6 + k + 2]!];
    const [from, to] = [at(0), at(3)];
    const way = subtract(to, from);
    const along = length(way) > 0 ? normalize(way) : ([0, 1, 0] as const);
    const { tangent } = frameAround(along);
    const side = cross(along, tangent);
    const ends = [subtract(from, scale(along, radius)), add(to, scale(along, radius))] as const;
    for (let i = 0; i < SIDES; i++) {
      const a = (2 * Math.PI * i) / SIDES;
      const n = add(scale(tangent, Math.cos(a)), scale(side, Math.sin(a)));
      for (const [e, end] of ends.entries()) {
        const v = (s * SIDES + i) * 2 + e;
        out.positions.set(add(end, scale(n, radius)), v * 3);
        out.normals.set(n, v * 3);
      }
      const [v, w] = [(s * SIDES + i) * 2, (s * SIDES + ((i + 1) % SIDES)) * 2];
      out.indices.set([v, w, w + 1, v, w + 1, v + 1], (s * SIDES + i) * 6);
    }
  }
  return out;
}
