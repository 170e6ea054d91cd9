/** Changes of a picture's pose and of what is placed in it. */
import type { Brief, PlacedPiece, PosedPart } from '../../core/brief/brief';
import type { Vec3 } from '../../core/math/vec3';
import type { ModelPart } from '../../core/scene/model-part';
import { WHOLE } from '../../core/scene/part-paths';
import { isMoved } from '../../core/scene/pose';

type Box = Pick<ModelPart, 'min_m' | 'max_m'>;

/** What a part turns about: the middle of its foot. */
export const pivotOf = ({ min_m, max_m }: Box): [number, number, number] => [
  (min_m[0] + max_m[0]) / 2,
  min_m[1],
  (min_m[2] + max_m[2]) / 2
];

/** The setting of a part; where there is none, that of a part as it came in. */
export const settingOfPart = (pose: Brief['pose'], part: string, box: Box): PosedPart =>
  pose.find((p) => p.part === part) ?? {
    part,
    seen: 'whole',
    turn_deg: [0, 0, 0],
    move_m: [0, 0, 0],
    about_m: pivotOf(box)
  };

/** The pose with one part set anew; one that is as it came in is not listed. */
export function withPart(pose: Brief['pose'], setting: PosedPart): Brief['pose'] {
  const others = pose.filter((p) => p.part !== setting.part);
  return setting.seen === 'whole' && !isMoved(setting) ? others : [...others, setting];
}

/** Posed parts that the model does not have. */
export function lostParts(pose: Brief['pose'], parts: readonly ModelPart[]): PosedPart[] {
  const there = new Set(parts.map((p) => p.path));
  return pose.filter((p) => p.part !== WHOLE && !there.has(p.part));
}

export const roundedPlace = ([x, y, z]: Vec3): [number, number, number] => [
  Math.round(x * 1e4) / 1e4,
  Math.round(y * 1e4) / 1e4,
  Math.round(z * 1e4) / 1e4
];

/** With another number along one axis. */
export const withAxis = (value: Vec3, axis: number, number: number): [number, number, number] =>
  value.map((old, k) => (k === axis ? number : old)) as [number, number, number];

export const newPiece = (model: string, name: string, at: Vec3): PlacedPiece => ({
  name,
  model,
  position_m: roundedPlace(at),
  turn_deg: 0,
  scale: 1,
  seen: 'whole'
});

// Of its own size and turned any way, so that no two look alike.
const SIZES = 0.18;

/** Pieces at these places, each turned and sized a little otherwise. */
export function scattered(model: string, name: string, places: readonly Vec3[], random: () => number): PlacedPiece[] {
  return places.map((at) => ({
    ...newPiece(model, name, at),
    turn_deg: Math.round(360 * random()),
    scale: Math.round((1 - SIZES + 2 * SIZES * random()) * 100) / 100
  }));
}

export interface PieceGroup {
  name: string;
  model: string;
  /** Indices in the brief's list. */
  at: number[];
}

/** Pieces of one name and model as one row. */
export function groupPieces(placed: Brief['placed']): PieceGroup[] {
  const groups = new Map<string, PieceGroup>();
  placed.forEach(({ name, model }, i) => {
    const key = `${model} ${name}`;
    const group = groups.get(key) ?? { name, model, at: [] };
    group.at.push(i);
    groups.set(key, group);
  });
  return [...groups.values()];
}
