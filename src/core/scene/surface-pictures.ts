/**
 * Pictures of one's own on surfaces: which a rule asks for, and how they lie there. Where they lie is the rig's, so that
 * they are sized and moved without a new pack; which they are, and from where they are projected, is the pack's.
 */
import type { SceneMaterial, SceneTexture, TextureUse } from './scene';
import type { Projection } from './project-texture';

export interface PictureFiles {
  color: string | null;
  roughness: string | null;
  normal: string | null;
  height: string | null;
  opacity: string | null;
}

export interface SurfaceTexture extends PictureFiles, Omit<Projection, 'tangents' | 'turn_deg'> {
  height_mm: number;
  width_cm: number;
  repeats: number;
  turn_deg: number;
  across_cm: number;
  up_cm: number;
  /** Its repeats are broken up. */
  varied: boolean;
}

/** Of the pictures that there are. */
export const filesOf = ({ color, roughness, normal, height, opacity }: PictureFiles): string[] =>
  [color, roughness, normal, height, opacity].filter((file) => file !== null);

/** A texture that a kernel samples, made of one or two pictures. */
export interface PictureRequest {
  kind: 'color' | 'roughness' | 'normal';
  color?: string | null;
  opacity?: string | null;
  roughness?: string;
  normal?: string;
  height?: string;
}

/** Rise of the normals made of heights, of the picture's width: what `normalScale` is reckoned from. */
export const HEIGHT_SHARE = 0.02;

/** What a texture asks for, each with the name that it is found by. */
export function pictureRequests({
  color,
  opacity,
  roughness,
  normal,
  height
}: PictureFiles): [string, PictureRequest][] {
  const out: PictureRequest[] = [];
  if (color !== null || opacity !== null) out.push({ kind: 'color', color, opacity });
  if (roughness !== null) out.push({ kind: 'roughness', roughness });
  if (normal !== null) out.push({ kind: 'normal', normal });
  else if (height !== null) out.push({ kind: 'normal', height });
  return out.map((request) => [pictureName(request), request]);
}

const pictureName = ({ kind, color, opacity, roughness, normal, height }: PictureRequest): string =>
  [kind, color, opacity, roughness, normal, height].map((v) => v ?? '').join('|');

/** Whether the surface's frame has to follow the turn, for its relief to be lit rightly. */
export const hasRelief = ({ normal, height }: PictureFiles): boolean => normal !== null || height !== null;

/** The material with the pictures on it; as it is where they are not there. `aspect` of a picture is width over height. */
export function withPictures(
  material: SceneMaterial,
  texture: SurfaceTexture,
  pictures: ReadonlyMap<string, number>,
  textures: readonly SceneTexture[]
): SceneMaterial {
  const out = { ...material };
  for (const [name, { kind, color, opacity, height }] of pictureRequests(texture)) {
    const index = pictures.get(name);
    if (index === undefined) continue;
    const { width, height: rows } = textures[index]!;
    const use = textureUse(texture, index, width / rows);
    if (kind === 'color') {
      out.baseTexture = use;
      // the picture is the colour; a pattern would lie over it
      if (color) Object.assign(out, { solid_texture: null, baseColor: [1, 1, 1, 1], plain: false });
      if (opacity) Object.assign(out, { alphaMode: 'mask', alphaCutoff: 0.5, plain: false });
      // a picture without a colour of its own is there for its holes
      if (opacity && !color) out.plain = true;
    } else if (kind === 'roughness') {
      out.metalRoughTexture = use;
      out.roughness = 1;
    } else {
      out.normalTexture = use;
      out.normalScale =
        material.normalScale * (height ? texture.height_mm / (10 * texture.width_cm) / HEIGHT_SHARE : 1);
    }
  }
  return out;
}

/** Texture coordinates are metres, u to the right and v up, but for those of the file. */
export function textureUse(texture: SurfaceTexture, index: number, aspect: number): TextureUse {
  const { projection, repeats, width_cm, across_cm, up_cm, turn_deg } = texture;
  const wrap = texture.varied ? 'broken' : 'repeat';
  const use = { texture: index, wrapS: wrap, wrapT: wrap } as const;
  // the frame of a relief is turned already
  const turn = hasRelief(texture) && projection !== 'file' ? 0 : (turn_deg * Math.PI) / 180;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  if (projection === 'file')
    return { ...use, uvSet: 0, transform: [repeats * c, -repeats * s, 0, repeats * s, repeats * c, 0] };
  const [w, h] = [width_cm / 100, width_cm / 100 / aspect];
  const [x, y] = [across_cm / 100, up_cm / 100];
  return {
    ...use,
    uvSet: 1,
    transform: [c / w, s / w, 0.5 - (c * x + s * y) / w, s / h, -c / h, 0.5 - (s * x - c * y) / h]
  };
}
