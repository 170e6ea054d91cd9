/**
 * Draws the model in the ways that one chooses on the stage: shaded, in plain colours, in clay or as lines with what is
 * hidden left out. With a graphics card, or on request, with the sun's shadow, darker corners and the blur of the lens.
 */
import {
  AmbientLight,
  type BufferGeometry,
  Color,
  DirectionalLight,
  DoubleSide,
  EdgesGeometry,
  type Group,
  LinearToneMapping,
  LineBasicMaterial,
  LineSegments,
  type Material,
  Mesh,
  MeshBasicMaterial,
  MeshStandardMaterial,
  type Object3D,
  type OrthographicCamera,
  PCFShadowMap,
  type PerspectiveCamera,
  PlaneGeometry,
  PMREMGenerator,
  Scene,
  ShadowMaterial,
  Vector2,
  Vector3,
  type WebGLRenderer,
  WebGLRenderTarget
} from 'three';
import { RoomEnvironment } from 'three/examples/jsm/environments/RoomEnvironment.js';
import type { CameraFrame } from '../../../core/camera/lens';
import type { Vec3 } from '../../../core/math/vec3';
import { brightnessRatio } from './brightness';
import { DepthPasses } from './depth-passes';
import { PanoramaView } from './panorama-view';
import { Silhouettes } from './silhouettes';
import { SharpZoneMaterial, type ZoneLimits } from './sharp-zone';

export const SHADINGS = ['shaded', 'plain', 'clay', 'lines'] as const;
export type Shading = (typeof SHADINGS)[number];

/** What the model is drawn like. */
export interface RasterLook {
  shading: Shading;
  edges: boolean;
  /** Shadows, contact shading and the blur of the lens. */
  depth: boolean;
  /** Height of an endless ground that takes the shadow, m; null for none. */
  ground_m: number | null;
}

type DrawingCamera = PerspectiveCamera | OrthographicCamera;

const BACKGROUND = new Color(0xd9d9d9);
const PAPER = new Color(0xffffff);
const EDGE_LAYER = 1;
// Edges between faces that turn by more than this are drawn.
const EDGE_DEG = 28;
// Edges shorter than this on average would only blacken what they outline, as far foliage.
const SHORTEST_EDGE_PX = 8;
// A mesh of so many edges, and so many to a triangle, is loose blades and leaves: their outlines would be a black mass.
const LOOSE = { edges: 20_000, perTriangle: 1.2 };
/** Surfaces are drawn a little behind their own edges. */
const BEHIND_EDGES = { polygonOffset: true, polygonOffsetFactor: 1, polygonOffsetUnits: 1 };
const SHADOW_PX = 2048;
// Corners are darkened so far around, of the radius of what is looked at, and no further than in a room.
const CONTACT_SHARE = 0.06;
const CONTACT_M = 0.35;
const BRIGHTNESS_PX = { width: 64, height: 36 };
const MOST_STOPS = 3;

export class ModelDrawing {
  private readonly scene = new Scene();
  private readonly sun = new DirectionalLight(0xffffff, 2.2);
  private readonly ambient: AmbientLight;
  private readonly clay = new MeshStandardMaterial({ color: 0xd0d0d0, roughness: 0.9, side: DoubleSide });
  private readonly paper = new MeshBasicMaterial({
    color: PAPER,
    side: DoubleSide,
    toneMapped: false,
    ...BEHIND_EDGES
  });
  private readonly unseen = new MeshBasicMaterial({ visible: false });
  private readonly ink = new LineBasicMaterial({ color: 0x303030, toneMapped: false });
  private readonly floor = new Mesh(new PlaneGeometry(1, 1), new ShadowMaterial({ opacity: 0.28 }));
  /** What is outlined, by its lines. */
  private readonly outlines = new Map<LineSegments, Mesh>();
  private readonly edgesOf = new Map<BufferGeometry, EdgesGeometry>();
  private readonly plain = new Map<Material, MeshBasicMaterial>();
  private readonly background = new Color();
  private passes: DepthPasses | null = null;
  private panorama: PanoramaView | null = null;
  private silhouettes: Silhouettes | null = null;
  private readonly zone = new SharpZoneMaterial();
  private towardsSun: Vec3 = [-0.5, 1, 0.8];
  private around: { middle: Vector3; radius: number } | null = null;
  private look: RasterLook = { shading: 'shaded', edges: false, depth: false, ground_m: null };

