// What a path tells beside its light when aovs are kept: its first surface, and the light by the way it came. 56 bytes,
// f32 unless said:
// 0 direct light rgb, 12 light that the first surface mirrored rgb, 24 light that it let through as glass rgb, 36
//   ambientOcclusion (the share of a
// cosine hemisphere that is free about it), 40 its depth in m, 44 1 when there was one, u32 48 its part, u32 52 its
//   material, from 1 on.
// What is seen through a clear pane counts as the first surface.
import { MATERIAL_BYTES, P_MATERIALS_PTR, PACK } from './layout';

export let aovs: usize = 0;
const GLOSS = 12;
const GLASS = 24;
const OCCLUSION = 36;
const DEPTH = 40;
const HIT = 44;
const OBJECT = 48;
const MATERIAL = 52;
const BYTES = 56;

/**
 * Shares of the light, in the direction scattered first, that were mirrored or went through glass; and whether there
 * was such a scattering.
 */
let byGloss: f32 = 0;
let byGlass: f32 = 0;
export let scattered: bool = false;

/** Gives this instance 64 bytes. */
export function setScratch(address: usize): void {
  aovs = address;
}

export function begin(): void {
  memory.fill(aovs, 0, BYTES);
  clearWay();
  scattered = false;
}

export function clearWay(): void {
  byGloss = 0;
  byGlass = 0;
}

/** By which way light comes of which the matte layer scatters a share of `matte`. */
export function setWay(matte: f32, transmitted: bool): void {
  byGloss = transmitted ? 0 : <f32>1 - matte;
  byGlass = transmitted ? <f32>1 - matte : 0;
}

/** The same of the path's first scattering, for all that it brings from there on. */
export function setFirst(matte: f32, transmitted: bool): void {
  setWay(matte, transmitted);
  scattered = true;
}

export function addLight(r: f32, g: f32, b: f32, direct: bool): void {
  if (direct) add(0, r, g, b);
  if (byGloss > 0) add(GLOSS, r * byGloss, g * byGloss, b * byGloss);
  if (byGlass > 0) add(GLASS, r * byGlass, g * byGlass, b * byGlass);
}

function add(which: usize, r: f32, g: f32, b: f32): void {
  const at = aovs + which;
  store<f32>(at, load<f32>(at) + r);
  store<f32>(at, load<f32>(at, 4) + g, 4);
  store<f32>(at, load<f32>(at, 8) + b, 8);
}

export function describe(part: u32, material: usize, depth: f32): void {
  store<f32>(aovs, depth, DEPTH);
  store<f32>(aovs, 1, HIT);
  store<u32>(aovs, part + 1, OBJECT);
  store<u32>(aovs, <u32>((material - <usize>load<u32>(PACK + P_MATERIALS_PTR)) / MATERIAL_BYTES) + 1, MATERIAL);
}

export function setOpenness(free: f32): void {
  store<f32>(aovs, free, OCCLUSION);
}
