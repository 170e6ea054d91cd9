// The surface at a hit: position, normals, uv, and the material's values there, in module state of this instance.
// Frame: world metres; `geometric` and `shading` normals face the viewer for reflection, `entering` says which side was
// hit. One file: position, normals and material are made from the same three vertices, whose addresses stay in module
// state.
import {
  CLEAR_ROUGHNESS,
  FLAG_ALPHA_BLEND,
  FLAG_ALPHA_MASK,
  FLAG_LAYERED,
  FLAG_PLAIN,
  FLAG_SOLID,
  FLAG_TEXTURED,
  M_ALPHA_CUTOFF,
  M_ANISOTROPY,
  M_BASE,
  M_COAT,
  M_COAT_NORMAL_SCALE,
  M_DIFFUSE_TRANSMISSION,
  M_DISPERSION,
  M_EMISSIVE,
  M_FLAGS,
  M_GLASS_ALBEDO_PTR,
  M_IOR,
  M_IRIDESCENCE,
  M_METALLIC,
  M_NORMAL_SCALE,
  M_SHEEN,
  M_SOLID,
  M_SPECULAR_COLOR,
  M_ROUGHNESS,
  M_SPECULAR,
  M_TRANSMISSION,
  MATERIAL_BYTES,
  P_TRIANGLES_PTR,
  P_MATERIALS_PTR,
  P_PARTS_PTR,
  P_VERTICES_PTR,
  PACK,
  PART_BYTES,
  PART_FRAME,
  PLACED_MIRRORED,
  PLACED_REACH,
  SETTINGS,
  TRIANGLE_BYTES,
  TRIANGLE_MATERIAL,
  SLOT_ANISOTROPY,
  SLOT_BASE,
  SLOT_COAT,
  SLOT_COAT_NORMAL,
  SLOT_COAT_ROUGHNESS,
  SLOT_DIFFUSE_TRANSMISSION,
  SLOT_DIFFUSE_TRANSMISSION_COLOR,
  SLOT_EMISSIVE,
  SLOT_FILM_THICKNESS,
  SLOT_IRIDESCENCE,
  SLOT_METAL_ROUGH,
  SLOT_NORMAL,
  SOLID_PER_METRE,
  SOLID_RELIEF,
  SOLID_ROUGH,
  SLOT_SHEEN_COLOR,
  SLOT_SHEEN_ROUGHNESS,
  SLOT_SPECULAR,
  SLOT_SPECULAR_COLOR,
  SLOT_TRANSMISSION,
  V_COLOR,
  V_NORMAL,
  V_TANGENT,
  V_UV0,
  V_UV1,
  VERTEX_BYTES
} from './layout';
import { clamp01, log2, max3 } from './math';
import { bringTriangle, broughtA, broughtB, broughtC, partOf } from './placed';
import { evaluateSolid, height, isSmooth, rough, solidB, solidG, solidR } from './solid';
import { hasTexture, lookUp, setUv, texA, texB, texG, texR } from './texture';

export let px: f32 = 0;
export let py: f32 = 0;
export let pz: f32 = 0;
export let gx: f32 = 0;
export let gy: f32 = 0;
export let gz: f32 = 0; // geometric normal, unit, towards the viewer
export let nx: f32 = 0;
export let ny: f32 = 0;
export let nz: f32 = 0; // shading normal
// The point lifted to the smooth surface that the vertex normals describe, and that surface's normal; rays that leave
// on the viewer's side start there, so that the triangles of a coarse mesh cast no shadow on it.
export let lifted: bool = false;
export let liftBy: f32 = 0; // m
export let liftX: f32 = 0;
export let liftY: f32 = 0;
export let liftZ: f32 = 0;
export let smoothX: f32 = 0;
export let smoothY: f32 = 0;
export let smoothZ: f32 = 0;
/**
 * How far a ray must start off the surface so that rounding does not put it behind: a point mixed from three corners is
 * off by a few units in the last place of the largest coordinate among them, however small its own are (after Waechter
 * and Binder 2019, Ray Tracing Gems, chapter 6, who reckon with the point's own).
 */
