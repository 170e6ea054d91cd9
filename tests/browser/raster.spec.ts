/** The model as it is drawn while one moves about: its ways, its shadow, where the lens is sharp, all around. */
import { expect, type Page, test } from '@playwright/test';
import sharp from 'sharp';
import { sharpDepths } from '../../src/core/camera/drawn-views';
import { createCameraFrame, placeInPicture } from '../../src/core/camera/lens';
import type { FreeViewpoint } from '../../src/core/camera/viewpoint';
import { add, scale } from '../../src/core/math/vec3';
import { briefOf, ownProject, panel, word } from '../support/pages';

const raster = (page: Page) => page.locator('.im canvas:not(.truth)');

/** What stands on the canvas now, rgba8. */
async function drawn(page: Page): Promise<{ data: Buffer; width: number; height: number }> {
  const url = await raster(page).evaluate((canvas: HTMLCanvasElement) => canvas.toDataURL('image/png'));
  const { data, info } = await sharp(Buffer.from(url.split(',')[1]!, 'base64'))
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height };
}

/** Share of the canvas whose pixels are such. */
async function share(page: Page, such: (r: number, g: number, b: number) => boolean): Promise<number> {
  const { data, width, height } = await drawn(page);
  let count = 0;
  for (let i = 0; i < data.length; i += 4) if (such(data[i]!, data[i + 1]!, data[i + 2]!)) count++;
  return count / (width * height);
}
const grey = (r: number, g: number, b: number) => Math.max(r, g, b) - Math.min(r, g, b) < 3;
const isBackground = (r: number, g: number, b: number) => grey(r, g, b) && Math.abs(r - 0xd9) < 3;

test('the model is drawn in four ways, with its shadow on request, and all around', async ({ page }) => {
  test.setTimeout(240_000);
  await ownProject(page, 'Perihelion lamp', 'Lamp, drawn');
  await page.getByRole('button', { name: 'Stage', exact: true }).click();
  const stage = panel(page, 'Stage');
  await stage.getByText('The model', { exact: true }).click();
  const choose = (text: string) => stage.getByText(text, { exact: true }).click();
  const drawnSoon = (such: Parameters<typeof share>[1]) => expect.poll(() => share(page, such), { timeout: 60_000 });

  await drawnSoon((r, g, b) => !grey(r, g, b)).toBeGreaterThan(0.02);
  await choose('left out');
  const without = await share(page, (r, g, b) => !isBackground(r, g, b));
  await choose('drawn');
  // the shadow falls on the ground, where nothing was
  await drawnSoon((r, g, b) => !isBackground(r, g, b)).toBeGreaterThan(without + 0.003);
  await choose('Clay');
  await drawnSoon((r, g, b) => !grey(r, g, b)).toBe(0);
  await choose('Lines');
  await drawnSoon((r) => r > 250).toBeGreaterThan(0.7);
  expect(await share(page, (r) => r < 80)).toBeGreaterThan(0.01);
  await choose('Plain colours');
  await drawnSoon((r, g, b) => !grey(r, g, b)).toBeGreaterThan(0.02);

  await word(page, /mm lens/).click();
  await panel(page, 'Lens and focus').getByText('all around', { exact: true }).click();
  await expect.poll(() => briefOf(page).viewpoint).toMatchObject({ projection: 'panorama' });
  // less of the frame is model now, and it still is there
  await drawnSoon((r, g, b) => !isBackground(r, g, b)).toBeLessThan(without);
  expect(await share(page, (r, g, b) => !grey(r, g, b))).toBeGreaterThan(0.001);
});

test('the sharp zone is drawn on the stage where a thin lens has it', async ({ page }) => {
  test.setTimeout(180_000);
  await ownProject(page, 'Perihelion lamp', 'Lamp, sharp zone');
  await word(page, /mm lens/).click();
  const lens = panel(page, 'Lens and focus');
  await lens.getByText('Depth of field', { exact: true }).click();
  await lens.getByLabel('f-number of the lens').fill('16');
  await lens.getByLabel('f-number of the lens').press('Enter');
  const isSaved = () => (briefOf(page).viewpoint as FreeViewpoint).f_number;
  await expect.poll(isSaved).toBe(16);
  const view = briefOf(page).viewpoint as FreeViewpoint;
  const zone = sharpDepths(view)!;
  const { width, height } = await drawn(page);
  const frame = createCameraFrame(view, width / height)!;
  /** Row in which the ground is that lies so deep. */
  const rowAt = (depth: number) => {
    const up = -(frame.eye[1] + frame.forward[1] * depth) / frame.up[1];
    const point = add(frame.eye, add(scale(frame.forward, depth), scale(frame.up, up)));
    return placeInPicture(frame, point)!.y * height;
  };
  const column = async (rgba: (r: number, g: number, b: number, a: number) => boolean) => {
    const { data } = await drawn(page);
    const rows: number[] = [];
    const x = Math.round(0.97 * width);
    for (let y = 0; y < height; y++) {
      const i = (y * width + x) * 4;
      if (rgba(data[i]!, data[i + 1]!, data[i + 2]!, data[i + 3]!)) rows.push(y + 0.5);
    }
    return rows;
  };
  const red = (r: number, g: number, _b: number, a: number) => a > 200 && r > 120 && g < 60;
  await expect.poll(async () => (await column(red)).length, { timeout: 60_000 }).toBeGreaterThan(0);
  // over the picture, within two of its own pixels
  const focus = await column(red);
  const [first, last] = [focus[0]!, focus.at(-1)!];
  expect(Math.abs((first + last) / 2 - rowAt(zone.focus))).toBeLessThan(2);
  // what lies behind is veiled, what is sharp is clear
  const veiled = await column((r, _g, _b, a) => a > 100 && r > 120);
  const clear = await column((_r, _g, _b, a) => a < 10);
  const [near, far] = [rowAt(zone.near), rowAt(zone.far)];
  const inside = (y: number) => y > far + 3 && y < near - 3 && Math.abs(y - rowAt(zone.focus)) > 4;
  expect(clear.filter(inside).length).toBeGreaterThan(0);
  expect(veiled.filter(inside)).toEqual([]);
  expect(veiled.filter((y) => y < far - 3 || y > near + 3).length).toBeGreaterThan(0);
  await lens.getByLabel('Show the sharp zone on the stage').uncheck();
  await expect.poll(() => column(red)).toEqual([]);
});
