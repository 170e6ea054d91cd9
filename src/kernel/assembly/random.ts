// Owen-scrambled Sobol points by hashing. Source: Burley, Practical Hash-based Owen Scrambling, JCGT 9(4), 2020; the
// permutation constants are those of Vegdahl's improved Laine-Karras hash (2021).
// One two-dimensional sequence per pixel, half and dimension pair: any sample index can be computed anywhere, in any order.
// The second Sobol dimension is the Pascal matrix mod 2; by Lucas' theorem bit i is the sum over the supersets of i, which a
// butterfly of five steps gives without a table.
import { S_WITHOUT, SETTINGS, WITHOUT_LOW_DISCREPANCY } from './layout';

let seedOfPixel: u32 = 0;
let indexOfSample: u32 = 0;
let reversedIndex: u32 = 0;
/** The point drawn last, both in [0, 1). */
export let u0: f32 = 0;
export let u1: f32 = 0;

function mix(h: u32): u32 {
  h ^= h >> 16; h *= 0x7feb352d; h ^= h >> 15; h *= 0x846ca68b; h ^= h >> 16; // lowbias32, Wellons 2018
  return h;
}

// @ts-ignore: decorator
@inline
function reverse(x: u32): u32 {
  x = ((x >> 1) & 0x55555555) | ((x & 0x55555555) << 1);
  x = ((x >> 2) & 0x33333333) | ((x & 0x33333333) << 2);
  x = ((x >> 4) & 0x0f0f0f0f) | ((x & 0x0f0f0f0f) << 4);
  x = ((x >> 8) & 0x00ff00ff) | ((x & 0x00ff00ff) << 8);
  return (x >> 16) | (x << 16);
}

// @ts-ignore: decorator
@inline
function permute(x: u32, seed: u32): u32 {
  x ^= x * 0x3d20adea; x += seed; x *= (seed >> 16) | 1; x ^= x * 0x05526c56; x ^= x * 0x53a22864;
  return x;
}

// @ts-ignore: decorator
@inline
function toUnit(x: u32): f32 {
  return <f32>(x >> 8) * <f32>5.9604644775390625e-8;
}

/** Starts a sample: the even and the odd samples of a pixel are two halves with independent scrambles. */
export function startSample(x: u32, y: u32, sample: u32, seed: u32): void {
  seedOfPixel = mix(mix(mix(x + 0x9e3779b9) ^ y) ^ (seed * 2 + (sample & 1)));
  indexOfSample = sample >> 1;
  if (load<u32>(SETTINGS + S_WITHOUT) & WITHOUT_LOW_DISCREPANCY) { seedOfPixel = mix(seedOfPixel + indexOfSample * 0x9e3779b9); indexOfSample = 0; }
  reversedIndex = reverse(indexOfSample);
}

/** Draws the point of a dimension pair into u0, u1. */
export function draw(pair: u32): void {
  const seed = mix(seedOfPixel ^ (pair * 0x9e3779b9 + 0x85ebca6b));
  const index = reverse(permute(reversedIndex, seed));
  u0 = toUnit(reverse(permute(index, mix(seed ^ 0xa511e9b3))));
  let y = index;
  y ^= (y >> 1) & 0x55555555;
  y ^= (y >> 2) & 0x33333333;
  y ^= (y >> 4) & 0x0f0f0f0f;
  y ^= (y >> 8) & 0x00ff00ff;
  y ^= y >> 16;
  u1 = toUnit(reverse(permute(y, mix(seed ^ 0x63d83595))));
}

/** One number for a decision that needs no good spread: hashed, no sequence. */
export function dice(pair: u32): f32 {
  return toUnit(mix(seedOfPixel + indexOfSample * 0x9e3779b9 ^ pair * 0x85ebca6b));
}
