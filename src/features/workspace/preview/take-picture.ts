/**
 * The way of a preview: a quick look at half size with one sample a pixel; the meter, when the brief has one; then the
 * very film that a proof of this size would be, stage by stage, each stage shown.
 */
import { canonicalJson, filmBrief } from '../../../core/brief/brief';
import { exposed, exposureBy, whiteLuminance } from '../../../core/brief/exposure';
import { passEnds, tilesOf } from '../../../core/film/film';
import { filmBytes } from '../../../core/film/film-bytes';
import { type FilmPicture, MemoryFilm } from '../../../core/film/store';
import type { Filter } from '../../../core/finishing/denoise/filter';
import { measureExposure, meterBlock, meterFilm, meterSettings } from '../../../kernel/host/meter';
import { hasReached, renderFilm } from '../../../kernel/host/render-film';
import type { PathLimits, RenderSettings } from '../../../kernel/host/settings';
import type { RenderSetup } from '../../../kernel/host/setup';
import { type Denoised, developDenoised, developPicture } from './develop-picture';
import { Cancelled, type LearnedFilter } from './learned-filter';
import type { PreviewJob, PreviewPicture } from './messages';
import type { SceneMemory } from './scene-memory';

// A first look is there to be quick: direct light, and what comes by one matte surface more. Glass and mirrors are
// followed through.
const LOOK_LIMITS = { diffuse_bounces: 1, specular_bounces: 4 };
// Small pieces of work, so that a newer order waits no longer than one of them.
const UNIT_SAMPLES = 1;
// Within a long stage a look is given as often as this, if making one takes no more than this share of the time.
const LOOK_MS = 700;
const LOOK_SHARE = 0.2;
// Of fewer samples the learned filter makes too little for its time.
const LEARNED_FROM = 4;

export type Sent = Omit<PreviewPicture, 'kind' | 'job'>;

export interface Taking {
  job: PreviewJob;
  setup: RenderSetup;
  scene: SceneMemory;
  learned: LearnedFilter;
  /** Asked all the time; true ends what is under way. */
  halt(): boolean;
  /** The same for the first look, which may serve a newer order. */
  haltLook(): boolean;
  /** Waits until the hand has rested; false when the first look is no longer wanted. */
  rests(): Promise<boolean>;
  /** Waits through a pause; false when the order is no longer wanted. */
  goesOn(): Promise<boolean>;
  threads(): number;
  send(picture: Sent): void;
}

/** The exposure of the last look, which is the best guess for the next. */
let lastEv: number | null = null;
/**
 * The film that was made last, and what was sent of it: when only the finish changes it is developed anew, and goes on.
 */
let kept: {
  key: string;
  film: MemoryFilm;
  last: (Denoised & Pick<Sent, 'samples' | 'grain' | 'ended' | 'film'>) | null;
} | null = null;
const filmKey = ({ frame, brief }: PreviewJob) => `${frame} ${canonicalJson(filmBrief(brief))}`;
const hasWhole = ({ width, height }: PreviewJob, film: MemoryFilm) => hasReached(film, tilesOf(width, height), 1);

/** Exposures by what they were metered of. */
const metered = new Map<string, number>();

const settingsOf = ({ settings, exposure }: RenderSetup, ev100: number | null): RenderSettings => ({
  ...settings,
  ...(ev100 === null ? {} : exposed(exposure, ev100))
});

export async function takePicture(taking: Taking): Promise<void> {
  const { job, scene, goesOn, rests, send } = taking;
  let { setup } = taking;
  await scene.load(setup);
  const look = kept?.key === filmKey(job) && hasWhole(job, kept.film) ? null : await takeLook(taking);
  if (!(await rests())) return;
  if (look) send(look);
  if (!(await goesOn())) return;
  if (!setup.exact) {
    setup = await scene.ask(job, true);
    if (!(await goesOn())) return;
    await scene.load(setup);
  }
  const ev100 = setup.exposure.ev100 ?? (await readMeter(setup, taking));
  if (ev100 !== null) await takeFilm(setup, ev100, taking);
}

/** Null when it was ended. */
async function takeLook({ job, setup, scene, haltLook }: Taking): Promise<Sent | null> {
  const width = job.width / 2;
  const height = job.height / 2;
  const film = new MemoryFilm();
  const settings: RenderSettings = {
    ...settingsOf(setup, setup.exposure.ev100 ?? lastEv),
    width,
    height,
    limits: limitsOfLook(setup.settings.limits)
  };
  const { by } = await renderFilm(
    scene.pool(settings),
    film,
    tilesOf(width, height),
    { samples: 1, grain: null, seconds: null, white: 1, unit: 1 },
    { shouldStop: haltLook }
  );
  if (by !== 'limits') return null;
  const ev100 = await exposureBy(setup.exposure, () => meterFilm(film, width, height, meterBlock(width, height)));
  lastEv = ev100;
  const made = await unlessCancelled(
    developPicture(
      { film, width, height, white: whiteLuminance(ev100) },
      job.brief.finish,
      scene.filter(haltLook),
      null
    )
  );
  return (
    made && {
      width,
      height,
      rgba: made.rgba,
      samples: 0,
      grain: null,
      ev100,
      filter: made.filter,
      ended: false,
      film: null
    }
  );
}

/** Null of what was cancelled. */
async function unlessCancelled<T>(made: Promise<T>): Promise<T | null> {
  try {
    return await made;
  } catch (error) {
    if (error instanceof Cancelled) return null;
    throw error;
  }
}

// A tile for each of two threads, low ones: whoever wants the first look waits for no more than a sample of them.
const WARM_PX = { width: 128, height: 16 };
const WARM_SAMPLES = 16;

