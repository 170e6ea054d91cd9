/** The demo's surfaces. Reflectances are linear; each is our own invention, none is measured. */
import { cell, fractal } from '../noise';
import { blend, dim, type Paint, paint, type PaintedTexture } from './paint';

type Rgb = readonly [number, number, number];

/** Grain along u. Spans 2.4 x 0.6 m. */
export function wood(tone: Rgb, seed: number): PaintedTexture {
  return paint(1024, 256, 2.4, 0.6, (x, y): Paint => {
    const bend = fractal(x, y, 3, 2, 3, seed) * 0.12;
    const rings = 0.5 + 0.5 * Math.sin(2 * Math.PI * (y * 11 + bend * 22 + fractal(x, y, 2, 9, 2, seed + 5) * 1.6));
    const fibre = fractal(x, y, 10, 128, 3, seed + 9);
    const k = 0.72 + 0.24 * rings + 0.34 * (fibre - 0.5) + 0.2 * (fractal(x, y, 3, 4, 3, seed + 20) - 0.5);
    return {
      color: blend(dim(tone, k), [tone[0] * k * 1.05, tone[1] * k, tone[2] * k * 0.86], rings),
      roughness: 0.44 + 0.2 * fibre
    };
  });
}

/** Oak boards 0.16 m wide along u; spans 3.2 x 3.2 m. */
export function boards(tone: Rgb, seed: number): PaintedTexture {
  const rows = 20;
  return paint(1280, 1280, 3.2, 3.2, (x, y): Paint => {
    const row = Math.floor(y * rows);
    const shift = cell(row, 1, seed);
    const joints = 2;
    const along = (x + shift) * joints;
    const board = ((Math.floor(along) % joints) + joints) % joints;
    const tint = cell(row, board, seed + 3);
    const grain = fractal((x + tint) % 1, y, 12, rows * 12, 3, seed + Math.floor(tint * 50));
    const rings =
      0.5 + 0.5 * Math.sin(2 * Math.PI * (y * rows * 2.3 + fractal(x, y, 5, 20, 3, seed + 8) * 2.2 + tint * 7));
    const fy = Math.abs(y * rows - row - 0.5);
    const fx = Math.abs(along - Math.floor(along) - 0.5);
    const gap = fy > 0.487 || fx > 0.4985;
    const k = (0.76 + 0.36 * tint) * (0.78 + 0.16 * rings + 0.28 * grain) * (gap ? 0.34 : 1);
    return {
      color: blend(dim(tone, k), [tone[0] * k, tone[1] * k * 0.94, tone[2] * k * 0.85], tint),
      roughness: gap ? 0.9 : 0.34 + 0.2 * grain,
      height: gap ? -0.0012 : 0.0002 * grain
    };
  });
}

/** Coursed rubble: rows of blocks 0.21 m high; spans 2.52 x 2.52 m. */
export function masonry(tone: Rgb, seed: number): PaintedTexture {
  const rows = 12;
  return paint(1024, 1024, 2.52, 2.52, (x, y): Paint => {
    const row = Math.floor(y * rows);
    const count = 5 + Math.floor(cell(row, 3, seed) * 3);
    const at = (x + cell(row, 5, seed)) * count;
    const block = ((Math.floor(at) % count) + count) % count;
    const wobble = 0.03 * (fractal(x, y, 24, 24, 2, seed + 4) - 0.5);
    const fy = Math.abs(y * rows - row - 0.5) + wobble;
    const fx = (Math.abs(at - Math.floor(at) - 0.5) + wobble) * (rows / count);
    const edge = Math.max(fy - 0.5, fx - 0.5 * (rows / count));
    const mortar = Math.min(1, Math.max(0, (edge + 0.05) / 0.035));
    const tint = cell(row, block, seed + 6);
    const rough = fractal(x, y, 40, 40, 4, seed + 11);
    const k = (0.66 + 0.5 * tint) * (0.74 + 0.5 * rough);
    return {
      color: blend(
        blend(dim(tone, k), [tone[0] * k * 1.06, tone[1] * k, tone[2] * k * 0.9], cell(row, block, seed + 9)),
        dim(tone, 0.5),
        mortar
      ),
      roughness: 0.86,
      height: -0.012 * mortar + 0.006 * rough
    };
  });
}

/** Weathered copper sheet; spans 2 x 2 m. */
export function copper(seed: number): PaintedTexture {
  return paint(1024, 1024, 2, 2, (x, y): Paint => {
    const cloud = fractal(x, y, 5, 5, 5, seed);
    const streak = fractal(x, y, 40, 4, 3, seed + 4);
    const dark = Math.min(1, Math.max(0, (cloud - 0.4) * 2.2));
    return {
      color: blend([0.56, 0.3, 0.19], [0.27, 0.16, 0.115], 0.75 * dark + 0.25 * streak),
      roughness: 0.3 + 0.26 * dark + 0.1 * streak
    };
  });
}

/** Meadow ground; spans 4 x 4 m. */
export function meadow(seed: number): PaintedTexture {
  return paint(1024, 1024, 4, 4, (x, y): Paint => {
    const a = fractal(x, y, 5, 5, 5, seed);
    const b = fractal(x, y, 70, 70, 3, seed + 3);
    return { color: dim(blend([0.075, 0.105, 0.03], [0.17, 0.15, 0.065], a * 0.9), 0.6 + 0.75 * b), roughness: 1 };
  });
}

