// One level of the guided denoising filter (core/finishing/denoise/guided.ts says what it is and is its reference in
// double precision), four pixels of a row at a time. Planes of f32, row by row, widths multiples of 4. Light: r, g, b,
// squared standard error of its luminance. Guides: reflectance 3 and normal 3, each scaled so that a squared difference
// of 1 weighs 1/e, then the luminance that pixels are compared by. Taps beyond a row's ends are masked out, their light
// too (nothing times no number is no number), so what is read there needs only to be memory: 32 floats before the first
// plane and behind the last.
const GUIDE_PLANES: usize = 6;

// @ts-ignore: decorator
@inline
function weight(k: i32, radius: i32): f32 {
  if (radius === 1) return k === 0 ? <f32>0.5 : <f32>0.25;
  return k === 0 ? <f32>0.375 : k === 1 || k === -1 ? <f32>0.25 : <f32>0.0625;
}

/** Writes the luminance that pixels are compared by into the guides: that of `known`, or 0 when it is 0. */
export function compareBy(known: usize, guides: usize, pixels: i32): void {
  const plane = (<usize>pixels) << 2;
  const out = guides + GUIDE_PLANES * plane;
  if (!known) memory.fill(out, 0, plane);
  else {
    for (let at: usize = 0; at < plane; at += 16) {
      const k = known + at;
      v128.store(
        out + at,
        f32x4.add(
          f32x4.add(f32x4.mul(v128.load(k), f32x4.splat(0.2126)), f32x4.mul(v128.load(k + plane), f32x4.splat(0.7152))),
          f32x4.mul(v128.load(k + 2 * plane), f32x4.splat(0.0722))
        )
      );
    }
  }
}

// @ts-ignore: decorator
@inline
function squaredStep(guides: usize, near: v128): v128 {
  const d = f32x4.sub(v128.load(guides), near);
  return f32x4.mul(d, d);
}

/**
 * Rows `from` to `to` - 1 of a level; called a few rows at a time, because V8 goes over to its better code only between
 * calls. `known`: as given to compareBy. `radius`: 1 for a binomial of 3 taps a side, 2 for the B3 spline of 5.
 * `errors`, `lone`, `ease`: the constants of guided.ts.
 */
export function smoothRows(
  light: usize,
  known: usize,
  guides: usize,
  out: usize,
  width: i32,
  height: i32,
  from: i32,
  to: i32,
  step: i32,
  radius: i32,
  errors: f32,
  lone: f32,
  ease: f32
): void {
  const p1: usize = (<usize>width * <usize>height) << 2,
    p2: usize = 2 * p1,
    p3: usize = 3 * p1,
    p4: usize = 4 * p1,
    p5: usize = 5 * p1,
    p6: usize = 6 * p1;
  const zero = f32x4.splat(0),
    one = f32x4.splat(1),
    four = f32x4.splat(4),
    quarter = f32x4.splat(0.25);
  const last = i32x4.splat(width - 1),
    lanes = i32x4(0, 1, 2, 3);
  for (let y: i32 = from; y < to; y++) {
    const v0: i32 = max(-radius, -(y / step));
    const v1: i32 = min(radius, (height - 1 - y) / step);
    for (let x: i32 = 0; x < width; x += 4) {
      const i = (<usize>(y * width + x)) << 2,
        g = guides + i;
      const n0 = v128.load(g),
        n1 = v128.load(g + p1),
        n2 = v128.load(g + p2),
        n3 = v128.load(g + p3),
        n4 = v128.load(g + p4),
        n5 = v128.load(g + p5),
        luminance = v128.load(g + p6);
      const perError = known
        ? f32x4.div(
            one,
            f32x4.add(
              f32x4.add(
                f32x4.mul(f32x4.splat(errors), f32x4.sqrt(v128.load(known + i + p3))),
                f32x4.mul(f32x4.splat(1e-3), luminance)
              ),
              f32x4.splat(1e-9)
            )
          )
        : zero;
      let r = zero,
        g1 = zero,
        b = zero,
        e = zero,
        weights = zero;
      // again, with guides that count less, for pixels that are alone
      let share: f32 = 1,
        again = i32x4.splat(-1);
      for (;;) {
        let sumR = zero,
          sumG = zero,
          sumB = zero,
          sumE = zero,
          sum = zero;
        for (let v = v0; v <= v1; v++) {
          const across = weight(v, radius);
          for (let u = -radius; u <= radius; u++) {
            const column = x + u * step,
              j = (<usize>((y + v * step) * width + column)) << 2,
              p = guides + j;
            let far = f32x4.add(
              f32x4.add(
                f32x4.add(squaredStep(p, n0), squaredStep(p + p1, n1)),
                f32x4.add(squaredStep(p + p2, n2), squaredStep(p + p3, n3))
              ),
              f32x4.add(squaredStep(p + p4, n4), squaredStep(p + p5, n5))
            );
            far = f32x4.add(
              f32x4.mul(far, f32x4.splat(share)),
              f32x4.mul(f32x4.abs(f32x4.sub(v128.load(p + p6), luminance)), perError)
            );
            let counts = f32x4.lt(far, four);
            if (column < 0 || column + 3 >= width) {
              const at = i32x4.add(i32x4.splat(column), lanes);
              counts = v128.and(counts, v128.andnot(i32x4.le_s(at, last), i32x4.lt_s(at, i32x4.splat(0))));
            }
            const near = f32x4.sub(one, f32x4.mul(far, quarter)),
              square = f32x4.mul(near, near);
            const w = v128.and(f32x4.mul(f32x4.splat(across * weight(u, radius)), f32x4.mul(square, square)), counts);
            const l = light + j;
            sum = f32x4.add(sum, w);
            sumR = f32x4.add(sumR, f32x4.mul(w, v128.and(v128.load(l), counts)));
            sumG = f32x4.add(sumG, f32x4.mul(w, v128.and(v128.load(l + p1), counts)));
            sumB = f32x4.add(sumB, f32x4.mul(w, v128.and(v128.load(l + p2), counts)));
            sumE = f32x4.add(sumE, f32x4.mul(f32x4.mul(w, w), v128.and(v128.load(l + p3), counts)));
          }
        }
        r = v128.bitselect(sumR, r, again);
        g1 = v128.bitselect(sumG, g1, again);
        b = v128.bitselect(sumB, b, again);
        e = v128.bitselect(sumE, e, again);
        weights = v128.bitselect(sum, weights, again);
        if (step > 1 || share < 1) break;
        again = f32x4.le(sum, f32x4.splat(lone));
        if (!v128.any_true(again)) break;
        share = ease;
      }
      const k = f32x4.div(one, weights),
        o = out + i;
      v128.store(o, f32x4.mul(r, k));
      v128.store(o + p1, f32x4.mul(g1, k));
      v128.store(o + p2, f32x4.mul(b, k));
      v128.store(o + p3, f32x4.mul(e, f32x4.mul(k, k)));
    }
  }
}
