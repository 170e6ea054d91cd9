// One light path: camera to surroundings or lamp, with a light sampled at every scattering and both strategies weighed
// by multiple importance sampling. Radiance in cd/m2, linear Rec. 709. Sources: Kajiya 1986; Veach 1997, chapters 8 to
// 10 (balance heuristic).
// One file, because the loop's state is shared by all that finds light on the way.
// A bounce is a scattering event: 0 shows what glows and the surroundings, 1 adds direct light.
import {
  D_GROUP,
  FLAG_ALPHA_BLEND,
  FLAG_ALPHA_MASK,
  FLAG_EMISSIVE,
  FLAG_LAYERED,
  FLAG_OPEN_BACK,
  FLAG_UNMIRRORED,
  FLAG_UNSEEN,
  FLAG_SOLID,
  FLAG_TWO_SIDED,
  GROUP_SUN,
  GROUP_SURROUNDINGS,
  L_GROUP,
  L_KIND,
  L_PLACED,
  L_RADIANCE,
  M_GROUP,
  M_SIGMA,
  PLACED_KIND,
  PLACED_LIGHT,
  PLACED_OBJECT,
  S_AOVS,
  S_BOUNCES,
  S_DIFFUSE,
  S_SKY_BELOW_THRESHOLD,
  S_FIREFLY,
  S_GLASS,
  S_GLOSS,
  S_GLOW,
  S_LAYERS,
  S_LENS_RADIUS,
  S_AMBIENT_OCCLUSION,
  S_TRANSPARENT_BOUNCES,
  S_CONTRIBUTION_THRESHOLD,
  S_OPEN_BACKS,
  S_UNMIRRORED,
  SETTINGS,
  SLOT_EMISSIVE
} from './layout';
import * as aovs from './aovs';
import * as bsdf from './bsdf';
import { cameraRay, coneSpread, coneWidth } from './camera';
import { fresnel } from './fresnel';
import * as ground from './ground';
import * as lamps from './lamps';
import { cosOut, exp, luminance, max3, sinCosTurns, sinOut } from './math';
import { partOf } from './placed';
import * as portals from './portals';
import { random1D, random2D, random2Dx4, four0, four1, startSample, u0, u1 } from './random';
import * as shapes from './shapes';
import * as stars from './stars';
import * as surface from './surface';
import * as sky from './surroundings';
import { hasTexture } from './texture';
import { hitPlaced, hitT, hitTriangle, hitU, hitV, intersect, occluded, shadowB, shadowG, shadowR } from './traverse';

/**
 * Radiance of the path traced last; the part that came straight from the surroundings; the share of it that did (0 to
 * 1).
 */
export let pathR: f32 = 0;
export let pathG: f32 = 0;
export let pathB: f32 = 0;
export let backdropR: f32 = 0;
export let backdropG: f32 = 0;
export let backdropB: f32 = 0;
export let backdropShare: f32 = 0;

/**
 * What the denoiser wants to know of the path traced last: reflectance (0 to 1, a glow and the surroundings count as 1)
 * and normal of the first surface that is not a clear mirror or glass; those are followed, and tint what is seen in
 * them.
 */
export let featureR: f32 = 0;
export let featureG: f32 = 0;
export let featureB: f32 = 0;
export let featureX: f32 = 0;
export let featureY: f32 = 0;
export let featureZ: f32 = 0;
// Metal and glass smoother than this show other things rather than themselves.
const FOLLOWED_ROUGHNESS: f32 = 0.12;
// Light scattered by something rougher than this shows no texel apart from its neighbours.
const BLURS: f32 = 0.1;

// Random numbers: pairs 0 and 1 for the camera, then PAIRS_PER_BOUNCE for each bounce, of which the first four are
// wanted at nearly every scattering; passing transparent surfaces has its own range.
const PAIRS_PER_BOUNCE: u32 = 8;
const FIRST_PASS_PAIR: u32 = 4096;
const FIRST_THRESHOLD_PAIR: u32 = 65536;

/** Radiance of the path traced last by light group, rgb each; only when there are layers. */
export let groups: usize = 0;

let ray: usize = 0;
let shadowRay: usize = 0;
let betaR: f32 = 1;
let betaG: f32 = 1;
let betaB: f32 = 1;
let bounce: i32 = 0;
let channel: i32 = -1; // of a path that dispersing glass has split: it carries this one alone

/** Gives the tracer 64 bytes of this instance's memory for its rays, and 12 a light group. */
export function setRays(address: usize, byGroup: usize): void {
  groups = byGroup;
  ray = address;
  shadowRay = address + 32;
}

/**
 * Luminance of scattered light since the last call of clearLimited, and what of it the firefly limit took; for the
 * report alone.
 */