export let error: f32 = 0;
const NEAR_EDGE: f32 = 0.02;
const ERROR_PER_METRE: f32 = 9.5367431640625e-7; // 16 units in the last place
export let entering: bool = true; // the front side was hit
export let material: usize = 0;
export let flags: u32 = 0;
export let baseR: f32 = 0;
export let baseG: f32 = 0;
export let baseB: f32 = 0;
export let alpha: f32 = 1; // coverage
export let metallic: f32 = 0;
export let roughness: f32 = 1; // perceptual
export let transmission: f32 = 0;
export let ior: f32 = 1.5;
export let specular: f32 = 1;
export let emitR: f32 = 0;
export let emitG: f32 = 0;
export let emitB: f32 = 0;
export let glassAlbedo: usize = 0;
// what counts only with FLAG_LAYERED
export let specularR: f32 = 1;
export let specularG: f32 = 1;
export let specularB: f32 = 1;
export let anisotropy: f32 = 0;
export let tangentX: f32 = 1;
export let tangentY: f32 = 0;
export let tangentZ: f32 = 0;
export let coat: f32 = 0;
export let coatRoughness: f32 = 0;
export let coatX: f32 = 0;
export let coatY: f32 = 0;
export let coatZ: f32 = 1; // normal of the coat
export let sheenR: f32 = 0;
export let sheenG: f32 = 0;
export let sheenB: f32 = 0;
export let sheenRoughness: f32 = 0;
export let iridescence: f32 = 0;
export let filmIor: f32 = 1.3;
export let filmThickness: f32 = 400; // nm
export let dispersion: f32 = 0;
export let diffuseTransmission: f32 = 0;
export let throughR: f32 = 1;
export let throughG: f32 = 1;
export let throughB: f32 = 1;

let a: usize = 0;
let b: usize = 0;
let c: usize = 0;
let weightA: f32 = 0;
let weightB: f32 = 0;
let weightC: f32 = 0;
let reach: f32 = 0; // largest coordinate that a placed triangle was reckoned from

// @ts-ignore: decorator
@inline
function mixed(offset: usize): f32 {
  return weightA * load<f32>(a + offset) + weightB * load<f32>(b + offset) + weightC * load<f32>(c + offset);
}

// @ts-ignore: decorator
@inline
function mixedFour(offset: usize): v128 {
  return f32x4.add(
    f32x4.add(
      f32x4.mul(f32x4.splat(weightA), v128.load(a + offset)),
      f32x4.mul(f32x4.splat(weightB), v128.load(b + offset))
    ),
    f32x4.mul(f32x4.splat(weightC), v128.load(c + offset))
  );
}

/**
 * Finds vertices, uv and the triangle's material; what alpha and emission tests need before the whole surface is made.
 */
export function findTriangle(triangle: i32, placed: usize, u: f32, v: f32): void {
  const ip = <usize>load<u32>(PACK + P_TRIANGLES_PTR) + <usize>triangle * TRIANGLE_BYTES,
    vp = <usize>load<u32>(PACK + P_VERTICES_PTR);
  a = vp + <usize>load<u32>(ip) * VERTEX_BYTES;
  b = vp + <usize>load<u32>(ip, 4) * VERTEX_BYTES;
  c = vp + <usize>load<u32>(ip, 8) * VERTEX_BYTES;
  weightB = u;
  weightC = v;
  weightA = <f32>1 - u - v;
  reach = 0;
  if (placed) {
    bringTriangle(a, b, c, placed);
    // mirrored triangles are turned over, so that their front stays outside
    if (load<u32>(placed, PLACED_MIRRORED)) {
      weightB = v;
      weightC = u;
    }
    a = broughtA();
    b = broughtB();
    c = broughtC();
    reach = load<f32>(placed, PLACED_REACH);
  }
  material = <usize>load<u32>(PACK + P_MATERIALS_PTR) + <usize>load<u32>(ip, TRIANGLE_MATERIAL) * MATERIAL_BYTES;
  flags = load<u32>(material + M_FLAGS);
}

/**
 * Makes the surface under a ray of direction (dx, dy, dz). `coneWidth` is the ray's width here in metres, for texture
 * filtering; `dither` a number in [0, 1) that chooses between two mip levels; `blurred` when the texel nearest serves.
 */
