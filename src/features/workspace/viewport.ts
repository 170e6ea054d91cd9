/**
 * The model in three.js for moving about, inside the true frame of the picture: same eye, same lens, same proportion as
 * the kernel's camera. Light here is only to see by; the picture's light is the kernel's.
 */
import {
  AmbientLight,
  Box3,
  Color,
  DirectionalLight,
  DoubleSide,
  FrontSide,
  Group,
  type Intersection,
  type Material,
  EdgesGeometry,
  type BufferGeometry,
  LineBasicMaterial,
  LineSegments,
  Mesh,
  MeshStandardMaterial,
  type Object3D,
  type Texture,
  OrthographicCamera,
  PerspectiveCamera,
  Plane,
  PMREMGenerator,
  Raycaster,
  Scene,
  SRGBColorSpace,
  Vector3,
  WebGLRenderer
} from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import { RoomEnvironment } from 'three/examples/jsm/environments/RoomEnvironment.js';
import { createCameraFrame, rayThrough } from '../../core/camera/lens';
import type { FreeViewpoint } from '../../core/camera/viewpoint';
import type { Vec3 } from '../../core/math/vec3';
import { type Opening, openingAt } from '../../core/scene/opening';
import type { AssignedMaterial } from '../../core/scene/assign-materials';
import { isWithin } from '../../core/scene/part-paths';
import type { PlacedModel } from '../../core/scene/place-models';
import type { PosedPart } from '../../core/scene/pose';
import { createRandom } from '../../core/sampling/random';
import { spreadOver } from '../../core/scene/spread';
import { frameCamera } from './frame-camera';
import { movedByKey } from './key-moves';
import { smoothNormal, towardsViewer, trianglesInWorld } from './mesh-surface';
import type { DrawnModel } from './view';
import { loadModel, pathOf, PlacedObjects, poseObjects, showAlone, showCurves, wearMaterials } from './model-objects';

export interface ViewportEvents {
  /** The user begins to move; the picture on the stage gives way to the model. */
  onMove(): void;
  /** The user has moved to here. */
  onRest(view: FreeViewpoint, joins: boolean): void;
}

const STRIDE_M = 0.35;

/** How the model is posed and what is placed beside it. */
interface Arrangement {
  pose: readonly PosedPart[];
  placed: readonly PlacedModel[];
  /** Path of the part that alone is shown; null for all. */
  alone: string | null;
  /** Whether the model's curves are drawn. */
  curves: boolean;
  /** What materials of the file become. */
  materials: readonly AssignedMaterial[];
}

// Edges between faces that turn by more than this are drawn.
const EDGE_DEG = 28;
const EDGE_LAYER = 1;

export class Viewport implements DrawnModel {
  private readonly renderer: WebGLRenderer;
  private readonly scene = new Scene();
  private readonly sun = new DirectionalLight(0xffffff, 2.2);
  private readonly box = new Box3();
  private camera: PerspectiveCamera | OrthographicCamera = new PerspectiveCamera();
  private controls: OrbitControls | null = null;
  private view: FreeViewpoint | null = null;
  private pending = false;
  /** No graphics card: the model is drawn plainly, or a frame would take seconds. */
  readonly weak: boolean;
  private visible = false;
  private ended = false;
  private model: Object3D | null = null;
  /** The model and what is placed beside it. */
  private readonly root = new Group();
  private readonly pieces: PlacedObjects;
  private arrangement: Arrangement = { pose: [], placed: [], alone: null, curves: false, materials: [] };
  private readonly clay = new MeshStandardMaterial({ color: 0xd0d0d0, roughness: 0.9, side: DoubleSide });
  private readonly ink = new LineBasicMaterial({ color: 0x303030 });
  private readonly edges: LineSegments[] = [];
  private edgesWanted = false;
  private override: Material | null = null;
  private backsOpen = false;
  private section: Plane | null = null;

  constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly events: ViewportEvents
  ) {
    this.weak = drawsInSoftware();
    this.pieces = new PlacedObjects(this.weak, () => this.arrange());
    this.scene.add(this.root);
    this.renderer = new WebGLRenderer({ canvas, antialias: !this.weak, preserveDrawingBuffer: true });
    this.renderer.outputColorSpace = SRGBColorSpace;
    this.scene.background = new Color(0xd9d9d9);
    // without surroundings to light it the model needs more from everywhere
    this.scene.add(new AmbientLight(0xffffff, this.weak ? 1.6 : 0.7), this.sun);
    this.sun.position.set(-0.5, 1, 0.8);
    canvas.addEventListener('keydown', this.onKey);
  }

  async load(url: string): Promise<void> {
    const model = await loadModel(url, this.weak);
    if (this.ended) return;
    this.model = model;
    this.box.setFromObject(model, true);
    this.root.add(model);
    this.arrange();
    if (this.edgesWanted) this.drawEdges();
  }

  pose(arrangement: Arrangement): void {
    this.arrangement = arrangement;
    this.arrange();
  }

  private arrange(): void {
    if (!this.model) return;
    const { pose, placed, alone, curves, materials } = this.arrangement;
    poseObjects(this.model, pose);
    showCurves(this.model, curves);
    const pieces = this.pieces.stand(placed);
    for (const child of [...this.root.children])
      if (child !== this.model && !pieces.includes(child)) child.removeFromParent();
    for (const piece of pieces) if (piece.parent !== this.root) this.root.add(piece);
    wearMaterials(this.root, materials);
    showAlone(this.root, alone);
    this.sides();
    this.draw();
  }

  /** Whether what has a front alone is looked through from behind. */
  openBacks(open: boolean): void {
    this.backsOpen = open;
    this.sides();
    this.draw();
  }

  private sides(): void {
    this.root.traverse((object) => {
      if (!(object instanceof Mesh)) return;
      for (const material of ([] as Material[]).concat(object.material)) {
        material.side = this.backsOpen && material.userData.front_alone ? FrontSide : DoubleSide;
        material.needsUpdate = true;
      }
    });
  }

  /** What lies on the side of a plane that its normal points to is not drawn. */
  cut(section: { point_m: Vec3; normal: Vec3 } | null): void {
    this.section = section
      ? new Plane().setFromNormalAndCoplanarPoint(
          new Vector3(...section.normal).normalize().negate(),
          new Vector3(...section.point_m)
        )
      : null;
    this.renderer.clippingPlanes = this.section ? [this.section] : [];
    this.draw();
  }

  /** Sun for the raster view: direction towards it. */
  light(direction: Vec3 | null): void {
    this.sun.position.set(...(direction ?? ([-0.5, 1, 0.8] as const)));
    this.draw();
  }

  resize(width: number, height: number): void {
    if (width < 2 || height < 2) return;
    this.renderer.setPixelRatio(this.weak ? 0.5 : Math.min(devicePixelRatio, 2));
    this.renderer.setSize(width, height, false);
    this.frame();
    this.draw();
  }

  look(view: FreeViewpoint): void {
    this.view = view;
    const parallel = view.projection === 'parallel';
    if (parallel !== this.camera instanceof OrthographicCamera) {
      this.controls?.dispose();
      this.controls = null;
      this.camera = parallel ? new OrthographicCamera() : new PerspectiveCamera();
    }
    this.camera.position.set(...view.position_m);
    this.camera.up.set(...view.up);
    this.camera.lookAt(...view.target_m);
    this.frame();
    if (!this.controls) {
      this.controls = new OrbitControls(this.camera, this.canvas);
      this.controls.addEventListener('start', () => this.events.onMove());
      this.controls.addEventListener('change', () => this.draw());
      this.controls.addEventListener('end', () => this.rest(false));
    }
    this.controls.target.copy(this.pivot());
    this.controls.update();
    this.draw();
  }

  /** How the model is drawn: with its materials or in one, with its edges or without. */
  shade(shading: 'shaded' | 'clay', edges: boolean): void {
    this.override = shading === 'clay' ? this.clay : null;
    this.edgesWanted = edges;
    if (edges && this.model && this.edges.length === 0) this.drawEdges();
    this.draw();
  }

  private drawEdges(): void {
    const known = new Map<BufferGeometry, EdgesGeometry>();
    const meshes: Mesh[] = [];
    this.model!.traverse((object) => object instanceof Mesh && meshes.push(object));
    for (const mesh of meshes) {
      const edges = known.get(mesh.geometry) ?? new EdgesGeometry(mesh.geometry, EDGE_DEG);
      known.set(mesh.geometry, edges);
      const line = new LineSegments(edges, this.ink);
      line.layers.set(EDGE_LAYER);
      mesh.add(line);
      this.edges.push(line);
    }
  }

  /** What is hit first, with the direction of the look that hit it. */
  private hitAt(x: number, y: number): { hit: Intersection; along: Vector3 } | null {
    // they are brought up to date by drawing, and behind a picture nothing is drawn
    this.root.updateMatrixWorld(true);
    this.camera.updateMatrixWorld();
    const frame = createCameraFrame(this.viewNow(), this.aspect());
    if (!frame) return null;
    const { origin, way } = rayThrough(frame, x, y);
    const ray = new Raycaster(new Vector3(...origin), new Vector3(...way));
    const hit = ray
      .intersectObject(this.root, true)
      .find(
        ({ object, face, point }) =>
          face && object instanceof Mesh && object.visible && !(this.section && this.section.distanceToPoint(point) < 0)
      );
    return hit ? { hit, along: ray.ray.direction } : null;
  }

  /**
   * The model's surface under a place of the picture, whose corners are 0, 0 and 1, 1; its smooth normal, towards the
   * viewer. Null beside it.
   */
  pick(x: number, y: number): { point: Vec3; normal: Vec3 } | null {
    const found = this.hitAt(x, y);
    if (!found) return null;
    const { hit, along } = found;
    return {
      point: [hit.point.x, hit.point.y, hit.point.z],
      normal: towardsViewer(smoothNormal(hit.object as Mesh, hit), hit.object, along)
    };
  }

  /** The path of the part under a place of the picture; null beside the model. */
  pickPart(x: number, y: number): string | null {
    const found = this.hitAt(x, y);
    return found ? pathOf(found.hit.object) : null;
  }

  pickMaterial(x: number, y: number): { material: string; part: string } | null {
    const found = this.hitAt(x, y);
    const part = found && pathOf(found.hit.object);
    if (!found || part === null) return null;
    const { hit } = found;
    const material = ([] as Material[]).concat((hit.object as Mesh).material)[hit.face?.materialIndex ?? 0];
    return material ? { material: material.name, part } : null;
  }

  lowestOf(path: string): number | null {
    const box = new Box3();
    for (const mesh of this.meshesWithin(path)) box.expandByObject(mesh, true);
    return box.isEmpty() ? null : box.min.y;
  }

  placesOn(path: string, count: number, seed: number): Vec3[] {
    const corners: number[] = [];
    const at = new Vector3();
    for (const { geometry, matrixWorld } of this.meshesWithin(path)) {
      const { position } = geometry.attributes;
      const { index } = geometry;
      if (!position) continue;
      for (let i = 0; i < (index?.count ?? position.count); i++) {
        at.fromBufferAttribute(position, index ? index.getX(i) : i).applyMatrix4(matrixWorld);
        corners.push(at.x, at.y, at.z);
      }
    }
    return spreadOver(corners, count, createRandom(seed));
  }

  private meshesWithin(path: string): Mesh[] {
    this.root.updateMatrixWorld(true);
    const out: Mesh[] = [];
    this.model?.traverse((object) => {
      if (object instanceof Mesh && isWithin(pathOf(object) ?? '', path)) out.push(object);
    });
    return out;
  }

  /** The opening that the pane under a place of the picture fills; its normal towards the viewer. */
  pickOpening(x: number, y: number): Opening | null {
    const found = this.hitAt(x, y);
    const hit = found?.hit;
    if (!hit?.face || hit.faceIndex == null) return null;
    const mesh = hit.object as Mesh;
    const triangles = trianglesInWorld(mesh);
    if (!triangles) return null;
    const { positions, indices } = triangles;
    return openingAt(positions, indices, hit.faceIndex, towardsViewer(hit.face.normal.clone(), mesh, found!.along));
  }

  /** Gives everything back: a browser has few drawing contexts, and models are large. */
  dispose(): void {
    this.ended = true;
    this.pieces.dispose();
    this.canvas.removeEventListener('keydown', this.onKey);
    this.controls?.dispose();
    this.scene.traverse((object) => {
      if (!(object instanceof Mesh || object instanceof LineSegments)) return;
      object.geometry.dispose();
      for (const material of ([] as Material[]).concat(object.material)) {
        for (const value of Object.values(material)) {
          if (!(value as Texture | null)?.isTexture) continue;
          (value as Texture).dispose();
          ((value as Texture).image as { close?: () => void } | null)?.close?.();
        }
        material.dispose();
      }
    });
    this.scene.environment?.dispose();
    this.scene.clear();
    this.clay.dispose();
    this.ink.dispose();
    this.renderer.dispose();
    this.renderer.forceContextLoss();
  }

  /**
   * The point to turn about: on the view ray, beside the middle of the model, so that looking is not changed by turning
   * on.
   */
  private pivot(): Vector3 {
    const view = this.view!;
    const eye = new Vector3(...view.position_m);
    const way = new Vector3(...view.target_m).sub(eye);
    const given = way.length();
    way.normalize();
    if (this.box.isEmpty()) return new Vector3(...view.target_m);
    const size = this.box.getSize(new Vector3()).length();
    const along = this.box.getCenter(new Vector3()).sub(eye).dot(way);
    // a camera of a file has no target, only a direction one metre long
    const distance = Math.abs(given - 1) < 1e-6 ? Math.max(along, size * 0.15) : given;
    return eye.addScaledVector(way, distance);
  }

  private frame(): void {
    if (!this.view) return;
    const aspect = this.aspect();
    const reach = this.box.isEmpty() ? 100 : Math.max(this.box.getSize(new Vector3()).length() * 6, 1);
    this.camera.near = reach / 20000;
    this.camera.far = reach * 4;
    // zooming was taken into the viewpoint
    this.camera.zoom = 1;
    if (this.camera instanceof PerspectiveCamera) {
      this.camera.fov = (2 * Math.atan(this.view.sensor_height_mm / (2 * this.view.focal_length_mm)) * 180) / Math.PI;
      this.camera.aspect = aspect;
    } else {
      const eye = new Vector3(...this.view.position_m);
      const height =
        this.view.height_m ??
        (eye.distanceTo(new Vector3(...this.view.target_m)) * this.view.sensor_height_mm) / this.view.focal_length_mm;
      this.camera.top = height / 2;
      this.camera.bottom = -height / 2;
      this.camera.left = (-height / 2) * aspect;
      this.camera.right = (height / 2) * aspect;
    }
    this.camera.updateProjectionMatrix();
  }

  private aspect(): number {
    return this.canvas.clientWidth / Math.max(1, this.canvas.clientHeight);
  }

  /** The viewpoint where the controls have brought it. */
  private viewNow(): FreeViewpoint {
    const view = this.view!;
    if (!this.controls) return view;
    const { position } = this.camera;
    const { target } = this.controls;
    const height_m =
      this.camera instanceof OrthographicCamera
        ? (this.camera.top - this.camera.bottom) / this.camera.zoom
        : view.height_m;
    return {
      ...view,
      position_m: [position.x, position.y, position.z],
      target_m: [target.x, target.y, target.z],
      height_m
    };
  }

  private rest(joins: boolean): void {
    if (!this.view || !this.controls) return;
    const round = (v: number) => Math.round(v * 1e5) / 1e5;
    const rounded = (p: readonly [number, number, number]): [number, number, number] => [
      round(p[0]),
      round(p[1]),
      round(p[2])
    ];
    const now = this.viewNow();
    const view: FreeViewpoint = {
      ...now,
      position_m: rounded(now.position_m),
      target_m: rounded(now.target_m),
      height_m: now.height_m === null ? null : round(now.height_m)
    };
    this.view = view;
    this.events.onRest(view, joins);
  }

  private readonly onKey = (event: KeyboardEvent) => {
    if (!this.controls || event.ctrlKey || event.altKey || event.metaKey) return;
    const { position, up } = this.camera;
    const { target } = this.controls;
    // a stride in a house, less about a product
    const step_m = this.box.isEmpty() ? STRIDE_M : Math.min(STRIDE_M, this.box.getSize(new Vector3()).length() / 40);
    const moved = movedByKey(event, { position, target, up }, step_m);
    if (!moved) return;
    // letters mean something else elsewhere
    event.stopPropagation();
    event.preventDefault();
    this.events.onMove();
    position.copy(moved.position);
    target.copy(moved.target);
    this.camera.lookAt(target);
    this.controls.update();
    this.draw();
    this.rest(true);
  };

  /** Whether the model is to be seen; behind a proof it is not drawn at all, which a weak machine notices. */
  show(visible: boolean): void {
    this.visible = visible;
    if (!visible) return;
    if (!this.scene.environment && !this.weak) this.surround();
    this.draw();
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

  private draw(): void {
    if (this.pending || this.ended || !this.visible) return;
    this.pending = true;
    requestAnimationFrame(() => {
      this.pending = false;
      if (!this.ended) this.render();
    });
  }

  /** Surfaces, then edges over them: one material for all surfaces must not dye the edges. */
  private render(): void {
    const { scene, renderer } = this;
    const camera =
      (this.view && frameCamera(this.viewNow(), this.aspect(), this.camera.near, this.camera.far)) ?? this.camera;
    const { background } = scene;
    camera.layers.set(0);
    scene.overrideMaterial = this.override;
    renderer.render(scene, camera);
    if (!this.edgesWanted) return;
    camera.layers.set(EDGE_LAYER);
    scene.overrideMaterial = null;
    scene.background = null;
    renderer.autoClear = false;
    renderer.render(scene, camera);
    renderer.autoClear = true;
    scene.background = background;
  }
}

function drawsInSoftware(): boolean {
  const context = document.createElement('canvas').getContext('webgl2');
  const names = context?.getExtension('WEBGL_debug_renderer_info');
  const name = context && names ? String(context.getParameter(names.UNMASKED_RENDERER_WEBGL)) : '';
  context?.getExtension('WEBGL_lose_context')?.loseContext();
  return /swiftshader|llvmpipe|softpipe|software|basic render/i.test(name);
}
