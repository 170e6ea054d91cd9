/**
 * A picture of one's own on a material of three.js, lying where the renderer lays it (core/scene/surface-pictures.ts and
 * project-texture.ts): in the part's own coordinates, by metres, from six sides, from one or around an axis.
 */
import {
  type BufferGeometry,
  type Material,
  Matrix3,
  RepeatWrapping,
  SRGBColorSpace,
  type Texture,
  TextureLoader
} from 'three';
import { type SurfaceTexture, textureUse } from '../../../core/scene/surface-pictures';

interface Loaded {
  texture: Texture;
  /** Width over height. */
  aspect: number;
}
const pictures = new Map<string, Promise<Loaded>>();

function loaded(file: string): Promise<Loaded> {
  const known = pictures.get(file);
  if (known) return known;
  const loading = new TextureLoader().loadAsync(`/api/backdrops/${file}`).then((texture) => {
    const { width, height } = texture.image as HTMLImageElement;
    texture.wrapS = texture.wrapT = RepeatWrapping;
    texture.flipY = false;
    texture.colorSpace = SRGBColorSpace;
    texture.needsUpdate = true;
    return { texture, aspect: width / height };
  });
  pictures.set(file, loading);
  // one that failed is asked for again
  loading.catch(() => pictures.delete(file));
  return loading;
}

const VERTEX = `
  vec3 worn_size = vec3(length(modelMatrix[0].xyz), length(modelMatrix[1].xyz), length(modelMatrix[2].xyz));
  worn_place = position * worn_size;
  worn_normal = normal / worn_size;
  worn_uv = uv;`;
const VARYINGS = `
  varying vec3 worn_place;
  varying vec3 worn_normal;
  varying vec2 worn_uv;`;

// the axes of the six sides are those of project-texture.ts
const FRAGMENT = `
  vec2 worn_at = worn_uv;
  if (worn_from < 2) {
    vec3 n = abs(worn_normal);
    int side = worn_axis * 2;
    if (worn_from == 0) {
      int most = n.x >= n.y && n.x >= n.z ? 0 : n.y >= n.z ? 1 : 2;
      side = most * 2 + (worn_normal[most] < 0.0 ? 1 : 0);
    }
    vec3 p = worn_place;
    worn_at = side == 0 ? vec2(-p.z, p.y) : side == 1 ? vec2(p.z, p.y) : side == 2 ? vec2(p.x, -p.z)
      : side == 3 ? vec2(p.x, p.z) : side == 4 ? vec2(p.x, p.y) : vec2(-p.x, p.y);
  } else if (worn_from == 2) {
    int a = (worn_axis + 1) % 3;
    int b = (worn_axis + 2) % 3;
    worn_at = vec2(atan(worn_place[b], worn_place[a]) * worn_radius, worn_place[worn_axis]);
  }
  diffuseColor.rgb *= texture2D(worn_picture, (worn_lay * vec3(worn_at, 1.0)).xy).rgb;`;
const UNIFORMS = `
  uniform sampler2D worn_picture;
  uniform mat3 worn_lay;
  uniform int worn_from;
  uniform int worn_axis;
  uniform float worn_radius;`;

const FROM = ['box', 'planar', 'cylinder', 'file'] as const satisfies readonly SurfaceTexture['projection'][];

/** Lays a picture on a material, or takes it away; `onShown` when it has come. */
export function layPicture(
  material: Material,
  texture: SurfaceTexture | null,
  geometry: BufferGeometry,
  onShown: () => void
): void {
  const file = texture?.color ?? null;
  const key = file === null ? null : JSON.stringify([texture, geometry.id]);
  if ((material.userData.worn ?? null) === key) return;
  material.userData.worn = key;
  if (texture === null || file === null) {
    material.onBeforeCompile = () => {};
    material.customProgramCacheKey = () => '';
    material.needsUpdate = true;
    return;
  }
  loaded(file).then(
    ({ texture: picture, aspect }) => {
      if (material.userData.worn !== key) return;
      // a relief is not drawn here, so its frame need not be turned
      const [a, b, c, d, e, f] = textureUse({ ...texture, normal: null, height: null }, 0, aspect).transform!;
      const uniforms = {
        worn_picture: { value: picture },
        worn_lay: { value: new Matrix3(a, b, c, d, e, f, 0, 0, 1) },
        worn_from: { value: FROM.indexOf(texture.projection) },
        worn_axis: { value: 'xyz'.indexOf(texture.axis) },
        worn_radius: { value: texture.projection === 'cylinder' ? radiusAbout(geometry, texture.axis) : 1 }
      };
      material.onBeforeCompile = (shader) => {
        Object.assign(shader.uniforms, uniforms);
        shader.vertexShader = shader.vertexShader
          .replace('#include <common>', `#include <common>${VARYINGS}`)
          .replace('#include <begin_vertex>', `#include <begin_vertex>${VERTEX}`);
        shader.fragmentShader = shader.fragmentShader
          .replace('#include <common>', `#include <common>${VARYINGS}${UNIFORMS}`)
          .replace('#include <map_fragment>', FRAGMENT);
      };
      // a program is shared by materials of one key, and each has its own uniforms
      material.customProgramCacheKey = () => key!;
      material.needsUpdate = true;
      onShown();
    },
    // the material keeps its colour; the panel says what is missing
    () => {}
  );
}

/** The largest, as in project-texture.ts; in the geometry's own unit. */
function radiusAbout(geometry: BufferGeometry, axis: SurfaceTexture['axis']): number {
  const { position } = geometry.attributes;
  const up = 'xyz'.indexOf(axis);
  let radius = 0;
  for (let i = 0; position && i < position.count; i++)
    radius = Math.max(
      radius,
      Math.hypot(position.getComponent(i, (up + 1) % 3), position.getComponent(i, (up + 2) % 3))
    );
  return radius;
}