export function makeSurface(
  triangle: i32,
  placed: usize,
  u: f32,
  v: f32,
  dx: f32,
  dy: f32,
  dz: f32,
  coneWidth: f32,
  dither: f32,
  blurred: bool
): void {
  findTriangle(triangle, placed, u, v);
  // a vertex begins with its place and its normal, which are read and mixed as they lie
  const mixes = mixedFour(0),
    mixesOn = mixedFour(16),
    atA = v128.load(a);
  px = f32x4.extract_lane(mixes, 0);
  py = f32x4.extract_lane(mixes, 1);
  pz = f32x4.extract_lane(mixes, 2);
  const farthest = f32x4.pmax(f32x4.pmax(f32x4.abs(atA), f32x4.abs(v128.load(b))), f32x4.abs(v128.load(c)));
  error =
    ERROR_PER_METRE *
    max<f32>(
      reach,
      max3(f32x4.extract_lane(farthest, 0), f32x4.extract_lane(farthest, 1), f32x4.extract_lane(farthest, 2))
    );
  if (min<f32>(weightA, min<f32>(weightB, weightC)) < NEAR_EDGE) stepInside();
  const e1 = f32x4.sub(v128.load(b), atA),
    e2 = f32x4.sub(v128.load(c), atA);
  const across = f32x4.sub(
    f32x4.mul(v128.shuffle<f32>(e1, e1, 1, 2, 0, 3), v128.shuffle<f32>(e2, e2, 2, 0, 1, 3)),
    f32x4.mul(v128.shuffle<f32>(e1, e1, 2, 0, 1, 3), v128.shuffle<f32>(e2, e2, 1, 2, 0, 3))
  );
  gx = f32x4.extract_lane(across, 0);
  gy = f32x4.extract_lane(across, 1);
  gz = f32x4.extract_lane(across, 2);
  const doubleArea = sqrt<f32>(gx * gx + gy * gy + gz * gz);
  const inverse: f32 = doubleArea > 0 ? <f32>1 / doubleArea : 0;
  gx *= inverse;
  gy *= inverse;
  gz *= inverse;
  const facing = gx * dx + gy * dy + gz * dz;
  entering = facing < 0;
  nx = f32x4.extract_lane(mixes, 3);
  ny = f32x4.extract_lane(mixesOn, 0);
  nz = f32x4.extract_lane(mixesOn, 1);
  const length = sqrt<f32>(nx * nx + ny * ny + nz * nz);
  if (length > <f32>1e-12) {
    const k: f32 = <f32>1 / length;
    nx *= k;
    ny *= k;
    nz *= k;
  } else {
    nx = gx;
    ny = gy;
    nz = gz;
  }

  lift(entering ? 1 : -1);

  if (flags & FLAG_TEXTURED) findUv(doubleArea, facing, coneWidth, dither, blurred);

  readMaterial();
  const layered = (flags & FLAG_LAYERED) != 0;
  if (layered) {
    readLayers();
    coatX = nx;
    coatY = ny;
    coatZ = nz;
  }
  if (layered && coat > 0 && shows(SLOT_COAT_NORMAL)) {
    const sx = nx,
      sy = ny,
      sz = nz;
    bendNormal(SLOT_COAT_NORMAL, load<f32>(material + M_COAT_NORMAL_SCALE));
    coatX = nx;
    coatY = ny;
    coatZ = nz;
    nx = sx;
    ny = sy;
    nz = sz;
  }
  if (shows(SLOT_NORMAL)) bendNormal(SLOT_NORMAL, load<f32>(material + M_NORMAL_SCALE));
  const solid = <usize>load<u32>(material + M_SOLID);
  if (solid) applySolid(solid, partOf(triangle, placed), coneWidth / max<f32>(abs<f32>(facing), <f32>0.2));
  if (layered && anisotropy > 0) turnTangent();
  if (!entering) {
    gx = -gx;
    gy = -gy;
    gz = -gz;
  }
  // the shading normal must lie on the viewer's side, as must what it reflects
  if (nx * gx + ny * gy + nz * gz < 0) {
    nx = -nx;
    ny = -ny;
    nz = -nz;
  }
  if (nx * dx + ny * dy + nz * dz >= 0) {
    nx = gx;
    ny = gy;
    nz = gz;
  }
  if (flags & FLAG_LAYERED) {
    if (coatX * gx + coatY * gy + coatZ * gz < 0) {
      coatX = -coatX;
      coatY = -coatY;
      coatZ = -coatZ;
    }
    if (coatX * dx + coatY * dy + coatZ * dz >= 0) {
      coatX = gx;
      coatY = gy;
      coatZ = gz;
    }
  }
}

