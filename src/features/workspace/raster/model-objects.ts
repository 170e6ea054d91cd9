/**
 * Models as three.js draws them: their materials made cheap enough to move about in, their parts known by the paths that
 * a brief names, posed and placed as the renderer does it (core/scene/pose.ts, core/scene/place-models.ts).
 */
import {
  Box3,
  Color,
  FrontSide,
  type Light,
  Line,
  type Material,
  Matrix4,
  Mesh,
  MeshLambertMaterial,
  type MeshStandardMaterial,
  type Object3D,
  type Texture
} from 'three';
import { type GLTF, GLTFLoader } from 'three/examples/jsm/loaders/GLTFLoader.js';
import { meanColor, parseSolidTexture } from '../../../core/materials/solid-texture';
import type { Affine } from '../../../core/math/affine';
import { type AssignedMaterial, byRule } from '../../../core/scene/assign-materials';
import { linearColor } from '../../../core/scene/change-material';
import { libraryColor, libraryMaterial } from '../../../core/scene/material-library';
import { isMeant, ruleFor } from '../../../core/scene/material-rule';
import { isWithin, PATH_JOINT, partPaths, WHOLE } from '../../../core/scene/part-paths';
import { PLACED_ROOT, type PlacedModel, placeMatrix } from '../../../core/scene/place-models';
import { isMoved, type PosedPart, poseMatrix } from '../../../core/scene/pose';
import { MATERIAL_DEFAULTS } from '../../../core/scene/scene';
import { isPieceKey } from '../../../core/catalogue/pieces';
import { layPicture } from './worn-picture';

/** Of an object that stands for a node of the file: its path, and its matrix as it came in. */
interface Place {
  path?: string;
  came?: Matrix4;
  /** Drawn, but for what is posed away. */
  drawn?: boolean;
  /** Posed away. */
  away?: boolean;
}
const placeOf = (object: Object3D): Place => object.userData as Place;

export async function loadModel(url: string, weak: boolean): Promise<Object3D> {
  const gltf = await new GLTFLoader().loadAsync(url);
  const { scene } = gltf;
  scene.traverse((object) => {
    if ((object as Light).isLight) object.visible = false;
    // it stands for a hole (formats/gltf/read-openings.ts)
    if (object.userData.opening === true)
      object.traverse((o) => {
        o.visible = false;
      });
    if (object instanceof Mesh) drawCheaply(object, weak);
    // curves are shown when the picture says their width
    if (object instanceof Line) object.visible = false;
  });
  namePlaces(gltf);
  return scene;
}

function drawCheaply(mesh: Mesh, weak: boolean): void {
  const materials = ([] as Material[]).concat(mesh.material);
  for (const material of materials) {
    const standard = material as MeshStandardMaterial & { transmission?: number };
    if ('emissiveIntensity' in standard) standard.emissiveIntensity = Math.min(standard.emissiveIntensity, 1);
    const solid = standard.userData.tinted ? null : parseSolidTexture(standard.userData.solid_texture);
    if (solid) standard.color.multiply(new Color(...meanColor(solid)));
    standard.userData.tinted = true;
    // a pane is a hint here: true transmission costs a second pass on every frame
    if (standard.transmission) {
      standard.transmission = 0;
      standard.transparent = true;
      standard.opacity = 0.14;
      standard.depthWrite = false;
    }
    material.userData.front_alone ??= material.side === FrontSide;
  }
  if (weak) mesh.material = materials.length === 1 ? plainly(materials[0]!) : materials.map(plainly);
}

/** Gives each object that stands for a node its path. */
function namePlaces({ scene, parser }: GLTF): void {
  const { json, associations } = parser as unknown as {
    json: {
      scene?: number;
      scenes?: { nodes?: number[] }[];
      nodes?: { name?: string; mesh?: number; children?: number[] }[];
      meshes?: { name?: string }[];
    };
    associations: Map<Object3D, { nodes?: number }>;
  };
  const outlines = (json.nodes ?? []).map((n) => ({
    name: n.name || (n.mesh === undefined ? '' : (json.meshes?.[n.mesh]?.name ?? '')),
    children: n.children ?? []
  }));
  const paths = partPaths(outlines, json.scenes?.[json.scene ?? 0]?.nodes ?? []);
  scene.updateMatrixWorld(true);
  scene.traverse((object) => {
    const node = associations.get(object)?.nodes;
    const place = placeOf(object);
    place.path = node === undefined ? undefined : paths.get(node);
    place.came = object.matrix.clone();
    place.drawn = object.visible;
    object.matrixAutoUpdate = false;
  });
  placeOf(scene).path = WHOLE;
}

