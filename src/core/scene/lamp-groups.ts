/** Which lamps of a model belong together, by their names: "Shelf lamp 3" and "shelf_lamp.004" are one group. */
const GENERIC = /^(mesh|object|node|geometry|group|primitive|default|scene|light|lamp)?$/i;

/** The name of a lamp's group: no number at its end, nothing that a layer's name may not have. */
export const lampGroup = (name: string): string => name.replace(/[\s_.-]*\d+$/, '').replace(/[^\p{L}\p{N} _-]+/gu, '-').trim() || 'lamps';

/** The group of a glowing surface: by the part it belongs to, or by its material when the part's name says nothing. */
export function glowGroup(part: string, material: string): string {
  const group = lampGroup(part);
  return GENERIC.test(group) && material ? lampGroup(material) : group;
}