/** uv at the hit, and the footprint in uv units: cone width over the cosine, scaled by the triangle's uv density. */
function findUv(doubleArea: f32, facing: f32, coneWidth: f32, dither: f32, blurred: bool): void {
  const u0 = mixed(V_UV0),
    v0 = mixed(V_UV0 + 4);
  const s1 = load<f32>(b + V_UV0) - load<f32>(a + V_UV0),
    t1 = load<f32>(b + V_UV0, 4) - load<f32>(a + V_UV0, 4);
  const s2 = load<f32>(c + V_UV0) - load<f32>(a + V_UV0),
    t2 = load<f32>(c + V_UV0, 4) - load<f32>(a + V_UV0, 4);
  const uvArea = abs<f32>(s1 * t2 - s2 * t1);
  let print: f32 = -30;
  if (uvArea > <f32>1e-20 && doubleArea > 0 && coneWidth > 0)
    print = <f32>0.5 * log2(uvArea / doubleArea) + log2(coneWidth / max<f32>(abs<f32>(facing), <f32>0.05));
  setUv(u0, v0, mixed(V_UV1), mixed(V_UV1 + 4), print, dither, blurred);
}

// @ts-ignore: decorator
@inline
function sameNormal(one: usize, other: usize): bool {
  return (
    load<u64>(one, V_NORMAL) == load<u64>(other, V_NORMAL) &&
    load<u32>(one, V_NORMAL + 8) == load<u32>(other, V_NORMAL + 8)
  );
}

/**
 * Hanika 2021, Hacking the Shadow Terminator, Ray Tracing Gems II, chapter 4: the point's projections to the planes of
 * the three vertex normals, where they lie above it, mixed by its barycentrics.
 */
function lift(side: f32): void {
  smoothX = nx * side;
  smoothY = ny * side;
  smoothZ = nz * side;
  if (sameNormal(a, b) && sameNormal(a, c)) {
    // flat
    lifted = false;
    liftBy = 0;
    liftX = px;
    liftY = py;
    liftZ = pz;
    return;
  }
  let x: f32 = 0,
    y: f32 = 0,
    z: f32 = 0;
  for (let i = 0; i < 3; i++) {
    const v = i == 0 ? a : i == 1 ? b : c,
      weight = i == 0 ? weightA : i == 1 ? weightB : weightC;
    const ux = load<f32>(v, V_NORMAL) * side,
      uy = load<f32>(v, V_NORMAL + 4) * side,
      uz = load<f32>(v, V_NORMAL + 8) * side;
    const depth =
      min<f32>(0, (px - load<f32>(v)) * ux + (py - load<f32>(v, 4)) * uy + (pz - load<f32>(v, 8)) * uz) * weight;
    x -= depth * ux;
    y -= depth * uy;
    z -= depth * uz;
  }
  liftX = px + x;
  liftY = py + y;
  liftZ = pz + z;
  // less than rounding is a flat triangle
  const reach = abs<f32>(px) + abs<f32>(py) + abs<f32>(pz);
  const by2 = x * x + y * y + z * z;
  lifted = by2 > <f32>1e-12 * reach * reach + <f32>1e-18;
  liftBy = lifted ? sqrt<f32>(by2) : 0;
}

/**
 * A point at an edge may be rounded to beyond the wall that meets the triangle there: it is moved inwards by as much as
 * that.
 */
function stepInside(): void {
  const third: f32 = 1.0 / 3.0;
  const x = (load<f32>(a) + load<f32>(b) + load<f32>(c)) * third - px,
    y = (load<f32>(a, 4) + load<f32>(b, 4) + load<f32>(c, 4)) * third - py,
    z = (load<f32>(a, 8) + load<f32>(b, 8) + load<f32>(c, 8)) * third - pz;
  const step: f32 = error * 2,
    k: f32 = step / max<f32>(sqrt<f32>(x * x + y * y + z * z), step);
  px += k * x;
  py += k * y;
  pz += k * z;
}

/** Whether the material has a texture there; of one without any, the slots are not even looked at. */
// @ts-ignore: decorator
@inline
function shows(slot: i32): bool {
  return (flags & FLAG_TEXTURED) != 0 && hasTexture(material, slot);
}

