/** Outlines where one body ends before another: round bodies have no edges of their own there. */
import {
  DepthTexture,
  Matrix4,
  type OrthographicCamera,
  type PerspectiveCamera,
  type Scene,
  ShaderMaterial,
  Vector2,
  type WebGLRenderer,
  WebGLRenderTarget
} from 'three';
import { FullScreenQuad } from 'three/examples/jsm/postprocessing/Pass.js';

const VERTEX = `
varying vec2 place;
void main() { place = uv; gl_Position = vec4(position.xy, 0.0, 1.0); }`;

// A plane has depths whose inverses lie on a line across the picture; where three do not, something ends.
const FRAGMENT = `
uniform sampler2D depths;
uniform mat4 unproject;
uniform vec2 pixel;
uniform bool parallel;
varying vec2 place;

float flatAt(vec2 at) {
  vec4 p = unproject * vec4(at * 2.0 - 1.0, texture2D(depths, at).x * 2.0 - 1.0, 1.0);
  float depth = max(1e-5, -p.z / p.w);
  return parallel ? depth : 1.0 / depth;
}
float bend(vec2 at, vec2 step) {
  float here = flatAt(at);
  return abs(flatAt(at + step) + flatAt(at - step) - 2.0 * here) / max(here, 1e-9);
}
float inkAt(vec2 at) {
  float most = max(bend(at, vec2(pixel.x, 0.0)), bend(at, vec2(0.0, pixel.y)));
  return smoothstep(0.02, 0.06, most);
}
void main() {
  float ink = inkAt(place);
  // grass and leaves end everywhere: where most of what is around is ink too, it is drawn thin
  float around = 0.0;
  for (int i = 0; i < 8; i++) {
    float angle = 0.7853982 * float(i) + 0.39;
    around += inkAt(place + 4.0 * pixel * vec2(cos(angle), sin(angle)));
  }
  gl_FragColor = vec4(vec3(0.03), ink * (1.0 - 0.85 * smoothstep(2.5, 4.5, around)));
}`;

export class Silhouettes {
  private readonly target = new WebGLRenderTarget(1, 1, { depthTexture: new DepthTexture(1, 1) });
  private readonly material = new ShaderMaterial({
    uniforms: {
      depths: { value: this.target.depthTexture },
      unproject: { value: new Matrix4() },
      pixel: { value: new Vector2() },
      parallel: { value: false }
    },
    vertexShader: VERTEX,
    fragmentShader: FRAGMENT,
    transparent: true,
    depthTest: false,
    depthWrite: false
  });
  private readonly quad = new FullScreenQuad(this.material);

  /** Over what has been drawn. */
  draw(renderer: WebGLRenderer, scene: Scene, camera: PerspectiveCamera | OrthographicCamera, parallel: boolean): void {
    const size = renderer.getDrawingBufferSize(new Vector2());
    this.target.setSize(size.x, size.y);
    renderer.setRenderTarget(this.target);
    renderer.render(scene, camera);
    renderer.setRenderTarget(null);
    const { uniforms } = this.material;
    uniforms.unproject!.value.copy(camera.projectionMatrixInverse);
    uniforms.pixel!.value.set(1 / size.x, 1 / size.y);
    uniforms.parallel!.value = parallel;
    renderer.autoClear = false;
    this.quad.render(renderer);
    renderer.autoClear = true;
  }

  dispose(): void {
    this.target.depthTexture?.dispose();
    this.target.dispose();
    this.material.dispose();
    this.quad.dispose();
  }
}
