/** The model as a brief has it: what lies in its pack, and what is lit around it. */
import { arrangementOf, type Brief, type SetAside, setAsideOf } from '../brief/brief';
import type { FreeViewpoint } from '../camera/viewpoint';
import { levelIrradiance } from '../lights/ground/irradiance';
import { buildStudio } from '../lights/studio/studio';
import type { SurroundingsLight } from '../lights/surroundings-light';
import { subtract, type Vec3 } from '../math/vec3';
import type { Webs } from '../scene/added-lamps';
import { assignMaterials } from '../scene/assign-materials';
import { inClay } from '../scene/clay';
import { dimLamps } from '../scene/dim-lamps';
import { drawCurves } from '../scene/draw-curves';
import { addSet, type LitScene } from '../scene/lit-scene';
import { polishLabels, putLabels } from '../scene/labels';
import type { OpenFrame } from '../scene/opening';
import { inPlain } from '../scene/plain-materials';
import { placeModels } from '../scene/place-models';
import { poseScene } from '../scene/pose';
import { centreFor, recentreScene } from '../scene/recentre';
import { MATERIAL_DEFAULTS, type Scene, type SceneTexture } from '../scene/scene';
import { setAside, slimDown } from '../scene/set-aside';
import type { MeshReducer } from '../scene/slim-copy';
import { seesSurroundings } from './light';
import type { GroundSettings } from './render-settings';
import { type PackedRule, packedRules, packSurfaces, type ReadPicture } from './surfaces';

/** All that decides a scene pack beside the model: where its origin lies, how it is posed, what is left out or slim. */
export interface PackInput extends Omit<SetAside, 'plain'> {
  centre_m: Vec3;
  /** Not there where nothing is posed. */
  pose?: Brief['pose'];
  /** Not there where nothing is placed. */
  placed?: Brief['placed'];
  /** Not there where curves are not drawn. */
  curves_mm?: Brief['curves_mm'];
  /** Not there where materials are the rig's alone. */
  surfaces?: PackedRule[];
  /** Not there where there are none. */
  labels?: Brief['labels'];
}

/** How what goes into a pack is found beside the model. */
export interface PackSources {
  /** Called when there is something to simplify. */
  openReducer: () => Promise<MeshReducer>;
  /** A piece or another model. Throws a RangeError when it is not there. */
  readPiece: (model: string) => Promise<Scene>;
  /** A texture made of pictures. Throws a RangeError when one is not there. */
  readPicture: ReadPicture;
}

export function packInput(view: FreeViewpoint, brief: Brief): PackInput {
  // materials are no part of a pack
  const { plain: _plain, ...objects } = setAsideOf(brief);
  const labels = brief.labels.filter((l) => l.shown).map((l) => ({ ...l, shine: 0 }));
  return {
    centre_m: centreFor(view.position_m),
    ...arrangementOf(brief),
    ...packedRules(brief),
    ...(labels.length > 0 ? { labels } : {}),
    ...objects
  };
}

/** The model as it goes into a pack. */
export async function packedModel(
  scene: Scene,
  { centre_m, pose = [], placed = [], curves_mm = null, surfaces = [], labels = [], aside = [], slim = [] }: PackInput,
  { openReducer, readPiece, readPicture }: PackSources
): Promise<Scene> {
  const pieces = new Map<string, Scene>();
  for (const { model } of placed) if (!pieces.has(model)) pieces.set(model, await readPiece(model));
  const prints = new Map<string, SceneTexture>();
  for (const { file } of labels)
    if (!prints.has(file)) prints.set(file, await readPicture({ kind: 'color', color: file }));
  // labels go with the parts that they lie on
  const labelled = putLabels(drawCurves(scene, curves_mm), labels, prints);
  const placedModel = placeModels(poseScene(labelled, pose), placed, pieces);
  const dressed = surfaces.length > 0 ? await packSurfaces(placedModel, surfaces, readPicture) : placedModel;
  const left = setAside(dressed, aside);
  return recentreScene(slim.length > 0 ? slimDown(left, slim, await openReducer()) : left, centre_m);
}

/**
 * A model with all that a brief sets round it, for the rig; `webs` are the photometric files of its lamps. A studio
 * adds its lamps and its paper, which a ground takes the place of. `eye` in the plain model's coordinates, whose origin
 * is `centre`.
 */
export function lightModel(own: Scene, brief: Brief, eye: Vec3, centre: Vec3, webs: Webs): LitScene {
  const lamps = {
    ...brief.lamps,
    added: brief.lamps.added.map((l) => ({
      ...l,
      position_m: [...subtract(l.position_m, centre)] as [number, number, number]
    }))
  };
  const assigned = assignMaterials(polishLabels(own, brief.labels), brief.materials);
  const plain = inPlain(assigned, setAsideOf(brief).plain ?? []);
  const dimmed = dimLamps(brief.look.kind === 'clay' ? inClay(plain, brief.look) : plain, lamps, webs);
  const model = { ...dimmed, openings: openingsOf(plain, brief, centre) };
  if (brief.surroundings.kind !== 'studio') return addSet(model, []);
  const { min, max } = model.bounds;
  const distance = Math.hypot(eye[0] - (min[0] + max[0]) / 2, eye[1] - min[1], eye[2] - (min[2] + max[2]) / 2);
  // rounded up in steps, so that small moves of the camera keep the studio as it is
  const cameraDistance = 2 ** (Math.ceil(Math.log2(Math.max(distance, 1e-3)) * 2) / 2);
  const { papers, paper, lights } = buildStudio(brief.surroundings, model.bounds, cameraDistance);
  const material = {
    ...MATERIAL_DEFAULTS,
    name: 'studio paper',
    baseColor: [...paper, 1] as [number, number, number, number],
    roughness: 0.9,
    ior: 1.3,
    twoSided: true
  };
  return addSet(
    model,
    brief.ground.kind === 'none' ? papers.map((p) => ({ ...p, material })) : [],
    seesSurroundings(brief) ? lights : []
  );
}

/** Of the model and of the brief, in the plain model's coordinates. */
export const openingsOf = (plain: Pick<Scene, 'openings'>, brief: Brief, centre: Vec3): OpenFrame[] => [
  ...(plain.openings ?? []),
  ...brief.openings.map((o) => ({ ...o, middle_m: subtract(o.middle_m, centre) }))
];

/** The ground of a brief under a model that lies in pack coordinates, whose origin is `centre`. */
export function groundFor(
  { ground }: Brief,
  model: Pick<Scene, 'bounds'>,
  light: SurroundingsLight,
  centre: Vec3
): GroundSettings | null {
  if (ground.kind === 'none') return null;
  const { min, max } = model.bounds;
  const across = Math.hypot(max[0] - min[0], max[2] - min[2]);
  const end = ground.reach * Math.max(across, max[1] - min[1], 1e-3);
  return {
    height_m: ground.height_m === null ? min[1] : ground.height_m - centre[1],
    middle_m: [(min[0] + max[0]) / 2, (min[2] + max[2]) / 2],
    fade_m: [FULL_GROUND * end, end],
    polish: ground.polish,
    roughness: ground.roughness,
    irradiance: levelIrradiance(light)
  };
}

// Of its reach, how far a ground is there in full.
const FULL_GROUND = 0.4;