/** A little of the picture that nobody sees, as a look and as a film. */
export async function warmUp({
  job,
  setup,
  scene,
  halt
}: Pick<Taking, 'job' | 'setup' | 'scene' | 'halt'>): Promise<void> {
  const { width, height } = WARM_PX;
  const settings = { ...settingsOf(setup, null), width, height };
  for (const limits of [limitsOfLook(settings.limits), settings.limits]) {
    const film = new MemoryFilm();
    const { by } = await renderFilm(
      scene.pool({ ...settings, limits }),
      film,
      tilesOf(width, height),
      { samples: WARM_SAMPLES, grain: null, seconds: null, white: 1, unit: UNIT_SAMPLES },
      { shouldStop: halt }
    );
    if (
      by !== 'limits' ||
      !(await unlessCancelled(
        developPicture({ film, width, height, white: 1 }, job.brief.finish, scene.filter(halt), null)
      ))
    )
      return;
  }
}

const limitsOfLook = (limits: PathLimits): PathLimits => ({
  ...limits,
  diffuse_bounces: Math.min(limits.diffuse_bounces ?? LOOK_LIMITS.diffuse_bounces, LOOK_LIMITS.diffuse_bounces),
  specular_bounces: Math.min(limits.specular_bounces ?? LOOK_LIMITS.specular_bounces, LOOK_LIMITS.specular_bounces)
});

/** Null when the order is no longer wanted. */
async function readMeter(setup: RenderSetup, { scene, halt, goesOn }: Taking): Promise<number | null> {
  const key = canonicalJson({ ...setup, settings: { ...setup.settings, light: null } });
  const known = metered.get(key);
  if (known !== undefined) return known;
  const small = meterSettings(settingsOf(setup, null));
  for (;;) {
    const reading = await measureExposure(scene.pool(small), small, halt, UNIT_SAMPLES);
    if (reading !== null) {
      const ev100 = await exposureBy(setup.exposure, async () => reading);
      metered.set(key, ev100);
      return ev100;
    }
    if (!(await goesOn())) return null;
  }
}

async function takeFilm(
  setup: RenderSetup,
  ev100: number,
  { job, scene, learned, halt, goesOn, threads, send }: Taking
): Promise<void> {
  lastEv = ev100;
  const { width, height } = job;
  const tiles = tilesOf(width, height);
  const key = filmKey(job);
  // the old one goes before there is a new one: films are large
  if (kept?.key !== key) kept = null;
  kept ??= { key, film: new MemoryFilm(), last: null };
  const own = kept;
  const picture: FilmPicture & { film: MemoryFilm } = { film: own.film, width, height, white: whiteLuminance(ev100) };
  const { film, white } = picture;
  const { last } = own;
  if (last && (last.denoised || job.brief.finish.denoise === 0)) {
    const { denoised: _denoised, ...facts } = last;
    send({ ...facts, width, height, ev100, rgba: await developDenoised(picture, job.brief.finish, last) });
    if (last.ended || !(await goesOn())) return;
  }
  const settings = settingsOf(setup, ev100);
  let pool = scene.pool(settings);
  const stages = passEnds(setup.samples);
  for (const stage of stages.slice(
    Math.max(
      0,
      stages.findLastIndex((stage) => hasReached(film, tiles, stage))
    )
  )) {
    const reached = () => hasReached(film, tiles, stage);
    let nextLook = performance.now() + LOOK_MS;
    for (let whole = false; !whole; ) {
      if (threads() !== pool.threads) pool = scene.pool(settings);
      const end = await renderFilm(
        pool,
        film,
        tiles,
        {
          samples: setup.samples,
          grain: setup.grain,
          minSamples: setup.minSamples,
          seconds: null,
          white,
          unit: UNIT_SAMPLES
        },
        { shouldStop: () => halt() || reached() || (stage > 1 && performance.now() > nextLook) }
      );
      if (!(await goesOn())) return;
      const ended = end.by === 'limits';
      whole = ended || reached();
      if (!whole && performance.now() < nextLook) continue;
      const began = performance.now();
      const made = await develop(
        picture,
        job,
        scene.filter(halt),
        whole && (ended || stage >= LEARNED_FROM) ? learned : null,
        goesOn
      );
      if (!made) return;
      const { rgba, ...denoised } = made;
      own.last = {
        ...denoised,
        samples: end.samples,
        grain: end.grain,
        ended,
        film: ended ? await hashOf(picture) : null
      };
      send({
        width,
        height,
        rgba,
        filter: denoised.filter,
        samples: end.samples,
        grain: end.grain,
        ev100,
        ended,
        film: own.last.film
      });
      if (ended) return;
      nextLook = performance.now() + Math.max(LOOK_MS, (performance.now() - began) / LOOK_SHARE);
    }
  }
}

/** Begins again when a pause stopped the filter; null when the order is no longer wanted. */
async function develop(
  picture: FilmPicture,
  job: PreviewJob,
  guided: Filter,
  learned: LearnedFilter | null,
  goesOn: () => Promise<boolean>
): Promise<(Denoised & { rgba: ArrayBuffer }) | null> {
  for (;;) {
    const made = await unlessCancelled(developPicture(picture, job.brief.finish, guided, learned));
    if (!(await goesOn())) return null;
    if (made) return made;
  }
}

/** The film's hash, as a proof's is taken. */
async function hashOf({ film, width, height }: FilmPicture): Promise<string> {
  const parts: BlobPart[] = [];
  for await (const part of filmBytes(film, width, height, tilesOf(width, height))) parts.push(part.slice());
  const digest = await crypto.subtle.digest('SHA-256', await new Blob(parts).arrayBuffer());
  return [...new Uint8Array(digest)].map((b) => b.toString(16).padStart(2, '0')).join('');
}
