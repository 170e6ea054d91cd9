/**
 * Sets renders up for others: a process of its own beside the web server, which must stay quick. It keeps the last
 * models in memory, so a change of brief is answered in the time that its own part takes; packs go to disk, where the
 * web server and the render service find them.
 */
import { createHash } from 'node:crypto';
import { treeHelpers } from '../render/node-threads';
import { canonicalJson } from '../../core/brief/brief';
import { reduceImage } from '../../core/lights/captured/reduce';
import type { SurroundingsLight } from '../../core/lights/surroundings-light';
import type { Scene } from '../../core/scene/scene';
import type { FloatImage } from '../../formats/hdr/read-hdr';
import { type IndoorsQuestion, openIndoors } from '../../kernel/host/indoors';
import { buildPack } from '../../kernel/host/pack';
import { buildRig, packHeader } from '../../kernel/host/rig';
import { encodeSetup, type RenderSetup } from '../../kernel/host/setup';
import { Refusal } from '../../core/result/result';
import { config } from '../config';
import { findPack, hasPack, packKey, readPack } from '../files/pack-store';
import { readCapturedOf } from '../render/captured-file';
import { loadKernel } from '../render/kernel-file';
import { makeNeutralLight, neutralKey, refuseDark, takesLong } from '../../core/recipe/light';
import { type PackInput, packedModel, packInput } from '../../core/recipe/model';
import { renderRecipe } from '../../core/recipe/recipe';
import { resolveViewpoint } from '../../core/recipe/viewpoint';
import { openReducer } from '../../formats/reduce-mesh';
import { readWebs } from '../render/photometric-files';
import { readPiece } from '../render/pieces';
import { pictureReader } from '../render/surface-pictures';
import { serveTask } from '../jobs/serve-task';
import type { TaskInput } from '../jobs/tasks';
import { readModel } from '../render/stored-scene';

/** Keeps the last few of something by key; what is asked for twice at once is made once. */
class Recent<T> {
  private readonly kept = new Map<string, Promise<T>>();
  constructor(private readonly most: number) {}
  get(key: string, make: () => Promise<T>): Promise<T> {
    const found = this.kept.get(key) ?? make();
    this.kept.delete(key);
    this.kept.set(key, found);
    found.catch(() => this.forget(key));
    if (this.kept.size > this.most) this.forget(this.kept.keys().next().value!);
    return found;
  }
  has(key: string): boolean {
    return this.kept.has(key);
  }
  forget(key: string): void {
    this.kept.delete(key);
  }
}

// A larger captured image is sent reduced: it would be hundreds of megabytes. Its film then differs from a proof's in
// the image's fineness alone.
const LARGEST_PREVIEW_PX = 4096;

const scenes = new Recent<Scene>(2);
const images = new Recent<FloatImage>(2);
const lights = new Recent<SurroundingsLight>(6);
/** Models as they lie in packs, and what is wanted of those. */
const rooms = new Recent<{ model: Scene; indoors: IndoorsQuestion; bytes: number; header: Uint8Array }>(2);
/** What made the packs of this process's life. */
const inputs = new Map<string, { model: string; of: PackInput }>();

/** But for where their origin lies. */
const sameModel = ({ centre_m: _, ...a }: PackInput, { centre_m: __, ...b }: PackInput) =>
  canonicalJson(a) === canonicalJson(b);

async function setUp(request: TaskInput<'setup'>): Promise<Uint8Array> {
  const { model, brief, width, height } = request;
  const module = await loadKernel();
  const scene = await scenes.get(model, () => readModel(model));
  const view = resolveViewpoint(scene, brief);
  const wanted = packInput(view, brief);
  const key = packKey(model, wanted);
  inputs.set(key, { model, of: wanted });
  let pack = key;
  let of = wanted;
  if (!request.exact && request.pack && request.pack !== key && !(await hasPack(key))) {
    const other = inputs.get(request.pack);
    if (other?.model === model && sameModel(other.of, wanted) && (await hasPack(request.pack))) {
      pack = request.pack;
      of = other.of;
    }
  }
  // one that had to give way on disk is made again: the asker will fetch it from there
  if (!(await hasPack(pack))) rooms.forget(pack);
  const room = await rooms.get(pack, async () => {
    const moved = await packedModel(scene, of, { openReducer, readPiece, readPicture: pictureReader() });
    const bytes =
      pack === key
        ? await findPack(
            key,
            () => buildPack(moved, module, () => performance.now(), treeHelpers(config.threads)).bytes
          )
        : await readPack(pack);
    if (!bytes)
      throw new Refusal('damaged', 'the prepared scene was damaged on disk and is made again; try it once more');
    return {
      model: moved,
      indoors: openIndoors({ pack: bytes, rig: buildRig(bytes, moved, module) }, module),
      bytes: bytes.byteLength,
      header: packHeader(bytes)
    };
  });
  const fineKey = neutralKey(brief);
  // a first look has a sky coarse that is not there in full
  const coarse = !request.exact && takesLong(brief) && !lights.has(fineKey);
  const lightKey = coarse ? `${fineKey} coarse` : fineKey;
  const light = await lights.get(lightKey, async () => {
    const { surroundings } = brief;
    const captured =
      surroundings.kind === 'captured'
        ? await images.get(surroundings.file, async () =>
            reduceImage((await readCapturedOf(surroundings))!, LARGEST_PREVIEW_PX)
          )
        : null;
    return makeNeutralLight(brief, scene, captured, coarse);
  });
  const { lit, settings, exposure, dark } = renderRecipe({
    brief: { ...brief, quality: { ...brief.quality, layers: false, aovs: false } },
    scene,
    model: room.model,
    centre_m: of.centre_m,
    neutral: light,
    webs: await readWebs(brief),
    width,
    height
  });
  refuseDark({ dark });
  const rig = buildRig(room.header, lit, module, settings.ground?.height_m);
  const rigKey = createHash('sha256').update(rig).digest('hex');
  const indoors = light.image !== null && room.indoors(settings.camera.eye, lit.openings ?? []);
  const setup: RenderSetup = {
    pack,
    packBytes: room.bytes,
    rigKey,
    rigBytes: rig.byteLength,
    rig: request.rig === rigKey ? null : rig,
    exact: pack === key && !coarse,
    settings: { ...settings, indoors },
    exposure,
    samples: brief.quality.samples,
    grain: brief.quality.grain,
    minSamples: brief.quality.min_samples,
    lightKey
  };
  return encodeSetup(setup, request.light !== lightKey);
}

serveTask('setup', async (request) => {
  try {
    return await setUp(request);
  } catch (error) {
    if (error instanceof RangeError) throw new Refusal('refused', error.message);
    throw error;
  }
});
