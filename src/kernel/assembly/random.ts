// Owen-scrambled Sobol points by hashing. Source: Burley, Practical Hash-based Owen Scrambling, JCGT 9(4), 2020; the
// permutation constants are those of Vegdahl's improved Laine-Karras hash (2021).
// One two-dimensional sequence per pixel, half and dimension pair: any sample index can be computed anywhere, in any
// order. The second Sobol dimension is the Pascal matrix mod 2; by Lucas' theorem bit i is the sum over the supersets
// of i, which a butterfly of five steps gives without a table.
import { S_WITHOUT, SETTINGS, WITHOUT_LOW_DISCREPANCY } from './layout';

let seedOfPixel: u32 = 0;
let indexOfSample: u32 = 0;
let reversedIndex: u32 = 0;
/** The point drawn last, both in [0, 1). */
export let u0: f32 = 0;
export let u1: f32 = 0;

function mix(h: u32): u32 {
  h ^= h >> 16;
  h *= 0x7feb352d;
  h ^= h >> 15;
  h *= 0x846ca68b;
  h ^= h >> 16; // lowbias32, Wellons 2018
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
  x ^= x * 0x3d20adea;
  x += seed;
  x *= (seed >> 16) | 1;
  x ^= x * 0x05526c56;
  x ^= x * 0x53a22864;
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
  if (load<u32>(SETTINGS + S_WITHOUT) & WITHOUT_LOW_DISCREPANCY) {
    seedOfPixel = mix(seedOfPixel + indexOfSample * 0x9e3779b9);
    indexOfSample = 0;
  }
  reversedIndex = reverse(indexOfSample);
}

/** Draws the point of a dimension pair into u0, u1. */
export function random2D(pair: u32): void {
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

/** The points of the four pairs drawn last, one a lane: their first and their second numbers. */
export let four0: v128 = f32x4.splat(0);
export let four1: v128 = f32x4.splat(0);

// @ts-ignore: decorator
@inline
function xorShifted(h: v128, by: i32): v128 {
  return v128.xor(h, i32x4.shr_u(h, by));
}

// @ts-ignore: decorator
@inline
function mixFour(h: v128): v128 {
  return xorShifted(
    i32x4.mul(xorShifted(i32x4.mul(xorShifted(h, 16), i32x4.splat(0x7feb352d)), 15), i32x4.splat(0x846ca68b)),
    16
  );
}

// Bytes in reverse, and in each the bits of its halves by a table.
// @ts-ignore: decorator
@inline
function reverseFour(x: v128): v128 {
  const turned = i8x16(0, 8, 4, 12, 2, 10, 6, 14, 1, 9, 5, 13, 3, 11, 7, 15),
    low = i8x16.splat(15);
  const bytes = i8x16.shuffle(x, x, 3, 2, 1, 0, 7, 6, 5, 4, 11, 10, 9, 8, 15, 14, 13, 12);
  return v128.or(
    i32x4.shl(i8x16.swizzle(turned, v128.and(bytes, low)), 4),
    i8x16.swizzle(turned, v128.and(i32x4.shr_u(bytes, 4), low))
  );
}

// @ts-ignore: decorator
@inline
function permuteFour(x: v128, seed: v128): v128 {
  x = i32x4.add(v128.xor(x, i32x4.mul(x, i32x4.splat(0x3d20adea))), seed);
  x = i32x4.mul(x, v128.or(i32x4.shr_u(seed, 16), i32x4.splat(1)));
  x = v128.xor(x, i32x4.mul(x, i32x4.splat(0x05526c56)));
  return v128.xor(x, i32x4.mul(x, i32x4.splat(0x53a22864)));
}

// @ts-ignore: decorator
@inline
function toUnitFour(x: v128): v128 {
  return f32x4.mul(f32x4.convert_i32x4_s(i32x4.shr_u(x, 8)), f32x4.splat(5.9604644775390625e-8));
}

// @ts-ignore: decorator
@inline
function addShifted(y: v128, by: i32, mask: i32): v128 {
  return v128.xor(y, v128.and(i32x4.shr_u(y, by), i32x4.splat(mask)));
}

/** The points of four dimension pairs in a row into four0, four1: the numbers that random2D gives. */
export function random2Dx4(first: u32): void {
  const pairs = i32x4.add(i32x4.splat(first), i32x4(0, 1, 2, 3));
  const seed = mixFour(
    v128.xor(i32x4.splat(seedOfPixel), i32x4.add(i32x4.mul(pairs, i32x4.splat(0x9e3779b9)), i32x4.splat(0x85ebca6b)))
  );
  const index = reverseFour(permuteFour(i32x4.splat(reversedIndex), seed));
  four0 = toUnitFour(reverseFour(permuteFour(index, mixFour(v128.xor(seed, i32x4.splat(0xa511e9b3))))));
  let y = addShifted(index, 1, 0x55555555);
  y = addShifted(y, 2, 0x33333333);
  y = addShifted(y, 4, 0x0f0f0f0f);
  y = addShifted(y, 8, 0x00ff00ff);
  y = xorShifted(y, 16);
  four1 = toUnitFour(reverseFour(permuteFour(y, mixFour(v128.xor(seed, i32x4.splat(0x63d83595))))));
}

/** One number for a decision that needs no good spread: hashed, no sequence. */
export function random1D(pair: u32): f32 {
  return toUnit(mix((seedOfPixel + indexOfSample * 0x9e3779b9) ^ (pair * 0x85ebca6b)));
}