/** Of the nearest node that has one. */
export function pathOf(object: Object3D): string | null {
  for (let at: Object3D | null = object; at; at = at.parent) {
    const { path } = placeOf(at);
    if (path !== undefined) return path;
  }
  return null;
}

const matrix4 = (m: Affine): Matrix4 =>
  new Matrix4().set(m[0], m[3], m[6], m[9], m[1], m[4], m[7], m[10], m[2], m[5], m[8], m[11], 0, 0, 0, 1);

/** Turns, moves and hides the parts of a model; what is not named stands as it came in. */
export function poseObjects(model: Object3D, pose: readonly PosedPart[]): void {
  const settings = new Map(pose.map((p) => [p.part, p]));
  const walk = (object: Object3D, aboveCame: Matrix4, hidden: boolean) => {
    const { path, came, drawn } = placeOf(object);
    // what the import puts round a model has the path of the whole too, and is not turned once more
    const isAgain = path === WHOLE && object !== model;
    const setting = path === undefined || isAgain ? undefined : settings.get(path);
    const local = came ?? new Matrix4();
    object.matrix.copy(local);
    if (setting && isMoved(setting)) {
      const move = aboveCame
        .clone()
        .invert()
        .multiply(matrix4(poseMatrix(setting)))
        .multiply(aboveCame);
      object.matrix.premultiply(move);
    }
    object.matrixWorldNeedsUpdate = true;
    const away = hidden || (setting !== undefined && setting.seen !== 'whole');
    placeOf(object).away = away;
    if (object instanceof Mesh) object.visible = drawn !== false && !away;
    const ownCame = aboveCame.clone().multiply(local);
    for (const child of object.children) walk(child, ownCame, away);
  };
  walk(model, new Matrix4(), false);
}

/**
 * Shows materials of the file as what they become, by their mean colour or the picture on them; others as they are. A part
 * with a material of its own gets a copy of it. `onShown`: a picture has come.
 */
export function wearMaterials(root: Object3D, rules: readonly AssignedMaterial[], onShown: () => void): void {
  const parts = rules.filter((r) => r.part !== null);
  root.traverse((object) => {
    if (!(object instanceof Mesh)) return;
    const path = parts.length > 0 ? pathOf(object) : null;
    const worn = ([] as Material[]).concat(object.material).map((one) => {
      const shared = (one.userData.shared as Material | undefined) ?? one;
      const rule = path === null ? null : parts.find((r) => isMeant(r.material, one.name) && isWithin(path, r.part!));
      const material = rule ? copyFor(shared, rule.part!) : shared;
      const worn = ruleFor(rules, { name: one.name, ...(rule ? { part: rule.part! } : {}) });
      wear(material as MeshStandardMaterial, worn);
      layPicture(material, worn?.texture ?? null, object.geometry, onShown);
      return material;
    });
    object.material = Array.isArray(object.material) ? worn : worn[0]!;
  });
}

/** One for each part: kept with the material that is shared. */
function copyFor(shared: Material, part: string): Material {
  shared.userData.copies ??= new Map<string, Material>();
  const copies = shared.userData.copies as Map<string, Material>;
  const known = copies.get(part);
  if (known) return known;
  const copy = shared.clone();
  // a clone's data is a copy without maps and materials
  const { own } = shared.userData as { own?: Own };
  copy.userData = { ...shared.userData, copies: undefined, shared, own: own && { ...own } };
  copies.set(part, copy);
  return copy;
}

function wear(material: MeshStandardMaterial, rule: AssignedMaterial | null): void {
  if (!material.color) return;
  material.userData.own ??= { color: material.color.clone(), map: material.map };
  const own = material.userData.own as Own;
  material.color.copy(rule ? wornColor(rule, own.color) : own.color);
  const map = rule && (rule.becomes !== null || rule.texture?.color) ? null : own.map;
  if (material.map !== map) material.needsUpdate = true;
  material.map = map;
}

