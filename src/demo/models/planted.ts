/** A tree or shrub that is drawn once and stands in many places. */
import type { tree } from '../../drawing/pieces/plants';
import type { DrawnMaterial, DrawnModel } from '../../drawing/write-model';

export type Copy = NonNullable<DrawnModel['copies']>[number];
export type Place = Copy['places'][number];

/** Its leaves have a material of their own in `materials`, named after it. */
export function planted(
  name: string,
  { mesh, materials: drawn }: ReturnType<typeof tree>,
  places: Place[],
  materials: Record<string, DrawnMaterial>
): Copy {
  const foliage = `${name.toLowerCase()} foliage`;
  materials[foliage] = drawn.foliage!;
  return { name, mesh: mesh.rename('foliage', foliage), places };
}