export let scatteredLight: f64 = 0;
export let limitedLight: f64 = 0;
export function clearLimited(): void {
  scatteredLight = 0;
  limitedLight = 0;
}

function add(r: f32, g: f32, b: f32, group: u32): void {
  if (bounce > 0) {
    const limit = load<f32>(SETTINGS + S_FIREFLY);
    if (limit > 0) {
      const l = luminance(r, g, b);
      scatteredLight += l;
      if (l > limit) {
        const k = limit / l;
        r *= k;
        g *= k;
        b *= k;
        limitedLight += l - limit;
      }
    }
  }
  pathR += r;
  pathG += g;
  pathB += b;
  if (load<u32>(SETTINGS + S_LAYERS)) {
    const at = groups + <usize>(group * 12);
    store<f32>(at, load<f32>(at) + r);
    store<f32>(at, load<f32>(at, 4) + g, 4);
    store<f32>(at, load<f32>(at, 8) + b, 8);
  }
  if (load<u32>(SETTINGS + S_AOVS)) aovs.addLight(r, g, b, bounce <= 1);
}

const OCCLUSION_PAIR: u32 = 4095; // no bounce and no pass comes to it

/**
 * Looks from the surface made last into a direction of the cosine hemisphere about it, as far as ambientOcclusion is asked for.
 */
function lookAround(): void {
  random2D(OCCLUSION_PAIR);
  const r = sqrt<f32>(u0),
    z = sqrt<f32>(max<f32>(0, <f32>1 - u0));
  sinCosTurns(u1);
  const x = r * cosOut,
    y = r * sinOut,
    gx = surface.gx,
    gy = surface.gy,
    gz = surface.gz;
  const sign = copysign<f32>(1, gz),
    p: f32 = -(<f32>1) / (sign + gz),
    q = gx * gy * p; // frame: Duff and others 2017
  startRay(
    shadowRay,
    x * (<f32>1 + sign * gx * gx * p) + y * q + z * gx,
    x * sign * q + y * (sign + gy * gy * p) + z * gy,
    -x * sign * gx - y * gy + z * gz,
    load<f32>(SETTINGS + S_AMBIENT_OCCLUSION)
  );
  aovs.setOpenness(occluded(shadowRay, 0) ? 0 : luminance(shadowR, shadowG, shadowB));
}

/** Starts `at` from the surface just made, on the side that (dx, dy, dz) leads to. */
function startRay(at: usize, dx: f32, dy: f32, dz: f32, tMax: f32): void {
  if (leavesLifted(dx, dy, dz)) {
    store<f32>(at, surface.liftX + surface.error * surface.gx);
    store<f32>(at, surface.liftY + surface.error * surface.gy, 4);
    store<f32>(at, surface.liftZ + surface.error * surface.gz, 8);
  } else {
    tMax -= 2 * surface.liftBy; // was reckoned from the lifted point
    const away = dx * surface.gx + dy * surface.gy + dz * surface.gz < 0 ? -surface.error : surface.error;
    store<f32>(at, surface.px + away * surface.gx);
    store<f32>(at, surface.py + away * surface.gy, 4);
    store<f32>(at, surface.pz + away * surface.gz, 8);
  }
  store<f32>(at, 0, 12);
  store<f32>(at, dx, 16);
  store<f32>(at, dy, 20);
  store<f32>(at, dz, 24);
  store<f32>(at, tMax, 28);
}

/**
 * Starts the shadow ray towards what lies `distance` from the lifted point. It is aimed from where it starts: beside a
 * lamp as small as a part of 5 mm that is more than 0.0001 of the way off, and a ray that kept direction and length
 * would end behind the lamp's own surface.
 */
function startShadowRay(dx: f32, dy: f32, dz: f32, distance: f32): void {
  startRay(shadowRay, dx, dy, dz, distance);
  if (distance == Infinity) return;
  const x = surface.liftX + dx * distance - load<f32>(shadowRay),
    y = surface.liftY + dy * distance - load<f32>(shadowRay, 4),
    z = surface.liftZ + dz * distance - load<f32>(shadowRay, 8);
  const length = sqrt<f32>(x * x + y * y + z * z);
  if (length > 0) {
    const k: f32 = <f32>1 / length;
    store<f32>(shadowRay, x * k, 16);
    store<f32>(shadowRay, y * k, 20);
    store<f32>(shadowRay, z * k, 24);
  }
  store<f32>(shadowRay, length - surface.error, 28);
}

/** Whether a direction leaves on the viewer's side of the smooth surface that a coarse mesh stands for. */
// @ts-ignore: decorator
@inline
function leavesLifted(dx: f32, dy: f32, dz: f32): bool {
  return surface.lifted && dx * surface.smoothX + dy * surface.smoothY + dz * surface.smoothZ > 0;
}

/**
 * Whether a direction lies on the same side of the flat and the smooth surface; else light would leak through corners.
 */
