/** Which lamps of a model belong together, by their names: "Shelf lamp 3" and "shelf_lamp.004" are one group. */
const GENERIC = /^(mesh|object|node|geometry|group|primitive|default|scene|light|lamp)?$/i;

/** The name of a lamp's group: no number at its end, nothing that a layer's name may not have. */
export const lampGroup = (name: string): string =>
  name
    .replace(/[\s_.-]*\d+$/, '')
    .replace(/[^\p{L}\p{N} _-]+/gu, '-')
    .trim() || 'lamps';

/** Names of groups are taken as they are meant, however they are written. */
export const sameGroup = (a: string, b: string): boolean => a.toLowerCase() === b.toLowerCase();
export const isAmong = (groups: readonly string[], group: string): boolean => groups.some((g) => sameGroup(g, group));

/**
 * The name of a lamp: that of the part it belongs to, or `other`, of its light or its material, when the part's name
 * says nothing.
 */
export const lampName = (part: string, other: string): string =>
  GENERIC.test(lampGroup(part)) && other ? other : part;

/** A lamp of a model, where it is. */
export interface LampPlace {
  name: string;
  kind: 'lamps' | 'glowing';
  at_m: [number, number, number];
  /** Names of what it is part of, from the outermost. */
  within: string[];
  /** On a hidden layer: off until it is asked for. */
  hidden?: true;
}