/** A chart of invented stars for a globe: night blue, gold stars joined to figures, a grid of hours and degrees. */
export function starChart(seed: number): PaintedTexture {
  const stars = Array.from({ length: 900 }, (_, i) => ({
    x: cell(i, 1, seed),
    y: Math.acos(1 - 2 * cell(i, 2, seed)) / Math.PI,
    r: 0.0009 + 0.0034 * cell(i, 3, seed) ** 5
  }));
  const bright = stars.filter((s) => s.r > 0.0019);
  const lines: [number, number, number, number][] = [];
  for (const s of bright) {
    const near = bright.filter((t) => t !== s && Math.abs(t.x - s.x) < 0.06 && Math.abs(t.y - s.y) < 0.09).slice(0, 2);
    for (const t of near) lines.push([s.x, s.y, t.x, t.y]);
  }
  const width = 1536;
  const height = 768;
  const mask = new Float32Array(width * height);
  const grid = new Float32Array(width * height);
  const dot = (target: Float32Array, x: number, y: number, r: number, value: number) => {
    const stretch = 1 / Math.max(0.15, Math.sin(Math.PI * y));
    const rx = r * width * stretch;
    const ry = r * width;
    for (let j = Math.floor(y * height - ry); j <= Math.ceil(y * height + ry); j++) {
      for (let i = Math.floor(x * width - rx); i <= Math.ceil(x * width + rx); i++) {
        const d = Math.hypot((i + 0.5 - x * width) / rx, (j + 0.5 - y * height) / ry);
        if (d > 1 || j < 0 || j >= height) continue;
        const o = j * width + ((i + width) % width);
        target[o] = Math.max(target[o]!, value * Math.min(1, (1 - d) * 3));
      }
    }
  };
  for (const s of stars) dot(mask, s.x, s.y, s.r, 1);
  for (const [x0, y0, x1, y1] of lines)
    for (let t = 0; t <= 1; t += 0.004) dot(grid, x0 + (x1 - x0) * t, y0 + (y1 - y0) * t, 0.0006, 0.7);
  for (let h = 0; h < 12; h++) for (let t = 0.03; t < 0.97; t += 0.0004) dot(grid, h / 12, t, 0.0005, 0.5);
  for (let d = 1; d < 6; d++) for (let t = 0; t < 1; t += 0.0004) dot(grid, t, d / 6, 0.0005, d === 3 ? 0.9 : 0.5);
  return paint(width, height, 2, 1, (x, y): Paint => {
    const o = Math.min(height - 1, Math.floor(y * height)) * width + Math.min(width - 1, Math.floor(x * width));
    const deep = 0.7 + 0.6 * fractal(x, y, 8, 6, 5, seed);
    const color = blend(
      blend([0.012 * deep, 0.03 * deep, 0.075 * deep], [0.3, 0.27, 0.16], grid[o]! * 0.55),
      [0.8, 0.66, 0.36],
      mask[o]!
    );
    return { color, roughness: 0.22 };
  });
}

/** A page of an invented book: lines of words, and with `figure` the drawing of some orbits above them. */
export function printedPage(seed: number, figure: boolean): PaintedTexture {
  const paper: Rgb = [0.76, 0.72, 0.62];
  const ink: Rgb = [0.05, 0.045, 0.05];
  const lines = 34;
  return paint(384, 512, 0.15, 0.2, (x, y): Paint => {
    const [mx, my] = [(x - 0.13) / 0.74, (y - 0.1) / 0.8];
    const mottle = 0.96 + 0.08 * fractal(x, y, 6, 8, 3, seed);
    const page = { color: dim(paper, mottle), roughness: 0.9 };
    if (mx < 0 || mx > 1 || my < 0 || my > 1) return page;
    if (figure && my < 0.42) {
      const [dx, dy] = [(mx - 0.5) * 0.74 * 0.15, (my - 0.2) * 0.8 * 0.2];
      for (const [k, r] of [0.009, 0.017, 0.027, 0.04].entries()) {
        const away = Math.hypot(dx / 1.15, dy * 1.3);
        if (Math.abs(away - r) < 0.00035) return { color: dim(ink, 2.2), roughness: 0.9 };
        const a = 6.3 * cell(k, 2, seed);
        if (Math.hypot(dx - 1.15 * r * Math.cos(a), dy - (r / 1.3) * Math.sin(a)) < 0.0012 + 0.0004 * k)
          return { color: ink, roughness: 0.9 };
      }
      return page;
    }
    const row = Math.floor(my * lines);
    const within = my * lines - row;
    const end = cell(row, 7, seed) < 0.12 ? 0.55 : 1;
    const letter = Math.floor(mx * 64);
    const space = cell(letter, row, seed) < 0.17;
    const tall = 0.26 + 0.2 * cell(letter, row, seed + 3);
    if (mx > end || space || Math.abs(within - 0.5) > tall / 2) return page;
    return { color: blend(paper, ink, 0.7), roughness: 0.9 };
  });
}