// @ts-ignore: decorator
@inline
function sidesAgree(dx: f32, dy: f32, dz: f32): bool {
  if (leavesLifted(dx, dy, dz)) return dx * surface.nx + dy * surface.ny + dz * surface.nz > 0;
  const g = dx * surface.gx + dy * surface.gy + dz * surface.gz,
    n = dx * surface.nx + dy * surface.ny + dz * surface.nz;
  return g * n > 0;
}

/**
 * Adds light of radiance (r, g, b) from (dx, dy, dz), sampled with `lightPdf` per solid angle (0 for a point, divided
 * by its chance before: no weighing); the surroundings' own radiance, where they were faced, is looked up here, as fine
 * as the scattering shows it. For `aimedAt` see occluded.
 */
function addLight(
  dx: f32,
  dy: f32,
  dz: f32,
  tMax: f32,
  r: f32,
  g: f32,
  b: f32,
  lightPdf: f32,
  group: u32,
  aimedAt: usize = 0
): void {
  if (!sidesAgree(dx, dy, dz)) return;
  bsdf.evaluate(dx, dy, dz);
  if (!(bsdf.fR + bsdf.fG + bsdf.fB > 0)) return;
  if (group == <u32>GROUP_SURROUNDINGS) {
    sky.skyRadiance(bsdf.pdf, coneSpread);
    r = sky.eR;
    g = sky.eG;
    b = sky.eB;
  }
  const k: f32 = lightPdf > 0 ? <f32>1 / (lightPdf + bsdf.pdf) : 1;
  r *= betaR * bsdf.fR * k;
  g *= betaG * bsdf.fG * k;
  b *= betaB * bsdf.fB * k;
  if (group <= <u32>GROUP_SUN && load<u32>(SETTINGS + S_UNMIRRORED)) {
    const matte = shareOfSurroundings();
    r *= matte;
    g *= matte;
    b *= matte;
  }
  if (!(r + g + b > 0)) return;
  const threshold = load<f32>(SETTINGS + S_CONTRIBUTION_THRESHOLD),
    most = luminance(r, g, b);
  if (most < threshold) {
    // Russian roulette (Arvo and Kirk 1990) by what would come if nothing stood between: never more than the threshold
    // contribution itself
    if (random1D(FIRST_THRESHOLD_PAIR + ((<u32>bounce) << 8) + group) * threshold >= most) return;
    const k = threshold / most;
    r *= k;
    g *= k;
    b *= k;
  }
  startShadowRay(dx, dy, dz, tMax);
  if (ground.meet(shadowRay, tMax) > 0 || occluded(shadowRay, aimedAt)) return;
  const first = !aovs.scattered && load<u32>(SETTINGS + S_AOVS) != 0;
  if (first) aovs.setWay(bsdf.matteShare(), bsdf.transmitted);
  bounce++;
  add(r * shadowR, g * shadowG, b * shadowB, group);
  bounce--;
  if (first) aovs.clearWay();
}

/** How much of the surroundings the scattering evaluated last shows, when mirrors and gloss do not show them. */
function shareOfSurroundings(): f32 {
  return bsdf.transmitted ? 1 : bsdf.matteShare();
}

function addSky(u: f32, v: f32): void {
  if (sky.sampleSky(u, v, bsdf.nx, bsdf.ny, bsdf.nz, bsdf.lightFromBehind))
    addLight(sky.sx, sky.sy, sky.sz, Infinity, 0, 0, 0, sky.sPdf, GROUP_SURROUNDINGS);
}

function addSun(pair: u32): void {
  if (!bsdf.lightFromBehind && sky.sunBehind(bsdf.nx, bsdf.ny, bsdf.nz)) return;
  random2D(pair);
  sky.sampleSun(u0, u1);
  addLight(sky.sx, sky.sy, sky.sz, Infinity, sky.eR, sky.eG, sky.eB, sky.sPdf, GROUP_SUN);
}

// Smoother surfaces show a lamp brighter than matte ones do, by any factor.
const SLIGHT_ROUGHNESS: f32 = 0.3;

let shiny = false; // whether the surface that is lit is; shadow rays leave other materials in surface.ts

/** Illuminance that a matte white surface here would turn into a slight contribution, lx; 0 when every lamp counts. */
function lampThreshold(): f32 {
  if (shiny) return 0;
  const l = luminance(betaR, betaG, betaB);
  return l > 0 ? (load<f32>(SETTINGS + S_CONTRIBUTION_THRESHOLD) * <f32>Math.PI) / l : 0;
}

