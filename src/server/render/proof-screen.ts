/** The picture of a proof for the screen, written again now and then while its film grows. */
import type { FilmLayers, TileRect } from '../../core/film/film';
import { type Cleaned, FinishedLight } from '../../core/film/finished-light';
import { lightOfTile } from '../../core/film/light';
import { takeStageFilm } from '../../core/film/stage-film';
import type { FilmSource } from '../../core/film/store';
import { needsAround } from '../../core/finishing/around';
import type { BackdropImage } from '../../core/finishing/background';
import { StageDeveloper } from '../../core/finishing/stage-developer';
import { surfaceAdjustments } from '../../core/finishing/surface';
import { shareOfSheet } from '../../core/output/size';
import { rawScreenPath, SCREEN_PX, screenPath, THUMBNAIL_PX, thumbnailPath } from '../files/proof-files';
import type { ColourTable } from '../../core/color/table';
import { readBackdrop } from './backdrop-file';
import { readTable } from './colour-table';
import type { ProofWork } from './proof-work';
import { ScreenPicture } from './screen-picture';

const PICTURE_MS = 700;
// Writing a picture may take this share of the time since the last one: large sheets are shown less often.
const PICTURE_SHARE = 0.1;

interface Shown {
  film: FilmSource;
  layers: FilmLayers;
  /** What a filter made of it; nothing when that is not said. */
  cleaned?: Cleaned;
}

export class ProofScreen {
  private count: number;
  private writing: Promise<void> = Promise.resolve();
  private nextAt_ms = 0;
  /** A denoised look is shown, which raw tiles must not patch. */
  held = false;

  private constructor(
    private readonly work: ProofWork,
    private readonly picture: ScreenPicture,
    private readonly backdrop: BackdropImage | null,
    private readonly white: number,
    private readonly table: ColourTable | null
  ) {
    this.count = work.row.picture_count;
  }

  /** `white`: luminance of displayed white, cd/m2. */
  static async open(work: ProofWork, white: number): Promise<ProofScreen> {
    const { brief, row } = work;
    const [width, height] = [row.width_px, row.height_px];
    const within = shareOfSheet(brief);
    const shrunk = Math.min(1, SCREEN_PX / Math.max(width, height));
    const backdrop = await readBackdrop(brief.finish.background, {
      width: width * shrunk,
      height: height * shrunk,
      within
    });
    const table = await readTable(brief.finish);
    const development = { width, height, white, finish: brief.finish, within, backdrop, table };
    return new ProofScreen(work, new ScreenPicture(development, SCREEN_PX), backdrop, white, table);
  }

  /** Shows a tile of the film that is being rendered. */
  addTile(tile: TileRect, data: Float32Array, samples: number): void {
    if (this.held) return;
    this.picture.add(tile, lightOfTile(data, tile.width * tile.height, samples));
    if (Date.now() < this.nextAt_ms) return;
    this.nextAt_ms = Number.POSITIVE_INFINITY; // until this one is written
    // one that cannot be written is told by the next step that waits for it
    this.refresh().catch(() => {});
  }

  /**
   * Shows all tiles that a film has; where the finish looks at the whole picture, which tiles do not show, and the film is
   * complete, the picture is made of all of it.
   */
  async show({ film, layers, cleaned }: Shown, complete: boolean): Promise<void> {
    const { brief, tiles, row } = this.work;
    const { finish } = brief;
    const [width, height] = [row.width_px, row.height_px];
    if (complete && (needsAround(finish) || surfaceAdjustments(finish, height, 1).length > 0)) {
      const whole = { film, layers, width, height, white: this.white, ...(cleaned ? { cleaned } : {}) };
      const developer = new StageDeveloper(await takeStageFilm(whole, finish.denoise, finish.masks, SCREEN_PX));
      const within = shareOfSheet(brief);
      this.picture.replace(developer.develop(finish, { within, backdrop: this.backdrop, table: this.table }).pixels);
      return;
    }
    const source = new FinishedLight(film, layers, finish, cleaned);
    for (const tile of tiles) {
      const light = await source.read(tile);
      if (light) this.picture.add(tile, light);
    }
  }

  /** Writes it when it has changed; one write follows the other. */
  refresh(): Promise<void> {
    this.writing = this.writing.then(async () => {
      if (!this.picture.changed) return;
      const { row } = this.work;
      const began = Date.now();
      await this.picture.write(screenPath(row.id), { path: thumbnailPath(row.id), px: THUMBNAIL_PX });
      this.nextAt_ms = Date.now() + Math.max(PICTURE_MS, (Date.now() - began) / PICTURE_SHARE);
      this.work.write({ picture_count: ++this.count });
    });
    return this.writing;
  }

  /** Writes it as it is now as the picture before denoising. */
  async writeRaw(): Promise<void> {
    await this.writing;
    await this.picture.write(rawScreenPath(this.work.row.id), null);
  }

  /** What it weighs as a file, bytes a pixel by kind. */
  bytesPerPixel = (): Promise<{ png: number; jpg: number }> => this.picture.bytesPerPixel();
}