function wornColor(rule: AssignedMaterial, own: Color): Color {
  // the picture is the colour
  if (rule.texture?.color) return new Color(1, 1, 1);
  if (rule.becomes !== null && libraryMaterial(rule.becomes))
    return new Color(...libraryColor(byRule(MATERIAL_DEFAULTS, rule, { textures: [] })));
  return rule.change?.color ? new Color(...linearColor(rule.change.color)) : own;
}
interface Own {
  color: Color;
  map: Texture | null;
}

/** Shows the model's curves, or hides them. */
export function showCurves(model: Object3D, shown: boolean): void {
  model.traverse((object) => {
    const { came, away } = placeOf(object);
    if (object instanceof Line && came) object.visible = shown && !away;
  });
}

/** Shows one part alone; what is posed away stays so. */
export function showAlone(root: Object3D, alone: string | null): void {
  if (alone === null) return;
  root.traverse((object) => {
    if (object instanceof Mesh && !isWithin(pathOf(object) ?? '', alone)) object.visible = false;
  });
}

const urlOf = (model: string) => (isPieceKey(model) ? `/api/pieces/${model}` : `/api/models/${model}`);

/** What is placed beside the model: each file is loaded once. */
export class PlacedObjects {
  private readonly models = new Map<string, { object: Object3D; box: Box3 } | 'loading' | 'missing'>();
  private readonly standing = new Map<string, Object3D>();
  private ended = false;

  /** `onLoaded`: one that was missing can be shown now. */
  constructor(
    private readonly weak: boolean,
    private readonly onLoaded: () => void
  ) {}

  /** The objects that are there now; what is still loading follows. */
  stand(placed: readonly PlacedModel[]): Object3D[] {
    const out: Object3D[] = [];
    const used = new Set<string>();
    placed
      .filter(({ seen }) => seen !== 'out')
      .forEach((piece, i) => {
        const model = this.models.get(piece.model);
        if (model === undefined) void this.load(piece.model);
        if (typeof model !== 'object') return;
        const key = `${i} ${piece.model}`;
        used.add(key);
        const object = this.standing.get(key) ?? model.object.clone();
        this.standing.set(key, object);
        const { min, max } = model.box;
        object.matrixAutoUpdate = false;
        object.matrix.copy(matrix4(placeMatrix(piece, { min: [min.x, min.y, min.z], max: [max.x, max.y, max.z] })));
        object.matrixWorldNeedsUpdate = true;
        const path = `${PLACED_ROOT}${PATH_JOINT}${i + 1} ${piece.name}`;
        object.traverse((o) => {
          o.userData = { ...o.userData, path: o === object ? path : undefined };
          if (o instanceof Mesh) o.visible = piece.seen === 'whole' && placeOf(o).drawn !== false;
        });
        out.push(object);
      });
    for (const key of [...this.standing.keys()]) if (!used.has(key)) this.standing.delete(key);
    return out;
  }

  dispose(): void {
    this.ended = true;
    for (const model of this.models.values()) {
      if (typeof model !== 'object') continue;
      model.object.traverse((object) => {
        if (!(object instanceof Mesh)) return;
        object.geometry.dispose();
        for (const material of ([] as Material[]).concat(object.material)) material.dispose();
      });
    }
    this.standing.clear();
  }

  private async load(model: string): Promise<void> {
    this.models.set(model, 'loading');
    const object = await loadModel(urlOf(model), this.weak).catch(() => null);
    if (this.ended) return;
    this.models.set(model, object ? { object, box: new Box3().setFromObject(object, true) } : 'missing');
    this.onLoaded();
  }
}

const plain = new WeakMap<Material, MeshLambertMaterial>();

/** A material that costs little to draw: colour, picture and cut-outs. */
function plainly(material: Material): Material {
  const known = plain.get(material);
  if (known) return known;
  const { color, map, emissive, metalness } = material as MeshStandardMaterial;
  const { transparent, opacity, alphaTest, depthWrite, side } = material;
  const made = new MeshLambertMaterial({
    name: material.name,
    map: map ?? null,
    transparent,
    opacity,
    alphaTest,
    depthWrite,
    side,
    vertexColors: (material as MeshStandardMaterial).vertexColors
  });
  // metal has no colour of its own kind here; a little darker tells it apart
  made.userData.front_alone = material.userData.front_alone;
  if (color) made.color.copy(color).multiplyScalar(1 - 0.3 * (metalness ?? 0));
  if (emissive) made.emissive.copy(emissive).multiplyScalar((material as MeshStandardMaterial).emissiveIntensity);
  plain.set(material, made);
  return made;
}