  constructor(
    private readonly renderer: WebGLRenderer,
    private readonly root: Group,
    /** No graphics card: drawn with as little as possible unless more is asked for. */
    private readonly weak: boolean
  ) {
    this.scene.add(root, this.sun, this.sun.target, this.floor);
    // without surroundings to light it the model needs more from everywhere
    this.ambient = new AmbientLight(0xffffff, weak ? 1.6 : 0.7);
    this.scene.add(this.ambient);
    this.floor.rotation.x = -Math.PI / 2;
    this.floor.receiveShadow = true;
    renderer.shadowMap.type = PCFShadowMap;
    renderer.shadowMap.autoUpdate = false;
    renderer.toneMapping = LinearToneMapping;
    this.sun.shadow.mapSize.set(SHADOW_PX, SHADOW_PX);
  }

  wear(look: RasterLook): void {
    this.look = look;
    this.renderer.shadowMap.enabled = look.depth;
    this.sun.castShadow = look.depth;
    this.floor.visible = look.depth && look.ground_m !== null;
    this.floor.position.y = look.ground_m ?? 0;
    this.changed();
  }

  /** Parts have moved, come or gone. */
  changed(): void {
    if (this.look.depth) this.root.traverse(casts);
    if (this.wantsEdges) this.drawEdges();
    this.renderer.shadowMap.needsUpdate = true;
  }

  /** Direction towards the sun; null for light from beside the camera's left. */
  light(direction: Vec3 | null): void {
    this.towardsSun = direction ?? [-0.5, 1, 0.8];
    this.aimSun();
  }

  /** What is looked at: shadows are drawn there. Metres. */
  lookAt(middle: Vector3, radius: number): void {
    this.around = { middle: middle.clone(), radius };
    this.aimSun();
  }

  private aimSun(): void {
    const { middle, radius } = this.around ?? { middle: new Vector3(), radius: 10 };
    this.sun.target.position.copy(middle);
    this.sun.position.copy(middle).addScaledVector(new Vector3(...this.towardsSun).normalize(), radius * 4);
    const { camera } = this.sun.shadow;
    camera.left = camera.bottom = -radius;
    camera.right = camera.top = radius;
    camera.near = radius * 0.1;
    camera.far = radius * 8;
    camera.updateProjectionMatrix();
    // a texel of the map is so wide; lifted by it, a surface does not shade itself
    this.sun.shadow.normalBias = ((2 * radius) / SHADOW_PX) * 1.5;
    this.floor.scale.setScalar(radius * 8);
    this.floor.position.x = middle.x;
    this.floor.position.z = middle.z;
    this.renderer.shadowMap.needsUpdate = true;
  }

  private get wantsEdges(): boolean {
    return this.look.edges || this.look.shading === 'lines';
  }

  private drawEdges(): void {
    const meshes: Mesh[] = [];
    const outlined = new Set(this.outlines.values());
    this.root.traverse((object) => object instanceof Mesh && !outlined.has(object) && meshes.push(object));
    for (const mesh of meshes) {
      const edges = this.edgesOf.get(mesh.geometry) ?? new EdgesGeometry(mesh.geometry, EDGE_DEG);
      this.edgesOf.set(mesh.geometry, edges);
      if (isLoose(mesh.geometry, edges)) continue;
      const line = new LineSegments(edges, this.ink);
      line.layers.set(EDGE_LAYER);
      mesh.add(line);
      this.outlines.set(line, mesh);
    }
  }

  /** Leaves out outlines whose edges are too short to be told apart from here. */
  private thinOut({ eye, parallel, halfHeight }: CameraFrame): void {
    const px = this.renderer.getDrawingBufferSize(new Vector2()).y / (2 * halfHeight);
    const from = new Vector3(...eye);
    for (const [line, { matrixWorld, geometry }] of this.outlines) {
      geometry.boundingSphere ?? geometry.computeBoundingSphere();
      const ball = geometry.boundingSphere!.clone().applyMatrix4(matrixWorld);
      const length = meanLength(line.geometry) * matrixWorld.getMaxScaleOnAxis();
      const distance = parallel ? 1 : Math.max(from.distanceTo(ball.center) - ball.radius, ball.radius * 0.1);
      line.visible = (length / distance) * px >= SHORTEST_EDGE_PX;
    }
  }

