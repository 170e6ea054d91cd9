/** Masks of parts and materials: their coverages, what they adjust, and the files that are made of them. */
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { BRIEF_DEFAULTS, type Finish } from '../../core/brief/brief';
import {
  AOV_MATERIALS,
  AOV_OBJECTS,
  type FilmLayers,
  layerCount,
  layersAt,
  tileFloats,
  tilesOf
} from '../../core/film/film';
import { FinishedLight } from '../../core/film/finished-light';
import { LIGHT } from '../../core/film/light';
import { flatColour } from '../../core/film/masks';
import { openStageFilm, packStageFilm, stageLight, takeStageFilm } from '../../core/film/stage-film';
import { MemoryFilm } from '../../core/film/store';
import { maskFiles } from './mask-files';

const [width, height] = [90, 70];
const layers: FilmLayers = {
  groups: ['surroundings'],
  aovs: { objects: ['Hall/Lamp', 'Hall/Lamp', 'Hall/Wall'], materials: ['paper', 'plaster: white'] }
};
const EDGE = 40.5;

/** Left of the edge a lamp of two parts of one name, one above the other; right of it a wall. */
async function filmOf(): Promise<MemoryFilm> {
  const film = new MemoryFilm();
  for (const tile of tilesOf(width, height)) {
    const pixels = tile.width * tile.height;
    const data = new Float32Array(tileFloats(pixels, layerCount(layers)));
    for (let i = 0; i < pixels; i++) {
      const [x, y] = [tile.x + (i % tile.width), tile.y + Math.floor(i / tile.width)];
      // 8 samples of 10, 20, 30
      for (let c = 0; c < 3; c++) for (const half of [0, 3]) data[i * 16 + half + c] = (c + 1) * 40;
      const left = Math.min(1, Math.max(0, EDGE - x));
      const at = layersAt(i, pixels, layerCount(layers)) + 3;
      const put = (first: number, place: number, id: number, share: number) => {
        if (share === 0) return;
        data[at + first + place * 2] = id;
        data[at + first + place * 2 + 1] = share * 8;
      };
      put(AOV_OBJECTS, 0, y < 35 ? 1 : 2, left);
      put(AOV_OBJECTS, 1, 3, 1 - left);
      put(AOV_MATERIALS, 0, 1, left);
      put(AOV_MATERIALS, 1, 2, 1 - left);
    }
    await film.write(tile.index, data, { samples: 8, done: true, squaredGrain: 0 });
  }
  return film;
}
const finish: Finish = {
  ...BRIEF_DEFAULTS.finish,
  masks: [{ of: 'part', name: 'Hall/Lamp', exposure_ev: 1, warmth_mired: 0, saturation: -1 }]
};

describe('masks', () => {
  it('adjust what they cover, by how much of a pixel that is, and nothing else', async () => {
    const light = new FinishedLight(await filmOf(), layers, finish);
    const of = (await light.read(tilesOf(width, height).find((t) => t.x === 0 && t.y === 0)!))!;
    const grey = 2 * (0.2126 * 10 + 0.7152 * 20 + 0.0722 * 30);
    for (let c = 0; c < 3; c++) {
      expect(of[10 * LIGHT + c]).toBeCloseTo(grey, 3);
      // half of this pixel is the lamp
      const half = (c + 1) * 10 * 1.5;
      const y = 1.5 * (grey / 2);
      expect(of[40 * LIGHT + c]).toBeCloseTo(y + (half - y) * 0.5, 3);
      expect(of[50 * LIGHT + c]).toBeCloseTo((c + 1) * 10, 4);
    }
    const neutral = { ...finish, masks: [{ ...finish.masks[0]!, exposure_ev: 0, saturation: 0 }] };
    const same = (await new FinishedLight(await filmOf(), layers, neutral).read(tilesOf(width, height)[0]!))!;
    expect(same[0]).toBeCloseTo(10, 5);
    // a film without masks, or a name that it does not have, is not changed
    const other = { ...finish, masks: [{ ...finish.masks[0]!, name: 'Nobody' }] };
    expect((await new FinishedLight(await filmOf(), layers, other).read(tilesOf(width, height)[0]!))![0]).toBeCloseTo(
      10,
      5
    );
  });
  it('are the same on the stage, which knows what is foremost at each place', async () => {
    const view = { film: await filmOf(), layers, width, height, white: 100 };
    const stage = openStageFilm(packStageFilm(await takeStageFilm(view, 0, finish.masks)).slice().buffer);
    const shown = stageLight(stage, stage.stage, finish, 0, height);
    for (const tile of tilesOf(width, height)) {
      const of = (await new FinishedLight(view.film, layers, finish).read(tile))!;
      for (let i = 0; i < tile.width * tile.height; i++) {
        const at = ((tile.y + Math.floor(i / tile.width)) * width + tile.x + (i % tile.width)) * LIGHT;
        expect(Math.abs(shown[at]! * 100 - of[i * LIGHT]!)).toBeLessThan(0.05);
      }
    }
    const nameAt = (x: number, y: number) => stage.names.part[stage.stage.ids.part[y * width + x]! - 1];
    expect([nameAt(3, 3), nameAt(3, 60), nameAt(80, 3)]).toEqual(['Hall/Lamp', 'Hall/Lamp', 'Hall/Wall']);
    // without its coverage nothing is adjusted yet
    const bare = openStageFilm(packStageFilm(await takeStageFilm(view, 0)).slice().buffer);
    expect(stageLight(bare, bare.stage, finish, 0, 1)[0]! * 100).toBeCloseTo(10, 1);
  });
  it('are files: flat colours with what they stand for, and a coverage each with a smooth edge', async () => {
    const files = new Map<string, Uint8Array>();
    for await (const { name, bytes } of maskFiles({ film: await filmOf(), layers, width, height }))
      files.set(name, bytes);
    expect([...files.keys()].sort()).toEqual(
      [
        'parts.png',
        'parts.txt',
        'parts/01 Hall-Wall.png',
        'parts/02 Hall-Lamp.png',
        'materials.png',
        'materials.txt',
        'materials/01 plaster- white.png',
        'materials/02 paper.png'
      ].sort()
    );
    const read = (name: string) => sharp(files.get(name)!).raw().toBuffer({ resolveWithObject: true });
    const flat = await read('materials.png');
    expect([flat.info.width, flat.info.height]).toEqual([width, height]);
    const hexAt = (x: number) => `#${Buffer.from(flat.data.subarray(x * 3, x * 3 + 3)).toString('hex')}`;
    expect([hexAt(5), hexAt(80)]).toEqual([flatColour(1), flatColour(2)]);
    expect(Buffer.from(files.get('materials.txt')!).toString()).toContain(`${flatColour(1)}\t45.`);
    const lamp = await read('parts/02 Hall-Lamp.png');
    const { channels } = lamp.info;
    expect([10, 40, 60].map((x) => lamp.data[x * channels])).toEqual([255, 128, 0]);
  });
  it('have colours that near ids do not share', () => {
    const colours = Array.from({ length: 64 }, (_, i) => flatColour(i + 1));
    expect(new Set(colours).size).toBe(64);
    for (const colour of colours) expect(colour).toMatch(/^#[0-9a-f]{6}$/);
  });
});
