/** What can be wrong with a model that comes in, and which of it can be put right here. */

/** What can be repaired, in the order in which it is done. */
export const REPAIRS = ['flat', 'doubled', 'inside_out', 'normals', 'open_glass', 'materials', 'textures'] as const;
export type Repair = (typeof REPAIRS)[number];

/** What is repaired without being asked: nobody wants it as it is. */
export const DEFAULT_REPAIRS: readonly Repair[] = ['flat', 'doubled'];

/**
 * `flat`: triangles without an area. `doubled`: triangles on another of the same material. `inside_out`: closed bodies
 * whose faces look inwards. `normals`: parts whose normals look away from their faces. `open_glass`: edges where a body
 * of glass is open. `materials`: materials that are the same but for their names. `textures`: pictures with sides of more
 * pixels than a print shows. `pictures`: files that the model names and that did not come with it. `lamps`: lamps of
 * unlikely strength. `far`: how many times its own size the model lies from its origin.
 */
export type FindingKind = Repair | 'pictures' | 'lamps' | 'far';

export interface Finding {
  kind: FindingKind;
  count: number;
  /** The first of where it is: paths of parts, or names of materials, pictures and lamps. */
  where: string[];
  /** Whether this model is the one in which it was put right. */
  repaired: boolean;
}

/** Whether the places of a finding are parts of the model, which can be shown on the stage. */
export const isOfParts = (kind: FindingKind): boolean =>
  kind === 'flat' || kind === 'doubled' || kind === 'inside_out' || kind === 'normals' || kind === 'open_glass';

export const isRepair = (kind: FindingKind): kind is Repair => (REPAIRS as readonly string[]).includes(kind);

/** What is to be repaired in the next reading of a model: what was, and what of the defaults was not found in it. */
export function repairsAfter(health: readonly Finding[] | undefined): Repair[] {
  const found = new Map(health?.map((finding) => [finding.kind, finding.repaired]));
  return REPAIRS.filter((repair) => found.get(repair) ?? DEFAULT_REPAIRS.includes(repair));
}

const many = (n: number, one: string, more = `${one}s`) => `${n.toLocaleString('en')} ${n === 1 ? one : more}`;
const are = (n: number) => (n === 1 ? 'is' : 'are');
const FOUND: Record<FindingKind, (n: number) => string> = {
  flat: (n: number) => `${many(n, 'triangle has', 'triangles have')} no area.`,
  doubled: (n: number) => `${many(n, 'triangle lies', 'triangles lie')} on another: black patches.`,
  inside_out: (n: number) => `${many(n, 'body', 'bodies')} ${are(n)} inside out: light meets the wrong side.`,
  normals: (n: number) => `The shading of ${many(n, 'part')} looks away from ${n === 1 ? 'its' : 'their'} faces.`,
  open_glass: (n: number) => `${many(n, 'edge stands', 'edges stand')} open in glass: it refracts wrongly.`,
  materials: (n: number) => `${many(n, 'material is', 'materials are')} the same as another but for the name.`,
  textures: (n: number) => `${many(n, 'picture is', 'pictures are')} larger than a print shows.`,
  pictures: (n: number) => `${many(n, 'file', 'files')} that the model asks for did not come with it.`,
  lamps: (n: number) =>
    `${many(n, 'lamp has', 'lamps have')} an unlikely strength; dim ${n === 1 ? 'it' : 'them'} under Lamps.`,
  far: (n: number) =>
    `The model lies ${n.toLocaleString('en')} times its own size from its origin; fine detail may be lost. Export it nearer.`
};
const REPAIRED: Record<Repair, (n: number) => string> = {
  flat: (n: number) => `${many(n, 'triangle', 'triangles')} without an area ${n === 1 ? 'was' : 'were'} taken out.`,
  doubled: (n: number) => `${many(n, 'triangle')} that lay on another ${n === 1 ? 'was' : 'were'} taken out.`,
  inside_out: (n: number) => `${many(n, 'body was', 'bodies were')} turned right side out.`,
  normals: (n: number) => `The shading of ${many(n, 'part')} was made anew.`,
  open_glass: (n: number) => `${many(n, 'open edge', 'open edges')} in glass ${n === 1 ? 'was' : 'were'} closed.`,
  materials: (n: number) => `${many(n, 'material was', 'materials were')} joined with another that is the same.`,
  textures: (n: number) => `${many(n, 'picture was', 'pictures were')} made smaller.`
};

/** A finding as a sentence: what is wrong, or what was put right. */
export const tellFinding = ({ kind, count, repaired }: Finding): string =>
  repaired && isRepair(kind) ? REPAIRED[kind](count) : FOUND[kind](count);
