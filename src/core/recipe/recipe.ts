/**
 * From a brief and a model to what a kernel is told: the one way, whoever renders (the render service, the preview, the
 * command, the benches). Pure; what takes long (the light's image, the model's pack) is made before and passed in, so
 * that each can be kept.
 */
import type { Brief, BriefQuality } from '../brief/brief';
import { type ExposureRule, exposureRule } from '../brief/exposure';
import type { FilmLayers } from '../film/film';
import type { SurroundingsLight } from '../lights/surroundings-light';
import { dot, length, normalize, subtract, type Vec3 } from '../math/vec3';
import type { Webs } from '../scene/added-lamps';
import { groupLights } from '../scene/light-groups';
import type { LitScene } from '../scene/lit-scene';
import { recentreCamera } from '../scene/recentre';
import { partNames, type Scene } from '../scene/scene';
import { adjustLight, isDark } from './light';
import { groundFor, lightModel } from './model';
import type { PathLimits, RenderSettings } from './render-settings';
import { resolveCamera, resolveViewpoint } from './viewpoint';

export interface RecipeInput {
  brief: Brief;
  /** As it was brought in. */
  scene: Scene;
  /** As it lies in its pack, whose origin is `centre_m` (packedModel). */
  model: Scene;
  centre_m: Vec3;
  /** Of the surroundings, before it is turned and brightened (makeNeutralLight). */
  neutral: SurroundingsLight;
  /** The photometric files that the brief's lamps name. */
  webs: Webs;
  /** The whole frame, px. */
  width: number;
  height: number;
}

export interface Recipe {
  /** The model with its lamps, its studio, its materials: what the rig is built of. */
  lit: LitScene;
  layers: FilmLayers;
  /** Of the whole frame, in the pack's coordinates; not yet exposed, and not yet known to be indoors. */
  settings: RenderSettings;
  exposure: ExposureRule;
  /** No light can reach the picture. */
  dark: boolean;
}

// Of the model's diagonal; what lies farther off does not occlude.
const OCCLUSION_REACH = 0.1;

export function renderRecipe({ brief, scene, model, centre_m, neutral, webs, width, height }: RecipeInput): Recipe {
  const view = resolveViewpoint(scene, brief);
  const camera = recentreCamera(resolveCamera(view, width, height), centre_m);
  const light = adjustLight(neutral, brief);
  const ground = groundFor(brief, model, light, centre_m);
  const lit = lightModel(model, brief, camera.eye, centre_m, webs);
  const { quality, surroundings } = brief;
  const layers: FilmLayers = {
    groups: quality.layers ? groupLights(lit).names : [],
    aovs: quality.aovs ? { objects: partNames(lit), materials: lit.materials.map((m) => m.name) } : null
  };
  return {
    lit,
    layers,
    settings: {
      width,
      height,
      camera,
      light,
      layers: layers.groups.length,
      ground,
      bounces: quality.bounces,
      limits: pathLimits(quality),
      aovs: quality.aovs
        ? { ambient_occlusion_m: OCCLUSION_REACH * length(subtract(scene.bounds.max, scene.bounds.min)) }
        : null,
      firefly: 0,
      seed: 1,
      unmirrored: surroundings.kind === 'captured' && !surroundings.in_reflections,
      openBacks: brief.open_backs,
      section: sectionOf(brief, centre_m),
      indoors: false
    },
    exposure: exposureRule(brief),
    dark: isDark(light, lit)
  };
}

/** In the pack's coordinates, whose origin is `centre`. */
function sectionOf({ section }: Pick<Brief, 'section'>, centre: Vec3): RenderSettings['section'] {
  if (!section) return null;
  const normal = normalize(section.normal);
  return { normal, distance: dot(normal, subtract(section.point_m, centre)) };
}

function pathLimits(quality: BriefQuality): PathLimits {
  const { diffuse_bounces, specular_bounces, transmission_bounces, transparent_bounces, filter_px, emissive_lights } =
    quality;
  return { diffuse_bounces, specular_bounces, transmission_bounces, transparent_bounces, filter_px, emissive_lights };
}
