/** Draws where the lens is sharp: what lies before or behind is veiled, and its two limits and the focus are lines. */
import { DoubleSide, ShaderMaterial } from 'three';

/** Depths along the look, m; `far` may be endless. */
export interface ZoneLimits {
  near: number;
  focus: number;
  far: number;
}

const VERTEX = `
#include <common>
#include <clipping_planes_pars_vertex>
varying float depth;
void main() {
  #include <begin_vertex>
  #include <project_vertex>
  #include <clipping_planes_vertex>
  depth = -mvPosition.z;
}`;

const FRAGMENT = `
#include <common>
#include <clipping_planes_pars_fragment>
uniform float near;
uniform float focus;
uniform float far;
varying float depth;

float line(float at, float px) {
  return 1.0 - smoothstep(px - 0.5, px + 0.5, abs(depth - at) / max(fwidth(depth), 1e-7));
}

void main() {
  #include <clipping_planes_fragment>
  float outside = depth < near || depth > far ? 1.0 : 0.0;
  vec4 veil = vec4(1.0, 1.0, 1.0, 0.62 * outside);
  float limit = max(line(near, 1.2), line(far, 1.2));
  vec4 colour = mix(veil, vec4(0.0, 0.0, 0.0, 0.85), limit);
  colour = mix(colour, vec4(0.72, 0.05, 0.1, 1.0), line(focus, 1.0));
  gl_FragColor = colour;
}`;

// Further than anything in a model, and still a number to a graphics card.
const ENDLESS_M = 1e30;

export class SharpZoneMaterial extends ShaderMaterial {
  constructor() {
    super({
      uniforms: { near: { value: 0 }, focus: { value: 1 }, far: { value: 1 } },
      vertexShader: VERTEX,
      fragmentShader: FRAGMENT,
      side: DoubleSide,
      clipping: true,
      transparent: true
    });
  }

  set({ near, focus, far }: ZoneLimits): void {
    this.uniforms.near!.value = near;
    this.uniforms.focus!.value = focus;
    this.uniforms.far!.value = Number.isFinite(far) ? far : ENDLESS_M;
  }
}
