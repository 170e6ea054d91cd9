/** What a kernel is told beside the scene: camera, light, limits, exposure. */
import type { BriefQuality } from '../brief/brief';
import type { CameraFrame } from '../camera/lens';
import type { SurroundingsLight } from '../lights/surroundings-light';
import type { Vec3 } from '../math/vec3';

/** The fields of a brief's quality that limit how light paths are followed. */
export type PathLimits = Pick<
  BriefQuality,
  | 'diffuse_bounces'
  | 'specular_bounces'
  | 'transmission_bounces'
  | 'transparent_bounces'
  | 'filter_px'
  | 'emissive_lights'
>;

export const NO_LIMITS: PathLimits = {
  diffuse_bounces: null,
  specular_bounces: null,
  transmission_bounces: null,
  transparent_bounces: 256,
  filter_px: 1.5,
  emissive_lights: true
};

/**
 * An endless level plane that is seen as what lies behind it, but for what the model does to its light
 * (assembly/ground.ts).
 */
export interface GroundSettings {
  height_m: number;
  /** What it fades from, and how far from there fading begins and ends, m. */
  middle_m: readonly [x: number, z: number];
  fade_m: readonly [from: number, to: number];
  /** Share of light that its polish mirrors at normal incidence; 0 for none. */
  polish: number;
  roughness: number;
  /** What surroundings and sun bring to it, lx. */
  irradiance: Vec3;
}

export interface RenderSettings {
  width: number;
  height: number;
  camera: CameraFrame;
  bounces: number;
  limits: PathLimits;
  /** Light groups that get a layer each; 0 for none. */
  layers: number;
  /** Whether the film holds masks, depth and light passes, and the reach of ambient occlusion, m; null for none. */
  aovs: { ambient_occlusion_m: number } | null;
  /** Most luminance of one indirect contribution, cd/m2; 0 for none. */
  firefly: number;
  /** Luminance of displayed white, cd/m2; absent before the meter has read. */
  white?: number;
  /** In the pack's coordinates. */
  ground: GroundSettings | null;
  seed: number;
  light: SurroundingsLight;
  /** The camera stands in a room that gets its light through panes: sample the sky through them too. */
  indoors: boolean;
  /** Mirrors and gloss do not show the surroundings, which light all the same. */
  unmirrored?: boolean;
  /** The camera looks through the backs of one-sided surfaces, which still stand in the way of light. */
  openBacks?: boolean;
  /** The camera looks through what lies on its side of this plane: n p > d, n a unit, in the pack's coordinates. */
  section?: { normal: Vec3; distance: number } | null;
  /** For the bench: WITHOUT_ bits of what is left out. */
  without?: number;
}
