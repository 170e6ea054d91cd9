/** What a material of a file may be, from its name: the one of the library that shares most of its words. */
import { MATERIAL_LIBRARY, type LibraryMaterial } from './material-library';

/** Words of other programs and languages, by the words of the library. */
const MEANS: Record<string, string> = {
  wood: 'oak oiled',
  timber: 'larch raw',
  parquet: 'oak lacquered',
  eiche: 'oak oiled',
  chene: 'oak oiled',
  nussbaum: 'walnut oiled',
  esche: 'ash oiled',
  holz: 'oak oiled',
  plywood: 'plywood birch',
  metal: 'steel brushed',
  stainless: 'steel brushed',
  stahl: 'steel brushed',
  inox: 'steel brushed',
  iron: 'steel blackened',
  alu: 'aluminium matte',
  aluminum: 'aluminium matte',
  messing: 'brass brushed',
  kupfer: 'copper polished',
  corten: 'steel weathering',
  glas: 'glass clear',
  window: 'glass clear',
  pane: 'glass clear',
  beton: 'concrete cast',
  ziegel: 'brick red',
  putz: 'plaster white',
  stucco: 'render rough',
  gypsum: 'plaster white',
  wall: 'paint white',
  ceiling: 'paint white',
  marmor: 'marble white polished',
  stone: 'limestone honed',
  fabric: 'linen natural',
  cloth: 'linen natural',
  textile: 'linen natural',
  cushion: 'wool moss',
  carpet: 'wool charcoal',
  leder: 'leather tan',
  grass: 'lawn',
  soil: 'earth',
  tyre: 'rubber black',
  tire: 'rubber black',
  gummi: 'rubber black',
  kunststoff: 'plastic white matte',
  papier: 'paper',
  porzellan: 'porcelain white'
};

const wordsOf = (text: string): string[] =>
  text
    .replaceAll(/([a-z])([A-Z])/g, '$1 $2')
    .toLowerCase()
    .normalize('NFD')
    .split(/[^a-z]+/)
    .filter((word) => word.length > 2);

/** Null where no word of the name says what it is. */
export function suggestMaterial(name: string): LibraryMaterial | null {
  const said = wordsOf(name);
  const meant = new Set(said.flatMap((word) => [word, ...(MEANS[word]?.split(' ') ?? [])]));
  let best: LibraryMaterial | null = null;
  let most = 0;
  for (const entry of MATERIAL_LIBRARY) {
    const words = wordsOf(entry.name);
    // the first word is what it is, the others how
    if (!meant.has(words[0]!)) continue;
    const score = words.filter((word) => meant.has(word)).length - words.length / 100;
    if (score > most) [best, most] = [entry, score];
  }
  return best;
}
