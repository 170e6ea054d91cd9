/** Measures what costs time in a brief: patches of it, with one thing less at a time. */
import { type Brief, canonicalJson, setAsideOf } from '../../core/brief/brief';
import { ID_PLACES } from '../../core/film/film';
import { type Cost, MIN_CHANGE, type Saving, takeSaving } from '../../core/forecast/costs';
import { coarserWidths, valuesWithLevels } from '../../core/lights/captured/levels';
import { isPlain } from '../../core/scene/plain-materials';
import { serveTask } from '../jobs/serve-task';
import { extraChannels, readExtra } from '../render/extra-channels';
import { comparePatches, openPatches, type Patches, PIECE_SAMPLES } from '../render/patch-pairs';
import { refuseDark } from '../../core/recipe/light';
import { openStoredScene } from '../render/stored-scene';

const MIN_COVERED = 0.03;

serveTask('costs', async ({ model, brief, savings, known, materials, size }, { progress }) => {
  const stored = await openStoredScene(model, brief.surroundings);
  const { module, scene, captured } = stored;
  // only quick looks leave things out, so all are prepared as one
  const quick = (of: Brief): Brief => ({ ...of, quality: { ...of.quality, step: 'study' } });
  const ready = (of: Brief, ev100: number | null) =>
    stored.prepare(ev100 === null ? quick(of) : { ...quick(of), exposure: { ev100 } });
  const whole = await ready(brief, null);
  refuseDark(whole);
  const { ev100 } = whole;
  const measured = async (from: Patches, of: Brief, saving: Saving): Promise<Cost> => {
    const less = openPatches(await ready({ ...of, ...takeSaving(saving, of) }, ev100), module);
    try {
      return { saving, ...(await comparePatches({ whole: from, less }, brief)) };
    } finally {
      await less.close();
    }
  };
  /** Those that are worth making plain, by what they cover of the patches. */
  const coveringMaterials = async (): Promise<Saving[]> => {
    const looked = await ready({ ...brief, quality: { ...brief.quality, aovs: true, layers: false } }, ev100);
    const { patches, render, close } = openPatches(looked, module);
    const names = extraChannels(looked.layers);
    const first = names.indexOf('material.id0');
    const extra = new Float32Array(names.length);
    const shares = new Map<number, number>();
    let pixels = 0;
    for (const patch of patches) {
      const own = patch.width * patch.height;
      const { data } = await render(patch, 0, null);
      pixels += own;
      for (let i = 0; i < own; i++) {
        readExtra(data, i, own, looked.layers, 1 / PIECE_SAMPLES, extra, 0);
        for (let c = first; c < first + 2 * ID_PLACES; c += 2)
          if (extra[c]! > 0) shares.set(extra[c]!, (shares.get(extra[c]!) ?? 0) + extra[c + 1]!);
      }
    }
    await close();
    const done = new Set(setAsideOf(quick(brief)).plain);
    return [...shares]
      .map(([id, count]) => ({ material: scene.materials[id - 1], covers: count / pixels }))
      .filter(
        ({ material, covers }) =>
          material && material.name !== '' && !isPlain(material) && !done.has(material.name) && covers >= MIN_COVERED
      )
      .sort((a, b) => b.covers - a.covers)
      .slice(0, materials)
      .map(({ material, covers }) => ({ kind: 'material', name: material!.name, covers }));
  };
  /**
   * The coarsest copy of the captured image that shows the same: at the whole size, where its fineness would be seen.
   */
  const coarserImage = async ({ width, height }: { width: number; height: number }): Promise<Cost[]> => {
    const full: Brief = { ...brief, size };
    const from = openPatches(await ready(full, ev100), module);
    const bytesOf = (w: number) =>
      Float32Array.BYTES_PER_ELEMENT * valuesWithLevels(w, Math.floor((w * height) / width));
    let found: Cost[] = [];
    try {
      for (const to of coarserWidths(width)) {
        const cost = await measured(from, full, {
          kind: 'captured',
          from: width,
          to,
          bytes: bytesOf(width) - bytesOf(to)
        });
        if (cost.changes >= MIN_CHANGE) break;
        found = [cost];
      }
    } finally {
      await from.close();
    }
    return found;
  };
  const tried = [...savings, ...(await coveringMaterials())];
  const image = captured && whole.settings.light.image;
  const steps = tried.length + (image ? 1 : 0);
  const costs = [...known];
  const isKnown = (saving: Saving) => known.some((c) => canonicalJson(c.saving) === canonicalJson(saving));
  const all = openPatches(whole, module);
  try {
    for (const saving of tried) {
      progress({ costs, steps });
      if (!isKnown(saving)) costs.push(await measured(all, brief, saving));
    }
  } finally {
    await all.close();
  }
  progress({ costs, steps });
  if (image) costs.push(...(await coarserImage(image)));
  return costs;
});
