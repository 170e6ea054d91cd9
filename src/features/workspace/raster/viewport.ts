/**
 * The model in three.js for moving about, inside the true frame of the picture: same eye, same lens, same proportion as
 * the kernel's camera. Light here is only to see by; the picture's light is the kernel's.
 */
import {
  Box3,
  DoubleSide,
  FrontSide,
  Group,
  type Material,
  Mesh,
  type Object3D,
  OrthographicCamera,
  PerspectiveCamera,
  Plane,
  SRGBColorSpace,
  type Texture,
  Vector3,
  WebGLRenderer
} from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import { createCameraFrame } from '../../../core/camera/lens';
import type { FreeViewpoint } from '../../../core/camera/viewpoint';
import type { Vec3 } from '../../../core/math/vec3';
import type { AssignedMaterial } from '../../../core/scene/assign-materials';
import type { PlacedModel } from '../../../core/scene/place-models';
import type { PosedPart } from '../../../core/scene/pose';
import { movedByKey } from '../key-moves';
import { frameCamera } from './frame-camera';
import { ModelDrawing, type RasterLook } from './model-drawing';
import { loadModel, PlacedObjects, poseObjects, showAlone, showCurves, wearMaterials } from './model-objects';
import { ModelReadings } from './readings';
import type { ZoneLimits } from './sharp-zone';

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

/** How the stage asks for the model: with the height of its ground where it has one, or at the model's foot. */
export interface StageLook extends Omit<RasterLook, 'depth' | 'ground_m'> {
  /** Null: as the machine allows. */
  depth: boolean | null;
  ground: number | 'foot' | null;
}

export class Viewport {
  private readonly renderer: WebGLRenderer;
  private readonly drawing: ModelDrawing;
  readonly readings: ModelReadings;
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
  private whenLoaded: (() => void)[] = [];
  /** The model and what is placed beside it. */
  private readonly root = new Group();
  private readonly pieces: PlacedObjects;
  private arrangement: Arrangement = { pose: [], placed: [], alone: null, curves: false, materials: [] };
  private stageLook: StageLook = { shading: 'shaded', edges: false, depth: null, ground: null };
  private zone: ZoneLimits | null = null;
  private backsOpen = false;
  private section: Plane | null = null;

  constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly events: ViewportEvents
  ) {
    this.weak = drawsInSoftware();
    this.pieces = new PlacedObjects(this.weak, () => this.arrange());
    this.renderer = new WebGLRenderer({ canvas, antialias: !this.weak, alpha: true, preserveDrawingBuffer: true });
    this.renderer.outputColorSpace = SRGBColorSpace;
    this.drawing = new ModelDrawing(this.renderer, this.root, this.weak);
    this.readings = new ModelReadings(
      this.root,
      () => this.view && createCameraFrame(this.viewNow(), this.aspect()),
      () => this.section
    );
    canvas.addEventListener('keydown', this.onKey);
  }

  async load(url: string): Promise<void> {
    const model = await loadModel(url, this.weak);
    if (this.ended) return;
    this.model = model;
    this.box.setFromObject(model, true);
    this.root.add(model);
    this.arrange();
    this.wear();
    this.aimLight();
    for (const act of this.whenLoaded.splice(0)) act();
  }

  /** Does something with the model, at once or when it is there. */
  afterLoading(act: () => void): void {
    if (this.model) act();
    else this.whenLoaded.push(act);
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
    wearMaterials(this.root, materials, () => this.draw());
    showAlone(this.root, alone);
    this.sides();
    this.drawing.changed();
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
    this.drawing.light(direction);
    this.draw();
  }

  resize(width: number, height: number): void {
    if (width < 2 || height < 2) return;
    this.sharpen();
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
    this.aimLight();
    this.draw();
  }

  /** How the model is drawn. */
  shade(look: StageLook): void {
    this.stageLook = look;
    this.wear();
    this.draw();
  }

  /** Half the pixels on a weak machine, unless lines or shadows were asked for: they need them all. */
  private sharpen(): void {
    const { shading, depth } = this.stageLook;
    const half = this.weak && shading !== 'lines' && depth !== true;
    const ratio = half ? 0.5 : Math.min(devicePixelRatio, 2);
    if (ratio !== this.renderer.getPixelRatio()) this.renderer.setPixelRatio(ratio);
  }

  private wear(): void {
    this.sharpen();
    const { ground, depth, ...look } = this.stageLook;
    const foot = this.box.isEmpty() ? null : this.box.min.y;
    this.drawing.wear({ ...look, depth: depth ?? !this.weak, ground_m: ground === 'foot' ? foot : ground });
  }

  /** Where the lens is sharp, over the model or over the picture that is seen; null for nowhere. */
  markZone(zone: ZoneLimits | null): void {
    this.zone = zone;
    // it lay over a picture that is drawn by others
    if (!zone && !this.visible) this.drawing.clear();
    this.draw();
  }

  /** Draws the model as bright as a picture of the same view. */
  matchBrightness(seen: HTMLCanvasElement | HTMLImageElement): void {
    const camera = this.cameraNow();
    if (this.view?.projection !== 'panorama') this.drawing.matchBrightness(camera, seen);
  }

  /** Shadows fall where one looks: around what is turned about, no further than the model goes. */
  private aimLight(): void {
    if (!this.view || this.box.isEmpty()) return;
    const middle = this.pivot();
    const whole = this.box.getSize(new Vector3()).length() / 2 + middle.distanceTo(this.box.getCenter(new Vector3()));
    const far = 2 * middle.distanceTo(new Vector3(...this.view.position_m));
    this.drawing.lookAt(middle, Math.max(1e-3, Math.min(whole, far)));
  }

  /** Gives everything back: a browser has few drawing contexts, and models are large. */
  dispose(): void {
    this.ended = true;
    this.pieces.dispose();
    this.canvas.removeEventListener('keydown', this.onKey);
    this.controls?.dispose();
    this.root.traverse((object) => {
      if (!(object instanceof Mesh)) return;
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
    this.drawing.dispose();
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
    this.aimLight();
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
    this.draw();
  }

  private draw(): void {
    if (this.pending || this.ended || !(this.visible || this.zone)) return;
    this.pending = true;
    requestAnimationFrame(() => {
      this.pending = false;
      if (!this.ended) this.render();
    });
  }

  /** The camera as the renderer has it. */
  private cameraNow(): PerspectiveCamera | OrthographicCamera {
    const { near, far } = this.camera;
    return (this.view && frameCamera(this.viewNow(), this.aspect(), near, far)) ?? this.camera;
  }

  private render(): void {
    const frame = this.view && createCameraFrame(this.viewNow(), this.aspect());
    if (!frame) return;
    const camera = this.cameraNow();
    if (this.visible) this.drawing.draw(camera, frame);
    if (this.zone) this.drawing.drawZone(camera, this.zone, !this.visible);
  }
}

function drawsInSoftware(): boolean {
  const context = document.createElement('canvas').getContext('webgl2');
  const names = context?.getExtension('WEBGL_debug_renderer_info');
  const name = context && names ? String(context.getParameter(names.UNMASKED_RENDERER_WEBGL)) : '';
  context?.getExtension('WEBGL_lose_context')?.loseContext();
  return /swiftshader|llvmpipe|softpipe|software|basic render/i.test(name);
}