function readMaterial(): void {
  const m = material;
  baseR = load<f32>(m + M_BASE);
  baseG = load<f32>(m + M_BASE, 4);
  baseB = load<f32>(m + M_BASE, 8);
  const plain = flags & FLAG_PLAIN;
  if (shows(SLOT_BASE) && !(plain && flags & (FLAG_ALPHA_MASK | FLAG_ALPHA_BLEND))) {
    lookUp(m, SLOT_BASE);
    baseR *= texR;
    baseG *= texG;
    baseB *= texB;
  }
  if (!plain && (load<u64>(a, V_COLOR) & load<u64>(b, V_COLOR) & load<u64>(c, V_COLOR)) != 0xffffffffffffffff) {
    baseR *= mixedColor(0);
    baseG *= mixedColor(2);
    baseB *= mixedColor(4);
  }
  metallic = load<f32>(m + M_METALLIC);
  roughness = load<f32>(m + M_ROUGHNESS);
  if (shows(SLOT_METAL_ROUGH)) {
    lookUp(m, SLOT_METAL_ROUGH);
    roughness *= texG;
    metallic *= texB;
  }
  roughness = clamp01(roughness);
  metallic = clamp01(metallic);
  transmission = load<f32>(m + M_TRANSMISSION);
  if (transmission > 0 && shows(SLOT_TRANSMISSION)) {
    lookUp(m, SLOT_TRANSMISSION);
    transmission *= texR;
  }
  ior = load<f32>(m + M_IOR);
  specular = load<f32>(m + M_SPECULAR);
  glassAlbedo = load<u32>(m + M_GLASS_ALBEDO_PTR);
}

/** Colours, roughens and bends the surface by a solid texture, seen in a footprint of `width` m. */
function applySolid(solid: usize, part: u32, width: f32): void {
  const frame = <usize>load<u32>(PACK + P_PARTS_PTR) + <usize>(part * PART_BYTES) + PART_FRAME,
    k = load<f32>(solid, SOLID_PER_METRE);
  const c0x = load<f32>(frame),
    c0y = load<f32>(frame, 4),
    c0z = load<f32>(frame, 8);
  const c1x = load<f32>(frame, 12),
    c1y = load<f32>(frame, 16),
    c1z = load<f32>(frame, 20);
  const c2x = load<f32>(frame, 24),
    c2y = load<f32>(frame, 28),
    c2z = load<f32>(frame, 32);
  const x = k * (c0x * px + c1x * py + c2x * pz + load<f32>(frame, 36));
  const y = k * (c0y * px + c1y * py + c2y * pz + load<f32>(frame, 40));
  const z = k * (c0z * px + c1z * py + c2z * pz + load<f32>(frame, 44));
  const ux = c0x * gx + c1x * gy + c2x * gz,
    uy = c0y * gx + c1y * gy + c2y * gz,
    uz = c0z * gx + c1z * gy + c2z * gz;
  width *= k;
  evaluateSolid(solid, x, y, z, width, ux, uy, uz, part);
  baseR *= solidR;
  baseG *= solidG;
  baseB *= solidB;
  roughness = clamp01(roughness + rough * load<f32>(solid, SOLID_ROUGH));
  const relief = load<f32>(solid, SOLID_RELIEF);
  if (relief == 0 || isSmooth(width)) return;
  // slopes along two tangents, a footprint's half apart (Blinn 1978)
  const here = height,
    sign = copysign<f32>(1, nz),
    p: f32 = -(<f32>1) / (sign + nz),
    q = nx * ny * p;
  const tx = <f32>1 + sign * nx * nx * p,
    ty = sign * q,
    tz = -sign * nx,
    bx = q,
    by = sign + ny * ny * p,
    bz = -ny;
  const reach = max<f32>(<f32>0.004, width * <f32>0.5);
  evaluateSolid(
    solid,
    x + reach * (c0x * tx + c1x * ty + c2x * tz),
    y + reach * (c0y * tx + c1y * ty + c2y * tz),
    z + reach * (c0z * tx + c1z * ty + c2z * tz),
    width,
    ux,
    uy,
    uz,
    part
  );
  const s = ((height - here) * relief) / reach;
  evaluateSolid(
    solid,
    x + reach * (c0x * bx + c1x * by + c2x * bz),
    y + reach * (c0y * bx + c1y * by + c2y * bz),
    z + reach * (c0z * bx + c1z * by + c2z * bz),
    width,
    ux,
    uy,
    uz,
    part
  );
  const t = ((height - here) * relief) / reach;
  // the height rises on the viewer's side
  const over: f32 = entering ? 1 : -1;
  nx -= over * (s * tx + t * bx);
  ny -= over * (s * ty + t * by);
  nz -= over * (s * tz + t * bz);
  const length: f32 = <f32>1 / max<f32>(sqrt<f32>(nx * nx + ny * ny + nz * nz), <f32>1e-12);
  nx *= length;
  ny *= length;
  nz *= length;
}

