// What goes before and behind the levels of the guided denoising filter (core/finishing/denoise/guided.ts says what it
// is and is its reference). Planes of f32 as smooth.ts has them. Called a few rows at a time, as there; `plane`, `from`
// and `to` in bytes where pixels are alike, in rows where their neighbours count.

/**
 * Pixels from byte `from` to `to` of a plane, in place: light over reflectance, its squared error (-1 when `blind`),
 * and guides from reflectance and normal as they were given.
 */
export function divideLight(
  light: usize,
  guides: usize,
  plane: usize,
  from: usize,
  to: usize,
  blind: bool,
  least: f32,
  reflectanceScale: f32,
  normalScale: f32
): void {
  const one = f32x4.splat(1);
  for (let at = from; at < to; at += 16) {
    let reflected = f32x4.splat(0);
    for (let c: usize = 0; c < 3; c++) {
      const l = light + c * plane + at,
        g = guides + c * plane + at,
        n = g + 3 * plane;
      const reflectance = f32x4.pmax(v128.load(g), f32x4.splat(least)),
        share: f32 = c === 0 ? 0.2126 : c === 1 ? 0.7152 : 0.0722;
      reflected = f32x4.add(reflected, f32x4.mul(reflectance, f32x4.splat(share)));
      v128.store(l, f32x4.div(v128.load(l), reflectance));
      v128.store(g, f32x4.mul(reflectance, f32x4.splat(reflectanceScale)));
      const normal = v128.load(n);
      v128.store(n, f32x4.mul(f32x4.sub(f32x4.add(normal, normal), one), f32x4.splat(normalScale)));
    }
    const e = light + 3 * plane + at;
    v128.store(e, blind ? f32x4.splat(-1) : f32x4.div(v128.load(e), f32x4.mul(reflected, reflected)));
  }
}

/**
 * A pixel more than `times` as bright as all but one around it is dimmed to that; `luminances` are what they were
 * before.
 */
export function despeckleRows(
  light: usize,
  luminances: usize,
  width: i32,
  height: i32,
  from: i32,
  to: i32,
  times: f32
): void {
  const plane = (<usize>(width * height)) << 2;
  for (let y = from; y < to; y++) {
    for (let x: i32 = 0; x < width; x++) {
      const i = (<usize>(y * width + x)) << 2,
        own = load<f32>(luminances + i);
      // two neighbours that come near it are enough, and mostly the first two do
      const near = own / times;
      let most: f32 = 0,
        second: f32 = 0;
      for (let v = max<i32>(0, y - 1), bottom = min<i32>(height - 1, y + 1); v <= bottom && second < near; v++) {
        for (let u = max<i32>(0, x - 1), right = min<i32>(width - 1, x + 1); u <= right; u++) {
          if (u === x && v === y) continue;
          const l = load<f32>(luminances + ((<usize>(v * width + u)) << 2));
          second = max<f32>(second, min<f32>(most, l));
          most = max<f32>(most, l);
        }
      }
      if (!(second < near)) continue;
      const k = (times * second) / own,
        l = light + i,
        e = l + 3 * plane;
      for (let c: usize = 0; c < 3; c++) store<f32>(l + c * plane, load<f32>(l + c * plane) * k);
      if (load<f32>(e) > 0) store<f32>(e, load<f32>(e) * k * k);
    }
  }
}

const ERROR_REACH: i32 = 3;

/** Means along rows of values, or of their squares, as f64. */
export function meanRows(values: usize, out: usize, width: i32, from: i32, to: i32, squared: bool): void {
  for (let y = from; y < to; y++) {
    for (let x: i32 = 0; x < width; x++) {
      const left = max<i32>(0, x - ERROR_REACH),
        right = min<i32>(width - 1, x + ERROR_REACH),
        row = y * width;
      let sum: f64 = 0;
      for (let u = left; u <= right; u++) {
        const v = <f64>load<f32>(values + ((<usize>(row + u)) << 2));
        sum += squared ? v * v : v;
      }
      store<f64>(out + ((<usize>(row + x)) << 3), sum / <f64>(right - left + 1));
    }
  }
}

// @ts-ignore: decorator
@inline
function meanColumn(rows: usize, x: i32, top: i32, bottom: i32, width: i32): f64 {
  let sum: f64 = 0;
  for (let v = top; v <= bottom; v++) sum += load<f64>(rows + ((<usize>(v * width + x)) << 3));
  return sum / <f64>(bottom - top + 1);
}

/**
 * Squared errors from the means of rows that meanRows made: their mean or, when there are `squares`, the spread about
 * it.
 */
export function errorRows(
  errors: usize,
  means: usize,
  squares: usize,
  width: i32,
  height: i32,
  from: i32,
  to: i32
): void {
  for (let y = from; y < to; y++) {
    const top = max<i32>(0, y - ERROR_REACH),
      bottom = min<i32>(height - 1, y + ERROR_REACH);
    for (let x: i32 = 0; x < width; x++) {
      let error = meanColumn(means, x, top, bottom, width);
      if (squares) error = max<f64>(0, meanColumn(squares, x, top, bottom, width) - error * error);
      store<f32>(errors + ((<usize>(y * width + x)) << 2), <f32>error);
    }
  }
}

/**
 * Six planes' means with their neighbours before and behind along rows (1) or columns (the width), weighted 1 2 1, from
 * `guides` to `out`.
 */
export function blurRows(guides: usize, out: usize, width: i32, height: i32, from: i32, to: i32, along: i32): void {
  const plane = (<usize>(width * height)) << 2,
    step = along << 2;
  for (let c: usize = 0; c < 6; c++) {
    for (let y = from; y < to; y++) {
      for (let x: i32 = 0; x < width; x++) {
        const i = c * plane + ((<usize>(y * width + x)) << 2),
          p = guides + i;
        const first = along === 1 ? x === 0 : y === 0,
          last = along === 1 ? x === width - 1 : y === height - 1;
        store<f32>(
          out + i,
          (load<f32>(first ? p : p - step) + 2 * load<f32>(p) + load<f32>(last ? p : p + step)) * <f32>0.25
        );
      }
    }
  }
}

/** Bytes from `from` to `to` of the three planes of light, in place, times the reflectance that the guides hold. */
export function multiplyLight(light: usize, guides: usize, from: usize, to: usize, reflectanceScale: f32): void {
  const k = f32x4.splat(<f32>1 / reflectanceScale);
  for (let at = from; at < to; at += 16)
    v128.store(light + at, f32x4.mul(v128.load(light + at), f32x4.mul(v128.load(guides + at), k)));
}
