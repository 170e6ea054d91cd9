/**
 * Blurs what a thin lens does not focus on. A point at depth z is spread over a disc whose radius is the lens's times
 * |1 / focus - 1 / z|, on the image plane at distance 1; each pixel gathers from the discs that reach it (after Potmesil and
 * Chakravarty 1981).
 */
import {
  type DepthTexture,
  Matrix4,
  type OrthographicCamera,
  type PerspectiveCamera,
  ShaderMaterial,
  type Texture,
  Vector2,
  type WebGLRenderer,
  type WebGLRenderTarget
} from 'three';
import { FullScreenQuad, Pass } from 'three/examples/jsm/postprocessing/Pass.js';
import type { CameraFrame } from '../../../core/camera/lens';

// Discs are no wider than this share of the picture's height.
const WIDEST = 0.04;

const VERTEX = `
varying vec2 place;
void main() { place = uv; gl_Position = vec4(position.xy, 0.0, 1.0); }`;

const FRAGMENT = `
uniform sampler2D picture;
uniform sampler2D depths;
uniform mat4 unproject;
uniform vec2 size_px;
uniform float disc_px;   // radius of the disc of what is endlessly far, for a focus at 1 m of depth
uniform float focus;
uniform float widest_px;
varying vec2 place;

float depthAt(vec2 at) {
  vec4 p = unproject * vec4(at * 2.0 - 1.0, texture2D(depths, at).x * 2.0 - 1.0, 1.0);
  return max(1e-4, -p.z / p.w);
}
float discAt(float depth) { return min(widest_px, disc_px * abs(1.0 / focus - 1.0 / depth)); }

void main() {
  float here = depthAt(place);
  float own = discAt(here);
  vec4 sum = texture2D(picture, place);
  float weight = 1.0 / max(1.0, own * own);
  sum *= weight;
  for (int i = 0; i < 72; i++) {
    float r = widest_px * sqrt((float(i) + 0.5) / 72.0);
    float angle = 2.399963 * float(i);
    vec2 at = place + r * vec2(cos(angle), sin(angle)) / size_px;
    float there = depthAt(at);
    float disc = discAt(there);
    // what lies behind does not spread over a sharp edge before it
    if (there > here) disc = min(disc, own);
    float w = clamp(disc - r + 1.0, 0.0, 1.0) / max(1.0, disc * disc);
    sum += w * texture2D(picture, at);
    weight += w;
  }
  gl_FragColor = sum / weight;
}`;

export class LensBlurPass extends Pass {
  private readonly material = new ShaderMaterial({
    uniforms: {
      picture: { value: null as Texture | null },
      depths: { value: null as Texture | null },
      unproject: { value: new Matrix4() },
      size_px: { value: new Vector2() },
      disc_px: { value: 0 },
      focus: { value: 1 },
      widest_px: { value: 1 }
    },
    vertexShader: VERTEX,
    fragmentShader: FRAGMENT
  });
  private readonly quad = new FullScreenQuad(this.material);

  see(
    frame: CameraFrame,
    camera: PerspectiveCamera | OrthographicCamera,
    depths: DepthTexture | Texture,
    size: Vector2
  ): void {
    const { uniforms } = this.material;
    uniforms.depths!.value = depths;
    uniforms.unproject!.value.copy(camera.projectionMatrixInverse);
    uniforms.size_px!.value.copy(size);
    uniforms.disc_px!.value = (frame.lensRadius * size.y) / (2 * frame.halfHeight);
    uniforms.focus!.value = frame.focus;
    uniforms.widest_px!.value = WIDEST * size.y;
  }

  override render(renderer: WebGLRenderer, writeBuffer: WebGLRenderTarget, readBuffer: WebGLRenderTarget): void {
    this.material.uniforms.picture!.value = readBuffer.texture;
    renderer.setRenderTarget(this.renderToScreen ? null : writeBuffer);
    this.quad.render(renderer);
  }

  override dispose(): void {
    this.material.dispose();
    this.quad.dispose();
  }
}