function readLayers(): void {
  const m = material;
  specularR = load<f32>(m + M_SPECULAR_COLOR);
  specularG = load<f32>(m + M_SPECULAR_COLOR, 4);
  specularB = load<f32>(m + M_SPECULAR_COLOR, 8);
  if (shows(SLOT_SPECULAR_COLOR)) {
    lookUp(m, SLOT_SPECULAR_COLOR);
    specularR *= texR;
    specularG *= texG;
    specularB *= texB;
  }
  if (shows(SLOT_SPECULAR)) {
    lookUp(m, SLOT_SPECULAR);
    specular *= texA;
  }
  anisotropy = load<f32>(m + M_ANISOTROPY);
  coat = load<f32>(m + M_COAT);
  if (coat > 0) {
    if (shows(SLOT_COAT)) {
      lookUp(m, SLOT_COAT);
      coat *= texR;
    }
    coatRoughness = load<f32>(m + M_COAT, 4);
    if (shows(SLOT_COAT_ROUGHNESS)) {
      lookUp(m, SLOT_COAT_ROUGHNESS);
      coatRoughness *= texG;
    }
  }
  sheenR = load<f32>(m + M_SHEEN);
  sheenG = load<f32>(m + M_SHEEN, 4);
  sheenB = load<f32>(m + M_SHEEN, 8);
  if (sheenR + sheenG + sheenB > 0) {
    if (shows(SLOT_SHEEN_COLOR)) {
      lookUp(m, SLOT_SHEEN_COLOR);
      sheenR *= texR;
      sheenG *= texG;
      sheenB *= texB;
    }
    sheenRoughness = load<f32>(m + M_SHEEN, 12);
    if (shows(SLOT_SHEEN_ROUGHNESS)) {
      lookUp(m, SLOT_SHEEN_ROUGHNESS);
      sheenRoughness *= texA;
    }
  }
  iridescence = load<f32>(m + M_IRIDESCENCE);
  if (iridescence > 0) {
    if (shows(SLOT_IRIDESCENCE)) {
      lookUp(m, SLOT_IRIDESCENCE);
      iridescence *= texR;
    }
    filmIor = load<f32>(m + M_IRIDESCENCE, 4);
    filmThickness = load<f32>(m + M_IRIDESCENCE, 12);
    if (shows(SLOT_FILM_THICKNESS)) {
      lookUp(m, SLOT_FILM_THICKNESS);
      const thinnest = load<f32>(m + M_IRIDESCENCE, 8);
      filmThickness = thinnest + (filmThickness - thinnest) * texG;
    }
  }
  dispersion = load<f32>(m + M_DISPERSION);
  diffuseTransmission = load<f32>(m + M_DIFFUSE_TRANSMISSION);
  if (diffuseTransmission > 0) {
    if (shows(SLOT_DIFFUSE_TRANSMISSION)) {
      lookUp(m, SLOT_DIFFUSE_TRANSMISSION);
      diffuseTransmission *= texA;
    }
    throughR = load<f32>(m + M_DIFFUSE_TRANSMISSION, 4);
    throughG = load<f32>(m + M_DIFFUSE_TRANSMISSION, 8);
    throughB = load<f32>(m + M_DIFFUSE_TRANSMISSION, 12);
    if (shows(SLOT_DIFFUSE_TRANSMISSION_COLOR)) {
      lookUp(m, SLOT_DIFFUSE_TRANSMISSION_COLOR);
      throughR *= texR;
      throughG *= texG;
      throughB *= texB;
    }
  }
}

/**
 * Direction of the brushing: the tangent turned by the material's rotation and the texture's. Needs the final normal.
 */
function turnTangent(): void {
  let x = mixed(V_TANGENT),
    y = mixed(V_TANGENT + 4),
    z = mixed(V_TANGENT + 8);
  const along = x * nx + y * ny + z * nz;
  x -= along * nx;
  y -= along * ny;
  z -= along * nz;
  const length = sqrt<f32>(x * x + y * y + z * z);
  if (length < <f32>1e-8) {
    anisotropy = 0;
    return;
  }
  x /= length;
  y /= length;
  z /= length;
  const hand: f32 = load<f32>(a + V_TANGENT, 12) < 0 ? -1 : 1;
  const ux = (ny * z - nz * y) * hand,
    uy = (nz * x - nx * z) * hand,
    uz = (nx * y - ny * x) * hand;
  let c = load<f32>(material + M_ANISOTROPY, 4),
    s = load<f32>(material + M_ANISOTROPY, 8);
  if (shows(SLOT_ANISOTROPY)) {
    lookUp(material, SLOT_ANISOTROPY);
    anisotropy *= texB;
    const p = texR * 2 - 1,
      q = texG * 2 - 1,
      k: f32 = <f32>1 / max<f32>(sqrt<f32>(p * p + q * q), <f32>1e-6);
    const turned = (c * p - s * q) * k;
    s = (s * p + c * q) * k;
    c = turned;
  }
  tangentX = c * x + s * ux;
  tangentY = c * y + s * uy;
  tangentZ = c * z + s * uz;
}