  /** Draws what a camera sees; `frame` is the same camera as the renderer has it. */
  draw(camera: DrawingCamera, frame: CameraFrame): void {
    camera.layers.set(0);
    if (this.wantsEdges) {
      camera.layers.enable(EDGE_LAYER);
      this.root.updateMatrixWorld(true);
      this.thinOut(frame);
    }
    if (!this.scene.environment && !this.weak) this.surround();
    const lit = this.look.shading === 'shaded' || this.look.shading === 'clay';
    const deep = this.look.depth && lit && !frame.panorama;
    // what passes draw is brightened as a whole, and the background is to stay as it is
    const asAWhole = deep || (lit && frame.panorama);
    this.background.copy(BACKGROUND).multiplyScalar(asAWhole ? 1 / this.renderer.toneMappingExposure : 1);
    this.scene.background = this.look.shading === 'lines' ? PAPER : this.background;
    this.dressed(() => {
      if (frame.panorama) {
        this.panorama ??= new PanoramaView(this.weak);
        this.panorama.draw(this.renderer, this.scene, frame, camera, lit);
      } else if (deep) this.drawDeep(camera, frame);
      else this.renderer.render(this.scene, camera);
      if (this.look.shading !== 'lines' || frame.panorama) return;
      camera.layers.set(0);
      this.silhouettes ??= new Silhouettes();
      this.silhouettes.draw(this.renderer, this.scene, camera, frame.parallel);
    });
  }

  private drawDeep(camera: DrawingCamera, frame: CameraFrame): void {
    const size = this.renderer.getDrawingBufferSize(new Vector2());
    if (this.passes && this.passes.parallel !== frame.parallel) this.passes.dispose();
    if (!this.passes || this.passes.parallel !== frame.parallel)
      this.passes = new DepthPasses(this.renderer, this.scene, camera, size, frame.parallel);
    const reach = Math.min(CONTACT_M, (this.around?.radius ?? 1) * CONTACT_SHARE);
    this.passes.draw(camera, frame, size, reach);
  }

  /**
   * Where it is sharp, over what is on the stage already: what lies outside is veiled, where it begins and ends is a line.
   * Alone, the rest is clear.
   */
  drawZone(camera: DrawingCamera, limits: ZoneLimits, alone: boolean): void {
    const { scene, renderer, zone } = this;
    camera.layers.set(0);
    zone.set(limits);
    const { background, overrideMaterial } = scene;
    // one looks through panes, and the zone lies on the ground too
    const panes: Object3D[] = [];
    this.root.traverse((object) => {
      if (object instanceof Mesh && object.visible && isPane(object)) panes.push(object);
    });
    for (const pane of panes) pane.visible = false;
    const floorSeen = this.floor.visible;
    this.floor.visible = this.look.ground_m !== null;
    scene.background = null;
    scene.overrideMaterial = zone;
    renderer.autoClear = false;
    if (alone) this.clear();
    else renderer.clearDepth();
    // depths first, so that what lies behind is not veiled too
    zone.colorWrite = false;
    renderer.render(scene, camera);
    zone.colorWrite = true;
    renderer.render(scene, camera);
    renderer.autoClear = true;
    Object.assign(scene, { background, overrideMaterial });
    this.floor.visible = floorSeen;
    for (const pane of panes) pane.visible = true;
  }

  clear(): void {
    this.renderer.setClearColor(0x000000, 0);
    this.renderer.clear();
  }