function addLamp(pair: u32, choice: f32): void {
  if (!lamps.sampleLamp(choice, pair, lampThreshold())) return;
  const times = lamps.lTimes;
  if (lamps.lShape) {
    const l = lamps.lShape;
    if (!shapes.sampleShape(load<u32>(l, L_KIND) - 3, l, surface.liftX, surface.liftY, surface.liftZ, u0, u1)) return;
    addLight(
      shapes.toX,
      shapes.toY,
      shapes.toZ,
      shapes.distance * <f32>0.9999,
      times * load<f32>(l, L_RADIANCE),
      times * load<f32>(l, L_RADIANCE + 4),
      times * load<f32>(l, L_RADIANCE + 8),
      lamps.lightProbability * shapes.density,
      lamps.lGroup,
      load<u32>(l, L_PLACED)
    );
    return;
  }
  // from where the shadow ray will start, else a lamp would shade itself
  let dx = lamps.lx - surface.liftX,
    dy = lamps.ly - surface.liftY,
    dz = lamps.lz - surface.liftZ;
  const d2 = dx * dx + dy * dy + dz * dz;
  if (d2 < <f32>1e-12) return;
  const d = sqrt<f32>(d2),
    k: f32 = <f32>1 / d;
  dx *= k;
  dy *= k;
  dz *= k;
  if (lamps.lTriangle < 0) {
    const by = times / lamps.lightProbability;
    addLight(dx, dy, dz, d * <f32>0.99999, by * lamps.lR, by * lamps.lG, by * lamps.lB, 0, lamps.lGroup);
    return;
  }
  if (!load<u32>(SETTINGS + S_GLOW)) return;
  const facing = -(dx * lamps.lnx + dy * lamps.lny + dz * lamps.lnz);
  surface.findTriangle(lamps.lTriangle, 0, lamps.lU, lamps.lV);
  if (facing <= 0 && !(surface.flags & FLAG_TWO_SIDED)) return;
  if (hasTexture(surface.material, SLOT_EMISSIVE) || surface.flags & (FLAG_ALPHA_MASK | FLAG_ALPHA_BLEND))
    surface.useSharpUv();
  // a scattered ray meets what is cut out or clear of it as seldom
  const share = surface.glowingShare();
  if (share <= 0) return;
  surface.readEmission();
  const cosine = abs<f32>(facing);
  if (cosine < <f32>1e-6) return;
  // the ray ends just before the lamp's own surface: its offset origin would else overshoot at grazing angles
  addLight(
    dx,
    dy,
    dz,
    d * <f32>0.9999,
    times * share * surface.emitR,
    times * share * surface.emitG,
    times * share * surface.emitB,
    (lamps.lightProbability * d2) / cosine,
    lamps.lGroup
  );
}

function addDirectional(i: i32): void {
  const l = lamps.directional(i);
  addLight(
    load<f32>(l),
    load<f32>(l, 4),
    load<f32>(l, 8),
    Infinity,
    load<f32>(l, 12),
    load<f32>(l, 16),
    load<f32>(l, 20),
    0,
    load<u32>(l, D_GROUP)
  );
}

function feature(r: f32, g: f32, b: f32, x: f32, y: f32, z: f32): void {
  featureR = r;
  featureG = g;
  featureB = b;
  featureX = x;
  featureY = y;
  featureZ = z;
}

// A ground seen straight, once a path: what it would show without the model, weighed by the path; what share of the
// backdrop it stands for; and what the path had before.
let groundR: f32 = 0;
let groundG: f32 = 0;
let groundB: f32 = 0;
let groundShare: f32 = 0;
let beforeR: f32 = 0;
let beforeG: f32 = 0;
let beforeB: f32 = 0;

/** Traces sample `sample` of pixel (x, y) and leaves its radiance in pathR, pathG, pathB. */
export function tracePath(x: i32, y: i32, sample: u32, seed: u32): void {
  pathR = 0;
  pathG = 0;
  pathB = 0;
  backdropR = 0;
  backdropG = 0;
  backdropB = 0;
  backdropShare = 0;
  groundShare = 0;
  followPath(x, y, sample, seed);
  if (groundShare == 0) return;
  // all that came by way of the ground is the backdrop, lit as it is with the model there
  const r = pathR - beforeR,
    g = pathG - beforeG,
    b = pathB - beforeB,
    without = luminance(groundR, groundG, groundB);
  backdropR += r;
  backdropG += g;
  backdropB += b;
  backdropShare += without > 0 ? (groundShare * luminance(r, g, b)) / without : groundShare;
}

/** Adds surroundings seen past the model; as backdrop when they stand for a share of it. */
function addPlain(r: f32, g: f32, b: f32, share: f32): void {
  add(r, g, b, GROUP_SURROUNDINGS);
  if (share <= 0) return;
  backdropR = r;
  backdropG = g;
  backdropB = b;
  backdropShare = share;
}

