/** Passes over a drawing that let one see depth: corners are darker, and what is out of focus is blurred. */
import type { OrthographicCamera, PerspectiveCamera, Scene, Vector2, WebGLRenderer } from 'three';
import { EffectComposer } from 'three/examples/jsm/postprocessing/EffectComposer.js';
import { GTAOPass } from 'three/examples/jsm/postprocessing/GTAOPass.js';
import { OutputPass } from 'three/examples/jsm/postprocessing/OutputPass.js';
import { RenderPass } from 'three/examples/jsm/postprocessing/RenderPass.js';
import type { CameraFrame } from '../../../core/camera/lens';
import { LensBlurPass } from './lens-blur';

// Samples a pixel: edges are smooth.
const SAMPLES = 4;
// Share of the light that a closed corner loses.
const DARKEST = 0.65;

export class DepthPasses {
  private readonly composer: EffectComposer;
  private readonly surfaces: RenderPass;
  private readonly contact: GTAOPass;
  private readonly blur = new LensBlurPass();
  private width = 0;
  private height = 0;

  constructor(
    renderer: WebGLRenderer,
    scene: Scene,
    camera: PerspectiveCamera | OrthographicCamera,
    size: Vector2,
    /** Its shaders are made for one kind of camera. */
    readonly parallel: boolean
  ) {
    this.composer = new EffectComposer(renderer);
    // the canvas has its pixels already
    this.composer.setPixelRatio(1);
    for (const target of [this.composer.renderTarget1, this.composer.renderTarget2]) target.samples = SAMPLES;
    this.surfaces = new RenderPass(scene, camera);
    this.contact = new GTAOPass(scene, camera, size.x, size.y);
    this.contact.blendIntensity = DARKEST;
    for (const pass of [this.surfaces, this.contact, this.blur, new OutputPass()]) this.composer.addPass(pass);
  }

  /** `reach`: how far around itself a place looks for what darkens it, m. */
  draw(camera: PerspectiveCamera | OrthographicCamera, frame: CameraFrame, size: Vector2, reach: number): void {
    if (size.x !== this.width || size.y !== this.height) {
      this.composer.setSize(size.x, size.y);
      [this.width, this.height] = [size.x, size.y];
    }
    this.surfaces.camera = camera;
    this.contact.camera = camera;
    this.contact.updateGtaoMaterial({ radius: reach, thickness: reach });
    this.blur.enabled = frame.lensRadius > 0;
    this.blur.see(frame, camera, this.contact.depthTexture, size);
    this.composer.render();
  }

  dispose(): void {
    for (const pass of this.composer.passes) pass.dispose();
    this.composer.dispose();
  }
}