/**
 * Tangent-space normal map. The frame is the vertex tangent, which the importer makes by MikkTSpace when it is missing.
 */
function bendNormal(slot: i32, scale: f32): void {
  let tx = mixed(V_TANGENT),
    ty = mixed(V_TANGENT + 4),
    tz = mixed(V_TANGENT + 8);
  const along = tx * nx + ty * ny + tz * nz;
  tx -= along * nx;
  ty -= along * ny;
  tz -= along * nz;
  const length = sqrt<f32>(tx * tx + ty * ty + tz * tz);
  if (length < <f32>1e-8) return;
  tx /= length;
  ty /= length;
  tz /= length;
  const hand: f32 = load<f32>(a + V_TANGENT, 12) < 0 ? -1 : 1;
  const bx = (ny * tz - nz * ty) * hand,
    by = (nz * tx - nx * tz) * hand,
    bz = (nx * ty - ny * tx) * hand;
  lookUp(material, slot);
  const mx = (texR * 2 - 1) * scale,
    my = (texG * 2 - 1) * scale,
    mz = texB * 2 - 1;
  const x = tx * mx + bx * my + nx * mz,
    y = ty * mx + by * my + ny * mz,
    z = tz * mx + bz * my + nz * mz;
  const inverse: f32 = <f32>1 / max<f32>(sqrt<f32>(x * x + y * y + z * z), <f32>1e-12);
  nx = x * inverse;
  ny = y * inverse;
  nz = z * inverse;
}

/** A channel of the vertices' colours at the hit, 0 to 1; `offset` in bytes. */
// @ts-ignore: decorator
@inline
function mixedColor(offset: usize): f32 {
  const k: f32 = <f32>1 / 65535;
  return (
    k *
    (weightA * <f32>load<u16>(a + offset, V_COLOR) +
      weightB * <f32>load<u16>(b + offset, V_COLOR) +
      weightC * <f32>load<u16>(c + offset, V_COLOR))
  );
}

/** Coverage at the hit of findTriangle or makeSurface: 0 to 1. */
export function readAlpha(): f32 {
  if (!(flags & (FLAG_ALPHA_MASK | FLAG_ALPHA_BLEND))) return 1;
  let value = load<f32>(material + M_BASE, 12);
  if (shows(SLOT_BASE)) {
    lookUp(material, SLOT_BASE);
    value *= texA;
  }
  value *= mixedColor(6);
  if (flags & FLAG_ALPHA_MASK) return value >= load<f32>(material + M_ALPHA_CUTOFF) ? 1 : 0;
  return clamp01(value);
}

/** Sharp uv for a shadow ray's alpha test, which has no footprint. */
export function useSharpUv(): void {
  setUv(mixed(V_UV0), mixed(V_UV0 + 4), mixed(V_UV1), mixed(V_UV1 + 4), -30, 0.5, false);
}

/** Radiance that the surface gives off, cd/m2, into emitR, emitG, emitB. */
export function readEmission(): void {
  emitR = load<f32>(material + M_EMISSIVE);
  emitG = load<f32>(material + M_EMISSIVE, 4);
  emitB = load<f32>(material + M_EMISSIVE, 8);
  if (shows(SLOT_EMISSIVE)) {
    lookUp(material, SLOT_EMISSIVE);
    emitR *= texR;
    emitG *= texG;
    emitB *= texB;
  }
}

/** Cosine between the geometric normal of the triangle found last and a direction; cheap enough for shadow rays. */
export function cosineWith(dx: f32, dy: f32, dz: f32): f32 {
  const e1x = load<f32>(b) - load<f32>(a),
    e1y = load<f32>(b, 4) - load<f32>(a, 4),
    e1z = load<f32>(b, 8) - load<f32>(a, 8);
  const e2x = load<f32>(c) - load<f32>(a),
    e2y = load<f32>(c, 4) - load<f32>(a, 4),
    e2z = load<f32>(c, 8) - load<f32>(a, 8);
  const x = e1y * e2z - e1z * e2y,
    y = e1z * e2x - e1x * e2z,
    z = e1x * e2y - e1y * e2x;
  return (x * dx + y * dy + z * dz) / max<f32>(sqrt<f32>(x * x + y * y + z * z), <f32>1e-30);
}

