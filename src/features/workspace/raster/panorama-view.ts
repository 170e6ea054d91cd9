/**
 * A panorama of the model: the six sides of a cube around the eye, laid out so that places in the picture are longitude and
 * latitude, as core/camera/lens.ts has them.
 */
import {
  type Camera,
  CubeCamera,
  HalfFloatType,
  LinearFilter,
  Matrix3,
  type Scene,
  ShaderMaterial,
  Vector2,
  Vector3,
  WebGLCubeRenderTarget,
  type WebGLRenderer
} from 'three';
import { FullScreenQuad } from 'three/examples/jsm/postprocessing/Pass.js';
import type { CameraFrame } from '../../../core/camera/lens';

const SIDE_PX = { weak: 384, strong: 1024 };

const VERTEX = `
varying vec2 place;
void main() { place = uv * 2.0 - 1.0; gl_Position = vec4(position.xy, 0.0, 1.0); }`;

const FRAGMENT = `
uniform samplerCube sides;
uniform mat3 axes;      // right, up and forward of the camera
uniform vec2 half_size; // radians
uniform vec2 shift;     // in half sizes
varying vec2 place;
void main() {
  vec2 angle = (place + shift) * half_size;
  vec3 way = axes * vec3(sin(angle.x) * cos(angle.y), sin(angle.y), cos(angle.x) * cos(angle.y));
  gl_FragColor = vec4(textureCube(sides, way).rgb, 1.0);
  #include <tonemapping_fragment>
  #include <colorspace_fragment>
}`;

export class PanoramaView {
  private readonly target: WebGLCubeRenderTarget;
  private readonly material = new ShaderMaterial({
    uniforms: {
      sides: { value: null as unknown },
      axes: { value: new Matrix3() },
      half_size: { value: new Vector2() },
      shift: { value: new Vector2() }
    },
    vertexShader: VERTEX,
    fragmentShader: FRAGMENT,
    depthTest: false,
    depthWrite: false
  });
  private readonly quad = new FullScreenQuad(this.material);

  constructor(weak: boolean) {
    const side = weak ? SIDE_PX.weak : SIDE_PX.strong;
    this.target = new WebGLCubeRenderTarget(side, { type: HalfFloatType, minFilter: LinearFilter });
  }

  /** `like`: a camera whose layers and depths are seen. `lit`: brightened as the renderer is told to. */
  draw(
    renderer: WebGLRenderer,
    scene: Scene,
    frame: CameraFrame,
    like: Camera & { near: number; far: number },
    lit: boolean
  ): void {
    if (this.material.toneMapped !== lit) Object.assign(this.material, { toneMapped: lit, needsUpdate: true });
    const cube = new CubeCamera(like.near, like.far, this.target);
    // all six look with it
    cube.layers.mask = like.layers.mask;
    cube.position.copy(new Vector3(...frame.eye));
    cube.update(renderer, scene);
    const { uniforms } = this.material;
    const [r, u, f] = [frame.right, frame.up, frame.forward];
    uniforms.sides!.value = this.target.texture;
    uniforms.axes!.value.set(r[0], u[0], f[0], r[1], u[1], f[1], r[2], u[2], f[2]);
    uniforms.half_size!.value.set(frame.halfWidth, frame.halfHeight);
    uniforms.shift!.value.set(...frame.shift);
    this.quad.render(renderer);
  }

  dispose(): void {
    this.target.dispose();
    this.material.dispose();
    this.quad.dispose();
  }
}