  /**
   * Draws as bright as a picture of the same view is: by the mean luminance of what the model covers in both, within three
   * stops.
   */
  matchBrightness(camera: DrawingCamera, seen: HTMLCanvasElement | HTMLImageElement): void {
    // one that is still being loaded shows nothing
    if ((seen instanceof HTMLImageElement ? seen.naturalWidth : seen.width) === 0) return;
    const { width, height } = BRIGHTNESS_PX;
    const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true });
    if (!context) return;
    context.drawImage(seen, 0, 0, width, height);
    const picture = context.getImageData(0, 0, width, height).data;
    const { renderer, scene } = this;
    const target = new WebGLRenderTarget(width, height);
    const { background } = scene;
    scene.background = null;
    renderer.setClearColor(0x000000, 0);
    camera.layers.set(0);
    renderer.setRenderTarget(target);
    renderer.render(scene, camera);
    renderer.setRenderTarget(null);
    scene.background = background;
    const own = new Uint8Array(width * height * 4);
    renderer.readRenderTargetPixels(target, 0, 0, width, height, own);
    target.dispose();
    const ratio = brightnessRatio(picture, own, width, height);
    if (ratio !== null) renderer.toneMappingExposure = Math.min(2 ** MOST_STOPS, Math.max(2 ** -MOST_STOPS, ratio));
  }

  /** Draws in the materials of the look, and gives the model its own back. */
  private dressed(draw: () => void): void {
    const { shading } = this.look;
    if (shading === 'shaded') {
      draw();
      return;
    }
    const own: [Mesh, Material | Material[]][] = [];
    this.root.traverse((object) => {
      if (!(object instanceof Mesh)) return;
      own.push([object, object.material]);
      const cover = (material: Material) => this.cover(material, shading);
      object.material = Array.isArray(object.material) ? object.material.map(cover) : cover(object.material);
    });
    draw();
    for (const [mesh, material] of own) mesh.material = material;
  }

  private cover(material: Material, shading: Exclude<Shading, 'shaded'>): Material {
    if (shading === 'clay') return this.clay;
    // through a pane one looks at the lines behind it
    if (shading === 'lines') return material.transparent ? this.unseen : this.paper;
    const { color, map } = material as MeshStandardMaterial;
    const made = this.plain.get(material) ?? new MeshBasicMaterial();
    this.plain.set(material, made);
    const { transparent, opacity, alphaTest, depthWrite, side } = material;
    if (made.map !== (map ?? null)) made.needsUpdate = true;
    Object.assign(made, { transparent, opacity, alphaTest, depthWrite, side, map: map ?? null, toneMapped: false });
    if (color) made.color.copy(color);
    return made;
  }

  /**
   * Something for metal to mirror; filtering it takes seconds without a graphics card, so it waits until it is wanted.
   */
  private surround(): void {
    const maker = new PMREMGenerator(this.renderer);
    this.scene.environment = maker.fromScene(new RoomEnvironment(), 0.04).texture;
    this.scene.environmentIntensity = 0.5;
    maker.dispose();
  }

  dispose(): void {
    this.passes?.dispose();
    this.panorama?.dispose();
    this.silhouettes?.dispose();
    this.scene.environment?.dispose();
    this.floor.geometry.dispose();
    for (const material of [this.clay, this.paper, this.unseen, this.ink, this.zone, this.floor.material])
      (material as Material).dispose();
    for (const material of this.plain.values()) material.dispose();
    for (const edges of this.edgesOf.values()) edges.dispose();
    this.scene.clear();
  }
}

function isLoose({ index, attributes }: BufferGeometry, lines: BufferGeometry): boolean {
  const triangles = (index?.count ?? attributes.position?.count ?? 0) / 3;
  const edges = (lines.attributes.position?.count ?? 0) / 2;
  return edges > LOOSE.edges && edges > LOOSE.perTriangle * triangles;
}

const lengths = new WeakMap<BufferGeometry, number>();
/** Of the segments of lines, in their own unit. */
function meanLength(lines: BufferGeometry): number {
  const known = lengths.get(lines);
  if (known !== undefined) return known;
  const { position } = lines.attributes;
  const [a, b] = [new Vector3(), new Vector3()];
  let sum = 0;
  for (let i = 0; i + 1 < position!.count; i += 2)
    sum += a.fromBufferAttribute(position!, i).distanceTo(b.fromBufferAttribute(position!, i + 1));
  const mean = sum / Math.max(1, position!.count / 2);
  lengths.set(lines, mean);
  return mean;
}

const isPane = (mesh: Mesh): boolean =>
  ([] as Material[]).concat(mesh.material).every((material) => material.transparent);

/** Panes cast none: the sun comes in through them. */
const casts = (object: unknown): void => {
  if (!(object instanceof Mesh)) return;
  object.castShadow = !isPane(object);
  object.receiveShadow = true;
};