/**
 * Roulette keeps a path with so many times its weight as chance. Cut early it is grain, and so is cutting what has lost
 * nothing, as glass does to it. As efficient, in parts of the demo's pictures, as by its weight alone, at most 0.95,
 * from the third bounce on: eaves 1.08, grass 1.05, shelves 1.01, star globe 1.00, lamp's socket 2.3, its ring 4.0; no
 * part has more than 1.3 % more grain2. Cut from the first bounce on (8, 5, 2 times): eaves 1.05, ring 3.3, and 22 %
 * more grain2 in the dark room of the globe.
 */
// @ts-ignore: decorator
@inline
function survivalFactor(bounce: i32): f32 {
  return bounce == 1 ? Infinity : bounce == 2 ? 16 : 3;
}

function followPath(x: i32, y: i32, sample: u32, seed: u32): void {
  feature(0, 0, 0, 0, 0, 0);
  const layers = load<u32>(SETTINGS + S_LAYERS);
  if (layers) memory.fill(groups, 0, <usize>(layers * 12));
  const aided = load<u32>(SETTINGS + S_AOVS) != 0;
  if (aided) aovs.begin();
  let depth: f32 = 0;
  betaR = 1;
  betaG = 1;
  betaB = 1;
  bounce = 0;
  channel = -1;
  startSample(x, y, sample, seed);
  random2D(0);
  const fu = u0,
    fv = u1;
  if (load<f32>(SETTINGS + S_LENS_RADIUS) > 0) random2D(1);
  cameraRay(ray, x, y, fu, fv, u0, u1);
  let width = coneWidth,
    spread = coneSpread;
  const mostBounces = load<i32>(SETTINGS + S_BOUNCES);
  const hasSky = sky.hasSky(),
    belowThreshold = load<u32>(SETTINGS + S_SKY_BELOW_THRESHOLD) != 0;
  // of each kind of light one is looked for wherever something scatters: what would bring little is soon left to chance
  const seekSky = hasSky && !belowThreshold,
    seekSun = sky.hasSun(),
    seekLamp = lamps.lampCount() > 0;
  let bsdfPdf: f32 = 0; // of the last scattering; 0 means it was a perfect mirror or the camera: no weighing
  let travelled: f32 = 0; // since the last scattering
  const openBacks = load<u32>(SETTINGS + S_OPEN_BACKS) != 0;
  const unmirrored = load<u32>(SETTINGS + S_UNMIRRORED) != 0;
  let around: f32 = 1; // share of the surroundings that the path shows
  let straight = true;
  let inRoom = portals.inRoom();
  let diffuse: u32 = 0,
    gloss: u32 = 0,
    glass: u32 = 0,
    last = false; // scatterings by kind; last when one was too many
  const glow = load<u32>(SETTINGS + S_GLOW) != 0;
  let following = true,
    tintR: f32 = 1,
    tintG: f32 = 1,
    tintB: f32 = 1; // of the feature
  let passes: u32 = 0;
  let sigmaR: f32 = 0,
    sigmaG: f32 = 0,
    sigmaB: f32 = 0,
    inside = false;
  let polished = false,
    plainR: f32 = 0,
    plainG: f32 = 0,
    plainB: f32 = 0,
    plainShare: f32 = 0; // mirrored by the ground's polish: what is seen when that meets nothing

  while (true) {
    intersect(ray);
    const dx = load<f32>(ray, 16),
      dy = load<f32>(ray, 20),
      dz = load<f32>(ray, 24);
    const level = inside ? <f32>-1 : ground.meet(ray, hitTriangle < 0 ? <f32>Infinity : hitT),
      onGround = level > 0;
    if (polished && hitTriangle < 0) {
      addPlain(plainR, plainG, plainB, straight ? plainShare : 0);
      return;
    }
    if (polished) {
      polished = false;
      straight = false;
    }
    if (hitTriangle < 0 && !onGround) {
      let r: f32 = 0,
        g: f32 = 0,
        b: f32 = 0;
      if (hasSky) {
        sky.face(dx, dy, dz);
        sky.skyRadiance(bsdfPdf, coneSpread);
        const w: f32 = bsdfPdf > 0 && !belowThreshold ? bsdfPdf / (bsdfPdf + sky.skyPdf(dx, dy, dz)) : 1;
        r = sky.eR * w;
        g = sky.eG * w;
        b = sky.eB * w;
      }
      let plain: f32 = 1;
      if (bsdfPdf == 0 && stars.starlight(dx, dy, dz, spread)) {
        // the filter must not take a star for grain
        plain = g / max<f32>(g + stars.starG, <f32>1e-20);
        r += stars.starR;
        g += stars.starG;
        b += stars.starB;
      }
      if (following) feature(tintR * plain, tintG * plain, tintB * plain, 0, 0, 0);
      let sunR: f32 = 0,
        sunG: f32 = 0,
        sunB: f32 = 0;
      const sunPdf = sky.sunPdf(dx, dy, dz);
      if (sunPdf > 0) {
        sky.sunRadiance(dx, dy, dz);
        const w: f32 = bsdfPdf > 0 ? bsdfPdf / (bsdfPdf + sunPdf) : 1;
        sunR = sky.eR * w;
        sunG = sky.eG * w;
        sunB = sky.eB * w;
      }
      r *= betaR * around;
      g *= betaG * around;
      b *= betaB * around;
      add(r, g, b, GROUP_SURROUNDINGS);
      sunR *= betaR * around;
      sunG *= betaG * around;
      sunB *= betaB * around;
      if (sunR + sunG + sunB > 0) add(sunR, sunG, sunB, GROUP_SUN);
      r += sunR;
      g += sunG;
      b += sunB;
      if (straight) {
        backdropR = r;
        backdropG = g;
        backdropB = b;
        backdropShare = min<f32>(1, luminance(betaR, betaG, betaB));
      }
      return;
    }
    const t = onGround ? level : hitT,
      triangle = hitTriangle,
      placed: usize = onGround ? 0 : hitPlaced,
      pair = 4 + <u32>bounce * PAIRS_PER_BOUNCE;
    width += spread * t;
    travelled += t;
    if (bounce == 0) depth += t;
    if (inside) {
      betaR *= exp(-sigmaR * t);
      betaG *= exp(-sigmaG * t);
      betaB *= exp(-sigmaB * t);
    }
    if (!onGround && placed && load<u32>(placed, PLACED_KIND) != PLACED_OBJECT) {
      const l = lamps.lightAt(load<u32>(placed, PLACED_LIGHT));
      let w: f32 = 1;
      if (bsdfPdf > 0) {
        // seen from where the path scattered last, which may lie before a transparent surface
        const back = travelled - t,
          x = load<f32>(ray) - dx * back,
          y = load<f32>(ray, 4) - dy * back,
          z = load<f32>(ray, 8) - dz * back;
        w =
          bsdfPdf /
          (bsdfPdf +
            lamps.probabilityOfLight(l) *
              shapes.densityOfShape(load<u32>(placed, PLACED_KIND), l, x, y, z, dx, dy, dz, travelled));
      }
      // mirrored or through glass it is one of several things seen there by chance: a normal of its own would be grain
      // in the features
      if (following) {
        if (bounce == 0) feature(tintR, tintG, tintB, -dx, -dy, -dz);
        else feature(tintR, tintG, tintB, 0, 0, 0);
      }
      add(
        betaR * load<f32>(l, L_RADIANCE) * w,
        betaG * load<f32>(l, L_RADIANCE + 4) * w,
        betaB * load<f32>(l, L_RADIANCE + 8) * w,
        load<u32>(l, L_GROUP)
      );
      return;
    }
    random2Dx4(pair);
    const choice = f32x4.extract_lane(four0, 0),
      surfaceSample = f32x4.extract_lane(four1, 0),
      wayU = f32x4.extract_lane(four0, 1),
      wayV = f32x4.extract_lane(four1, 1);
    const skyU = f32x4.extract_lane(four0, 2),
      skyV = f32x4.extract_lane(four1, 2),
      lampChoice = f32x4.extract_lane(four0, 3),
      rouletteSample = f32x4.extract_lane(four1, 3);
    if (onGround) {
      const px = load<f32>(ray) + t * dx,
        pz = load<f32>(ray, 8) + t * dz,
        near: f32 = straight ? ground.presence(px, pz) : 1;
      sky.face(dx, dy, dz);
      sky.skyRadiance(bsdfPdf, coneSpread);
      ground.reckon(px, pz, sky.eR, sky.eG, sky.eB, straight);
      const share = min<f32>(1, luminance(betaR, betaG, betaB));
      if (following) {
        feature(
          tintR * min<f32>(1, ground.whiteR),
          tintG * min<f32>(1, ground.whiteG),
          tintB * min<f32>(1, ground.whiteB),
          0,
          1,
          0
        );
        following = false;
      }
      plainR = betaR * sky.eR;
      plainG = betaG * sky.eG;
      plainB = betaB * sky.eB;
      plainShare = share;
      if (straight && (near <= 0 || bounce >= mostBounces || last)) {
        addPlain(plainR, plainG, plainB, share);
        return;
      }
      if (bounce >= mostBounces || last) return;
      const shine = near * ground.polish(-dy);
      random2D(pair + 7);
      if (u0 < shine) {
        const kept = ground.mirror(dx, dy, dz, wayU, wayV);
        if (kept <= 0) {
          addPlain(plainR, plainG, plainB, straight ? share : 0);
          return;
        }
        betaR *= kept;
        betaG *= kept;
        betaB *= kept;
        surface.makeLevel(px, ground.height(), pz, 0, 0, 0);
        startRay(ray, ground.mirrorX, ground.mirrorY, ground.mirrorZ, Infinity);
        last = ++gloss > load<u32>(SETTINGS + S_GLOSS);
        if (aided && !aovs.scattered) aovs.setFirst(0, false);
        bounce++;
        bsdfPdf = 0;
        travelled = 0;
        polished = true;
        continue;
      }
      if (straight) {
        const far: f32 = <f32>1 - near;
        if (far > 0) addPlain(far * plainR, far * plainG, far * plainB, share * far);
        betaR *= near;
        betaG *= near;
        betaB *= near;
        groundR = betaR * ground.seenR;
        groundG = betaG * ground.seenG;
        groundB = betaB * ground.seenB;
        groundShare = share * near;
        beforeR = pathR;
        beforeG = pathG;
        beforeB = pathB;
      }
      surface.makeLevel(px, ground.height(), pz, ground.whiteR, ground.whiteG, ground.whiteB);
    } else {
      surface.makeSurface(triangle, placed, hitU, hitV, dx, dy, dz, width, surfaceSample, spread >= BLURS);

      // transparent surfaces: not scattering but passing, see transparent.ts. A scattered ray meets the sharp edge of what
      // is cut out, as shadow rays do: of a coarse copy all or nothing would be there
      if (spread >= BLURS && surface.flags & (FLAG_ALPHA_MASK | FLAG_ALPHA_BLEND)) surface.useSharpUv();
      const unseen = straight
        ? (surface.flags & FLAG_UNSEEN) != 0 || (openBacks && !surface.entering && (surface.flags & FLAG_OPEN_BACK) != 0)
        : diffuse == 0 && (surface.flags & FLAG_UNMIRRORED) != 0;
      const coverage: f32 = unseen ? 0 : surface.readAlpha(),
        clear = surface.clearShare();
      if (coverage < 1 || clear > 0) {
        // each test has its own numbers, passed or not: a mirrored path would else meet its own number again and stay
        // trapped
        random2D(FIRST_PASS_PAIR + passes);
        if (++passes > load<u32>(SETTINGS + S_TRANSPARENT_BOUNCES)) return;
        let pass = u0 >= coverage;
        if (!pass && clear > 0) {
          const through =
            clear * (<f32>1 - fresnel(abs<f32>(dx * surface.gx + dy * surface.gy + dz * surface.gz), surface.ior));
          if (u1 < through) {
            pass = true;
            if (portals.inRoom())
              inRoom = !portals.leadsOut(
                dx,
                dy,
                dz,
                surface.px,
                surface.py,
                surface.pz,
                surface.gx,
                surface.gy,
                surface.gz
              );
            betaR *= surface.baseR;
            betaG *= surface.baseG;
            betaB *= surface.baseB;
            tintR *= surface.baseR;
            tintG *= surface.baseG;
            tintB *= surface.baseB;
          } else {
            // what is left: mirrored light of the clear share, and the rest of the material, both divided by their
            // chance
            const left: f32 = <f32>1 / (<f32>1 - through);
            const mirrored = (clear - through) * left;
            if ((u1 - through) * left < mirrored) {
              const g = <f32>2 * (dx * surface.nx + dy * surface.ny + dz * surface.nz);
              const mx = dx - g * surface.nx,
                my = dy - g * surface.ny,
                mz = dz - g * surface.nz;
              if (bounce >= mostBounces || mx * surface.gx + my * surface.gy + mz * surface.gz <= 0) return;
              startRay(ray, mx, my, mz, Infinity);
              bsdfPdf = 0;
              travelled = 0;
              straight = false;
              if (unmirrored) around = 0;
              if (aided && !aovs.scattered) aovs.setFirst(0, false);
              bounce++;
              continue;
            }
            surface.dropClearShare();
          }
        }
        if (pass) {
          startRay(ray, dx, dy, dz, Infinity);
          continue;
        }
      }

      if (aided && bounce == 0) aovs.describe(partOf(triangle, placed), surface.material, depth);
      if (following) {
        following =
          surface.roughness < FOLLOWED_ROUGHNESS &&
          surface.metallic + (<f32>1 - surface.metallic) * surface.transmission > 0.5;
        tintR *= surface.baseR;
        tintG *= surface.baseG;
        tintB *= surface.baseB;
        if (surface.flags & FLAG_EMISSIVE) feature(1, 1, 1, surface.nx, surface.ny, surface.nz);
        else feature(tintR, tintG, tintB, surface.nx, surface.ny, surface.nz); // of what is followed: in case nothing comes behind it
      }
      if (
        surface.flags & FLAG_EMISSIVE &&
        (glow || bsdfPdf == 0) &&
        (surface.entering || surface.flags & FLAG_TWO_SIDED)
      ) {
        // as sharp as a light sample reads it, or the two strategies would weigh different lights
        if (bsdfPdf > 0 && hasTexture(surface.material, SLOT_EMISSIVE)) surface.useSharpUv();
        surface.readEmission();
        let w: f32 = 1;
        if (bsdfPdf > 0) {
          const perArea = lamps.probabilityOfTriangle(triangle);
          if (perArea > 0) {
            const cosine = max<f32>(abs<f32>(dx * surface.gx + dy * surface.gy + dz * surface.gz), <f32>1e-6);
            w = bsdfPdf / (bsdfPdf + (perArea * travelled * travelled) / cosine);
          }
        }
        add(
          betaR * surface.emitR * w,
          betaG * surface.emitG * w,
          betaB * surface.emitB * w,
          load<u32>(surface.material + M_GROUP)
        );
      }
    }
    if (bounce >= mostBounces || last) {
      if (aided && bounce == 0) lookAround();
      return;
    }

    const solid = (surface.flags & FLAG_SOLID) != 0,
      entering = surface.entering,
      material = surface.material,
      rough = surface.roughness;
    if (solid && channel < 0 && surface.flags & FLAG_LAYERED && surface.dispersion > 0) {
      random2D(pair + 7);
      channel = min<i32>(<i32>(u0 * 3), 2);
      betaR *= channel == 0 ? <f32>3 : <f32>0;
      betaG *= channel == 1 ? <f32>3 : <f32>0;
      betaB *= channel == 2 ? <f32>3 : <f32>0;
    }
    shiny = rough < SLIGHT_ROUGHNESS;
    bsdf.prepareBsdf(-dx, -dy, -dz, channel);
    // not before: rays that pass transparent surfaces leave their materials in surface.ts
    if (aided && bounce == 0) lookAround();
    if (inRoom && bsdf.scatters)
      portals.setReceiver(surface.px, surface.py, surface.pz, surface.nx, surface.ny, surface.nz, bsdf.lightFromBehind);
    else portals.seenFromNowhere();
    if (seekLamp)
      lamps.setReceiver(surface.px, surface.py, surface.pz, surface.nx, surface.ny, surface.nz, bsdf.lightFromBehind);
    if (bsdf.scatters) {
      if (seekSky) addSky(skyU, skyV);
      if (seekSun) addSun(pair + 4);
      if (seekLamp) addLamp(pair + 5, lampChoice);
      for (let i = 0, n = lamps.directionalCount(); i < n; i++) addDirectional(i);
    }

    if (!bsdf.sample(choice, wayU, wayV)) return;
    if (bsdf.transmitted == staysOutside()) return;
    betaR *= bsdf.weightR;
    betaG *= bsdf.weightG;
    betaB *= bsdf.weightB;
    if (bsdf.kind == bsdf.DIFFUSE) last = ++diffuse > load<u32>(SETTINGS + S_DIFFUSE);
    else if (bsdf.kind == bsdf.GLOSS) last = ++gloss > load<u32>(SETTINGS + S_GLOSS);
    else last = ++glass > load<u32>(SETTINGS + S_GLASS);
    if (aided && !aovs.scattered) aovs.setFirst(bsdf.delta ? 0 : bsdf.matteShare(), bsdf.transmitted);
    bounce++;
    bsdfPdf = bsdf.delta ? 0 : bsdf.pdf;
    if (unmirrored && !bsdf.transmitted) around = bsdf.delta ? 0 : shareOfSurroundings();
    if (!bsdf.delta) spread = max<f32>(spread, rough);
    travelled = 0;
    if (!(bsdf.delta && bsdf.transmitted)) straight = false;
    if (bsdf.transmitted && solid) {
      inside = entering;
      if (inside) {
        sigmaR = load<f32>(material + M_SIGMA);
        sigmaG = load<f32>(material + M_SIGMA, 4);
        sigmaB = load<f32>(material + M_SIGMA, 8);
      }
    }
    const survive = survivalFactor(bounce) * max3(betaR, betaG, betaB);
    if (survive < 1) {
      if (rouletteSample >= survive) return;
      const k: f32 = <f32>1 / survive;
      betaR *= k;
      betaG *= k;
      betaB *= k;
    }
    if (!(betaR + betaG + betaB > 0)) return;
    startRay(ray, bsdf.wx, bsdf.wy, bsdf.wz, Infinity);
  }
}

/**
 * Whether the sampled direction leaves on the viewer's side of the flat surface, or of the smooth one that it stands
 * for.
 */
// @ts-ignore: decorator
@inline
function staysOutside(): bool {
  return (
    bsdf.wx * surface.gx + bsdf.wy * surface.gy + bsdf.wz * surface.gz > 0 || leavesLifted(bsdf.wx, bsdf.wy, bsdf.wz)
  );
}