/** Reads base colour, roughness and transmission of the triangle found last, without its frame. */
export function readSheet(): void {
  readMaterial();
}

/** The share of the surface read last that is a clear thin sheet. */
export function clearShare(): f32 {
  if (flags & FLAG_SOLID || roughness >= <f32>CLEAR_ROUGHNESS) return 0;
  return transmission * (<f32>1 - metallic);
}

/** The share of a glowing surface that glows at the hit of findTriangle: what is neither cut out nor a clear sheet. */
export function glowingShare(): f32 {
  const coverage = readAlpha();
  if (coverage == 0 || flags & FLAG_SOLID || load<f32>(material + M_TRANSMISSION) == 0) return coverage;
  readSheet();
  return coverage * (<f32>1 - clearShare());
}

/** Leaves what is not a clear sheet, renormalised: the path tracer has dealt with the clear share by itself. */
export function dropClearShare(): void {
  const clear = clearShare();
  if (clear >= 1) {
    transmission = 0;
    baseR = 0;
    baseG = 0;
    baseB = 0;
    return;
  }
  metallic = metallic / (<f32>1 - clear);
  transmission = 0;
}

/** Makes the level matte surface of a ground (ground.ts), seen from above. */
export function makeLevel(x: f32, y: f32, z: f32, r: f32, g: f32, b: f32): void {
  px = x;
  py = y;
  pz = z;
  error = ERROR_PER_METRE * max<f32>(abs<f32>(x), max<f32>(abs<f32>(y), abs<f32>(z)));
  gx = 0;
  gy = 1;
  gz = 0;
  nx = 0;
  ny = 1;
  nz = 0;
  lifted = false;
  liftBy = 0;
  liftX = x;
  liftY = y;
  liftZ = z;
  smoothX = 0;
  smoothY = 1;
  smoothZ = 0;
  entering = true;
  flags = 0;
  baseR = r;
  baseG = g;
  baseB = b;
  metallic = 0;
  roughness = 1;
  transmission = 0;
  ior = 1;
  specular = 0;
  glassAlbedo = 0;
}

/**
 * For probe.ts: a flat surface with normal +Z from f32: base rgb, metallic, roughness, transmission, ior, solid,
 * entering, layered; then, when layered: specular rgb, anisotropy, cosine and sine of its turn from +X, coat, its
 * roughness, its normal xyz, sheen rgb, roughness, iridescence, its index, its thickness, dispersion, diffuse
 * transmission, its rgb.
 */
export function probe(values: usize, glassTable: usize): void {
  baseR = load<f32>(values);
  baseG = load<f32>(values, 4);
  baseB = load<f32>(values, 8);
  metallic = load<f32>(values, 12);
  roughness = load<f32>(values, 16);
  transmission = load<f32>(values, 20);
  ior = load<f32>(values, 24);
  specular = 1;
  flags = (load<f32>(values, 28) > 0 ? FLAG_SOLID : 0) | (load<f32>(values, 36) > 0 ? FLAG_LAYERED : 0);
  specularR = load<f32>(values, 40);
  specularG = load<f32>(values, 44);
  specularB = load<f32>(values, 48);
  anisotropy = load<f32>(values, 52);
  tangentX = load<f32>(values, 56);
  tangentY = load<f32>(values, 60);
  tangentZ = 0;
  coat = load<f32>(values, 64);
  coatRoughness = load<f32>(values, 68);
  coatX = load<f32>(values, 72);
  coatY = load<f32>(values, 76);
  coatZ = load<f32>(values, 80);
  sheenR = load<f32>(values, 84);
  sheenG = load<f32>(values, 88);
  sheenB = load<f32>(values, 92);
  sheenRoughness = load<f32>(values, 96);
  iridescence = load<f32>(values, 100);
  filmIor = load<f32>(values, 104);
  filmThickness = load<f32>(values, 108);
  dispersion = load<f32>(values, 112);
  diffuseTransmission = load<f32>(values, 116);
  throughR = load<f32>(values, 120);
  throughG = load<f32>(values, 124);
  throughB = load<f32>(values, 128);
  entering = load<f32>(values, 32) > 0;
  nx = 0;
  ny = 0;
  nz = 1;
  gx = 0;
  gy = 0;
  gz = 1;
  glassAlbedo = glassTable;
}
