// One level of the guided denoising filter (core/finishing/denoise/guided.ts says what it is and is its reference in double precision).
// Light, 16 bytes a pixel: r, g, b, squared standard error of its luminance. Guides, 32 bytes a pixel: reflectance 3 and normal 3, each
// scaled so that a squared difference of 1 weighs 1/e, then the luminance that pixels are compared by, then 0.
const LIGHT_BYTES: usize = 16;
const GUIDE_BYTES: usize = 32;
const LUMINANCE: usize = 24;

// @ts-ignore: decorator
@inline
function weight(k: i32, radius: i32): f32 {
  if (radius === 1) return k === 0 ? <f32>0.5 : <f32>0.25;
  return k === 0 ? <f32>0.375 : k === 1 || k === -1 ? <f32>0.25 : <f32>0.0625;
}

// @ts-ignore: decorator
@inline
function sumOf(v: v128): f32 {
  return f32x4.extract_lane(v, 0) + f32x4.extract_lane(v, 1) + (f32x4.extract_lane(v, 2) + f32x4.extract_lane(v, 3));
}

/** Writes the luminance that pixels are compared by into the guides: that of `known`, or 0 when it is 0. */
export function compareBy(known: usize, guides: usize, pixels: i32): void {
  for (let i: usize = 0; i < <usize>pixels; i++) {
    let luminance: f32 = 0;
    if (known) {
      const k = known + i * LIGHT_BYTES;
      luminance = <f32>0.2126 * load<f32>(k) + <f32>0.7152 * load<f32>(k, 4) + <f32>0.0722 * load<f32>(k, 8);
    }
    store<f32>(guides + i * GUIDE_BYTES, luminance, LUMINANCE);
  }
}

/**
 * Rows `from` to `to` - 1 of a level; called a few rows at a time, because V8 goes over to its better code only between calls. `known`: as
 * given to compareBy. `radius`: 1 for a binomial of 3 taps a side, 2 for the B3 spline of 5. `errors`, `lone`, `ease`: the constants of guided.ts.
 */
export function smoothRows(light: usize, known: usize, guides: usize, out: usize, width: i32, height: i32, from: i32, to: i32, step: i32, radius: i32, errors: f32, lone: f32, ease: f32): void {
  for (let y: i32 = from; y < to; y++) {
    const v0: i32 = max(-radius, -(y / step));
    const v1: i32 = min(radius, (height - 1 - y) / step);
    for (let x: i32 = 0; x < width; x++) {
      const u0: i32 = max(-radius, -(x / step));
      const u1: i32 = min(radius, (width - 1 - x) / step);
      const i: usize = <usize>y * <usize>width + <usize>x;
      const g = guides + i * GUIDE_BYTES;
      const near0 = v128.load(g);
      const near1 = v128.load(g, 16);
      const luminance = load<f32>(g, LUMINANCE);
      const perError: f32 = known ? <f32>1 / (errors * sqrt(load<f32>(known + i * LIGHT_BYTES, 12)) + <f32>1e-3 * luminance + <f32>1e-9) : <f32>0;
      let share: f32 = 1;
      let sum = f32x4.splat(0);
      let weights: f32 = 0;
      for (;;) {
        sum = f32x4.splat(0);
        weights = 0;
        for (let v = v0; v <= v1; v++) {
          let j: usize = <usize>(y + v * step) * <usize>width + <usize>(x + u0 * step);
          const across = weight(v, radius);
          for (let u = u0; u <= u1; u++) {
            const p = guides + j * GUIDE_BYTES;
            const d0 = f32x4.sub(v128.load(p), near0);
            const d1 = f32x4.sub(v128.load(p, 16), near1);
            const apart = f32x4.extract_lane(d1, 2);
            const even = f32x4.replace_lane(d1, 2, 0);
            const far = sumOf(f32x4.add(f32x4.mul(d0, d0), f32x4.mul(even, even))) * share + abs(apart) * perError;
            if (far < 4) {
              const near: f32 = <f32>1 - far * <f32>0.25;
              const square = near * near;
              const w = across * weight(u, radius) * square * square;
              weights += w;
              sum = f32x4.add(sum, f32x4.mul(v128.load(light + j * LIGHT_BYTES), f32x4.replace_lane(f32x4.splat(w), 3, w * w)));
            }
            j += <usize>step;
          }
        }
        if (step > 1 || share < 1 || weights > lone) break;
        share = ease;
      }
      const k: f32 = <f32>1 / weights;
      v128.store(out + i * LIGHT_BYTES, f32x4.mul(sum, f32x4.replace_lane(f32x4.splat(k), 3, k * k)));
    }
  }
}
