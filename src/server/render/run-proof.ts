/** One proof from claim to end, inside the render service. */
import { readFile, writeFile } from 'node:fs/promises';
import { readBrief } from '../../core/brief/read-brief';
import { CHANNELS, layerCount, SPAN, tilesOf } from '../../core/film/film';
import { shareOfSheet } from '../../core/output/size';
import { CLEAN_START_S, forecast } from '../../core/forecast/forecast';
import { readScene } from '../../formats/gltf/read-scene';
import { config } from '../config';
import { contentPath } from '../files/content-store';
import { CleanFile } from '../files/clean-film';
import { FinishedFilm } from '../../core/film/clean';
import { DiskFilm, hashFilm } from '../files/film-store';
import {
  cleanPath,
  filmPath,
  layersPath,
  makeProofFolder,
  rawScreenPath,
  SCREEN_PX,
  screenPath,
  THUMBNAIL_PX,
  thumbnailPath
} from '../files/proof-files';
import {
  beat,
  fail,
  finish,
  saveClean,
  saveCleaning,
  saveExposure,
  saveFileBytes,
  saveNotClean,
  savePictureCount,
  saveProgress,
  stopAsked
} from '../jobs/queue';
import { findPack, packKey } from '../files/pack-store';
import { cleanSpeed, findProbe, saveCleanSpeed, savePair } from '../store/forecasts';
import { findRevision } from '../store/projects';
import type { ProofRow } from '../store/proofs';
import { readBackdrop } from './backdrop-file';
import { readCapturedOf } from './captured-file';
import { cleanProof } from './clean-proof';
import { linearBytesPerPixel } from './deliver';
import { loadKernel } from './kernel-file';
import { BriefRefused } from './refused';
import { type FilmProgress, hasReached, type RenderEnd } from '../../kernel/host/render-film';
import { ScreenPicture } from './screen-picture';
import { DARK } from './prepare';
import { readWebs } from './photometric-files';
import { probeKey } from './probe-key';
import { prepare, run } from './session';

const BEAT_MS = 1500;
const LOOK_MS = 250; // at the stop button
const PICTURE_MS = 700;
// Of the time since the last one, writing a picture may take this share: large sheets are shown less often.
const PICTURE_SHARE = 0.1;

// Shorter renders and smaller finishes are mostly their start.
const LEAST_JUDGED_S = 1;
const LEAST_JUDGED_PX = 300_000;

function keepCleanSpeed(seconds: number, pixels: number): void {
  if (pixels > LEAST_JUDGED_PX) saveCleanSpeed(Math.max(0.1, ((seconds - CLEAN_START_S) * 1e6) / pixels));
}

/** Fourfold each time; the end has a look of its own. */
function cleanMoments(samples: number): number[] {
  const out: number[] = [];
  for (let moment = SPAN; moment < samples; moment *= 4) out.push(moment);
  return out;
}

export async function runProof(proof: ProofRow, owner: string, isEnding: () => boolean): Promise<void> {
  let lost = false;
  let stop: 'keep' | 'drop' | null = null;
  const beats = setInterval(() => {
    lost ||= !beat(proof.id, owner, Date.now());
  }, BEAT_MS);
  const looks = setInterval(() => {
    stop ??= stopAsked(proof.id);
  }, LOOK_MS);
  try {
    const revision = findRevision(proof.revision_id)!;
    const brief = readBrief(proof.brief_json);
    const scene = await readScene(new Uint8Array(await readFile(contentPath('models', revision.glb_sha256))));
    const captured = await readCapturedOf(brief.surroundings);
    const module = await loadKernel();
    const prepared = await prepare({
      scene,
      brief,
      captured,
      webs: await readWebs(brief),
      module,
      threads: config.threads,
      ev100: proof.ev100,
      findPack: (of, build) => findPack(packKey(revision.glb_sha256, of), build)
    });
    if (prepared.dark) {
      fail(proof.id, `${DARK}.`, Date.now());
      return;
    }
    saveExposure(proof.id, prepared.ev100);
    // a finished film of another proof, to be finished anew
    const whole = proof.film_sha256;
    const knownClean = whole !== null && proof.clean_share === 1;
    // one that a kill broke off is done again
    if (!knownClean) saveCleaning(proof.id, null);
    await makeProofFolder(proof.id);
    const { width, height } = prepared.settings;
    const tiles = tilesOf(width, height);
    const film = await DiskFilm.open(filmPath(proof.id), tiles.length, layerCount(prepared.layers));
    if (layerCount(prepared.layers) > 0) await writeFile(layersPath(proof.id), JSON.stringify(prepared.layers));
    const within = shareOfSheet(brief);
    const shrunk = Math.min(1, SCREEN_PX / Math.max(width, height));
    const backdrop = await readBackdrop(brief.finish.background, {
      width: width * shrunk,
      height: height * shrunk,
      within
    });
    const screen = new ScreenPicture(
      { width, height, white: prepared.white, finish: brief.finish, within, backdrop },
      SCREEN_PX
    );
    for (const tile of tiles) {
      const state = film.state(tile.index);
      if (state) screen.add(tile, await film.read(tile.index, tile.width * tile.height * CHANNELS), state.samples);
    }

    let pictures = proof.picture_count;
    let writing = Promise.resolve();
    let nextPicture = 0;
    let latest: FilmProgress | null = null;
    const save = () => {
      if (!latest) return;
      saveProgress(proof.id, {
        share: latest.share,
        samples: latest.samples,
        grain: latest.grain,
        seconds: proof.seconds + latest.seconds,
        seconds_left: latest.secondsLeft,
        rays: proof.rays + latest.rays,
        limited_share: latest.limited,
        picture_count: pictures
      });
    };
    const refresh = () => {
      writing = writing.then(async () => {
        const began = Date.now();
        if (!screen.changed) return;
        await screen.write(screenPath(proof.id), { path: thumbnailPath(proof.id), px: THUMBNAIL_PX });
        nextPicture = Date.now() + Math.max(PICTURE_MS, (Date.now() - began) / PICTURE_SHARE);
        pictures++;
        savePictureCount(proof.id, pictures);
        save();
      });
      return writing;
    };
    /** Shows the film denoised; null when `isOver` stopped it, a sentence when it could not be. */
    const showClean = async (look: boolean, isOver: () => boolean) => {
      const began = Date.now();
      saveCleaning(proof.id, 0);
      const cleaned = await cleanProof(
        { proof: proof.id, layers: layerCount(prepared.layers), width, height, white: prepared.white, look },
        (share) => saveCleaning(proof.id, share),
        isOver
      );
      if (cleaned === null || typeof cleaned === 'string') return cleaned;
      const seconds = (Date.now() - began) / 1000;
      if (cleaned.learned && !cleaned.quick) keepCleanSpeed(seconds, width * height);
      await addClean();
      if (latest) latest.seconds += (Date.now() - began) / 1000;
      return cleaned;
    };
    const addClean = async () => {
      const clean = (await CleanFile.open(cleanPath(proof.id)))!;
      const finished = new FinishedFilm(film, clean, brief.finish.denoise, tiles);
      for (const tile of tiles)
        if (film.state(tile.index))
          screen.add(
            tile,
            await finished.read(tile.index, tile.width * tile.height * CHANNELS),
            film.state(tile.index)!.samples
          );
      await clean.close();
    };

    /** What a forecast would have said against what it took, for the next ones of the project. */
    const keepPair = (took: number) => {
      const probe = findProbe(probeKey(revision.glb_sha256, brief));
      // a patch may be of the easiest or the hardest place
      if (!probe || brief.patch) return;
      const { samples, grain, least, minutes } = brief.quality;
      const { renderSeconds } = forecast(
        probe,
        { threads: config.threads, cleanSecondsPerMegapixel: cleanSpeed(), ratios: [] },
        { width_px: width, height_px: height, samples, grain, least, minutes, denoised: false }
      );
      if (renderSeconds > LEAST_JUDGED_S) savePair(proof.id, revision.project_id, renderSeconds, took, Date.now());
    };

    // the render pauses at these sample counts to be seen denoised
    const moments =
      brief.finish.denoise > 0 && brief.finish.denoise_meanwhile ? cleanMoments(brief.quality.samples) : [];
    const before = { seconds: 0, rays: 0 }; // in the runs before the last pause
    let heldClean = false; // a look that raw tiles must not patch
    let end: RenderEnd | null = null;
    while (whole === null) {
      const moment = moments.find((samples) => !hasReached(film, tiles, samples)) ?? null;
      end = await run(
        prepared,
        film,
        module,
        config.threads,
        {
          onTile(tile, data, samples) {
            if (heldClean) return;
            screen.add(tile, data, samples);
            if (Date.now() < nextPicture) return;
            nextPicture = Number.POSITIVE_INFINITY; // until this one is written
            void refresh();
          },
          onProgress(progress) {
            latest = { ...progress, seconds: progress.seconds + before.seconds, rays: progress.rays + before.rays };
            save();
          },
          shouldStop: () => lost || stop !== null || isEnding() || (moment !== null && hasReached(film, tiles, moment))
        },
        proof.seconds + before.seconds
      );
      const paused = end.by === 'stop' && !lost && stop === null && !isEnding();
      if (!paused) break;
      await writing;
      const look = await showClean(true, () => lost || stop !== null || isEnding());
      saveCleaning(proof.id, null);
      if (latest)
        Object.assign(before, { seconds: (latest as FilmProgress).seconds, rays: (latest as FilmProgress).rays });
      if (look === null || typeof look === 'string') continue;
      heldClean = true;
      await refresh();
    }
    if (heldClean)
      for (const tile of tiles)
        if (film.state(tile.index))
          screen.add(
            tile,
            await film.read(tile.index, tile.width * tile.height * CHANNELS),
            film.state(tile.index)!.samples
          );
    await refresh();
    save();
    if (lost || (end?.by === 'stop' && stop === null)) {
      // another service goes on with it, or this one after its restart
      await film.close();
      return;
    }
    const hash = whole ?? (await hashFilm(film, width, height, tiles));
    if (brief.finish.denoise > 0 && stop !== 'drop') {
      await screen.write(rawScreenPath(proof.id), null);
      const cleaned = knownClean ? await addClean() : await showClean(false, () => lost || isEnding());
      if (cleaned === null) {
        await film.close();
        return;
      }
      if (typeof cleaned === 'string') saveNotClean(proof.id, cleaned);
      else {
        if (cleaned)
          saveClean(
            proof.id,
            cleaned.grain,
            cleaned.learned
              ? null
              : 'by our own filter, because the learned one’s weights are not installed; start again ' +
                  'with a connection to the package registry to have them'
          );
        await refresh();
      }
    }
    const exr = await linearBytesPerPixel(
      { film, layers: prepared.layers, width, height, white: prepared.white },
      brief.finish
    );
    await film.close();
    saveFileBytes(proof.id, { ...(await screen.bytesPerPixel()), exr });
    if (end?.by === 'limits' && proof.samples === 0 && before.seconds === 0) keepPair(end.seconds);
    finish(proof.id, end?.by !== 'stop' ? 'done' : stop === 'drop' ? 'dropped' : 'kept', hash, Date.now());
  } catch (error) {
    if (error instanceof BriefRefused || error instanceof RangeError)
      fail(proof.id, `This brief cannot be rendered: ${error.message}.`, Date.now());
    else {
      console.error(error);
      fail(
        proof.id,
        `The render broke off by our own fault: ` +
          `${error instanceof Error ? error.message : String(error)}. What is done so far is kept; ` +
          `going on begins where it broke off.`,
        Date.now()
      );
    }
  } finally {
    clearInterval(beats);
    clearInterval(looks);
  }
}
