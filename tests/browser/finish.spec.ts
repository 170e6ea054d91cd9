/** The film of a proof, finished on the stage: adjustments, dimmers, before and after, the meter; kept and handed over. */
import { readFile } from 'node:fs/promises';
import { expect, type Page, test } from '@playwright/test';
import sharp from 'sharp';
import { type Brief, canonicalJson } from '../../src/core/brief/brief';
import { pictureOf } from '../support/pages';
import { pressIcc } from '../support/press-icc';

let found: { id: string; brief: Brief } | null = null;

/** The first proof, which is complete, without a finish. */
async function openFinish(page: Page) {
  await page.goto('/');
  await page.getByRole('link', { name: /Reading room/ }).click();
  await expect(page.locator('html')).toHaveAttribute('data-alive', '', { timeout: 30_000 });
  found = pictureOf(page);
  await page.getByRole('button', { name: 'Show proof 1', exact: true }).click();
  await page.locator('.strip').getByRole('button', { name: 'Finish', exact: true }).click();
  await expect(page.getByRole('complementary', { name: 'Finish' })).toBeVisible();
  await settled(page);
  await page.getByRole('button', { name: 'As rendered', exact: true }).first().click();
  await settled(page);
}
/** The picture is left as it was found. */
test.afterEach(async ({ page }) => {
  if (!found) return;
  const { id, brief } = found;
  await expect
    .poll(async () => {
      await page.evaluate(
        ({ id: picture, body }) =>
          fetch(`/api/pictures/${picture}/brief`, {
            method: 'PUT',
            headers: { 'Content-Type': 'application/json' },
            body
          }),
        { id, body: JSON.stringify({ brief, from: null, joins: false }) }
      );
      await page.waitForTimeout(1000);
      return canonicalJson(pictureOf(page).brief);
    })
    .toBe(canonicalJson(brief));
});
const canvas = (page: Page) => page.locator('.finished canvas').first();
/** Waits until the stage shows the finish as it is now, whole. */
async function settled(page: Page) {
  await expect(canvas(page)).toHaveAttribute('data-level', 'full', { timeout: 60_000 });
  await page.waitForTimeout(400);
  await expect(canvas(page)).toHaveAttribute('data-level', 'full', { timeout: 60_000 });
}
/** Mean of the codes on a canvas, by channel. */
const mean = (page: Page, index = 0) =>
  page
    .locator('.finished canvas')
    .nth(index)
    .evaluate((element) => {
      const shown = element as HTMLCanvasElement;
      const { data } = shown.getContext('2d')!.getImageData(0, 0, shown.width, shown.height);
      const sums = [0, 0, 0];
      for (let i = 0; i < data.length; i += 4) for (let c = 0; c < 3; c++) sums[c]! += data[i + c]!;
      return sums.map((sum) => sum / (data.length / 4));
    });
const luma = async (page: Page, index = 0) => (await mean(page, index)).reduce((a, b) => a + b) / 3;
async function press(page: Page, slider: string, key: string, times: number) {
  const scale = page.getByRole('slider', { name: slider, exact: true });
  await scale.focus();
  for (let i = 0; i < times; i++) await scale.press(key);
  await settled(page);
}
test('adjustments are seen at once, beside how it was, and taken back one by one or all', async ({ page }) => {
  test.setTimeout(200_000);
  await openFinish(page);
  const sentence = page.locator('.brief');
  const plain = await luma(page);
  await press(page, 'Exposure', 'ArrowRight', 10);
  expect(await luma(page)).toBeGreaterThan(plain + 10);
  await expect(sentence).toContainText('brightened by 0.5');
  // the proof as it was finished lies beside it
  expect(await luma(page, 1)).toBeLessThan((await luma(page)) - 10);
  const was = page.locator('.finished canvas').nth(1);
  await expect(was).toBeHidden();
  await page.getByRole('button', { name: 'Before', exact: true }).click();
  await expect(was).toBeVisible();
  await page.getByRole('button', { name: 'Parted by a line' }).click();
  const line = page.getByRole('slider', { name: 'Line between before and after' });
  await line.focus();
  await line.press('ArrowLeft');
  await expect(line).toHaveAttribute('aria-valuenow', '48');
  await page.getByRole('button', { name: 'After', exact: true }).click();
  await page.locator('.panel h2').click();
  await page.keyboard.down('b');
  await expect(was).toBeVisible();
  await page.keyboard.up('b');
  await expect(was).toBeHidden();
  // a double press puts it where it was
  await page.getByRole('slider', { name: 'Exposure', exact: true }).dblclick();
  await settled(page);
  await expect(sentence).not.toContainText('brightened');
  await press(page, 'Saturation', 'Home', 1);
  const [r, g, b] = await mean(page);
  expect(Math.max(r!, g!, b!) - Math.min(r!, g!, b!)).toBeLessThan(1);
  await expect(sentence).toContainText('in black and white');
  await page.keyboard.press('Control+z');
  await settled(page);
  await expect(sentence).not.toContainText('black and white');
  expect(Math.abs((await luma(page)) - plain)).toBeLessThan(1);
  await page.getByLabel('Character').selectOption('crisp');
  await settled(page);
  await expect(sentence).toContainText('in crisp tones');
  await expect(page.locator('.hist .bar')).toHaveCount(50);
  await page.getByRole('button', { name: 'As rendered', exact: true }).first().click();
  await settled(page);
  expect(Math.abs((await luma(page)) - plain)).toBeLessThan(1);
});

test('each light is dimmed after the render, and the meter proposes what one press takes', async ({ page }) => {
  test.setTimeout(200_000);
  await openFinish(page);
  const plain = await luma(page);
  const strip = page.locator('.dimmers');
  await expect(strip.locator('.tk.dim')).toHaveCount(5);
  await expect(strip.getByRole('img', { name: 'Sun alone' })).toBeVisible({ timeout: 30_000 });
  await strip.getByRole('checkbox', { name: 'Sun, on or off' }).uncheck();
  await settled(page);
  const dark = await luma(page);
  expect(dark).toBeLessThan(plain - 10);
  await expect(page.locator('.brief')).toContainText('sun off afterwards');
  // far too dark, which the meter sees on the film
  await press(page, 'Exposure', 'Home', 1);
  const darker = await luma(page);
  await page.getByRole('button', { name: 'Propose' }).click();
  const says = page.getByRole('status').filter({ hasText: 'stops' });
  await expect(says).toContainText('EV');
  await says.getByRole('button', { name: 'Take it' }).click();
  await settled(page);
  expect(await luma(page)).toBeGreaterThan(darker + 20);
  await page.getByRole('button', { name: 'As rendered', exact: true }).first().click();
  await settled(page);
  expect(Math.abs((await luma(page)) - plain)).toBeLessThan(1);
});

test('a finish is handed over as it is now and kept as a proof of the same film', async ({ page }) => {
  test.setTimeout(200_000);
  await openFinish(page);
  const tickets = page.locator('.tks .tk:not(.dim)');
  await page.getByRole('button', { name: 'Back to the proofs' }).click();
  const before = await tickets.count();
  await page.keyboard.press('f');
  await settled(page);
  await press(page, 'Contrast', 'ArrowRight', 40);
  const finished = await luma(page);
  const panel = page.getByRole('complementary', { name: 'Finish' });
  await panel.getByRole('button', { name: 'Hand over' }).click();
  const files = page.getByRole('complementary', { name: 'Hand over' });
  await expect(files.getByRole('checkbox', { name: 'As it is finished now' })).toBeChecked();
  const download = page.waitForEvent('download');
  await files.getByRole('link', { name: /^Save PNG/ }).click();
  const file = await download;
  expect(file.suggestedFilename()).toContain('finished');
  const { channels } = await sharp(await readFile((await file.path())!)).stats();
  const handed = channels.slice(0, 3).reduce((sum, c) => sum + c.mean, 0) / 3;
  expect(Math.abs(handed - finished)).toBeLessThan(1.5);
  await page.keyboard.press('f');
  await settled(page);
  await panel.getByRole('button', { name: 'Keep as a proof' }).click();
  await page.getByRole('button', { name: 'Back to the proofs' }).click();
  await expect(tickets).toHaveCount(before + 1);
  await expect(page.locator('.im img').last()).toBeVisible({ timeout: 60_000 });
  await expect(page.locator('.strip').getByRole('button', { name: 'Finish', exact: true })).toBeVisible({
    timeout: 60_000
  });
  // as it was found
  await page
    .locator('.strip')
    .getByRole('button', { name: /^Remove proof/ })
    .click();
  await expect(tickets).toHaveCount(before);
});

test('the picture is seen as a press prints it, and handed over in its inks', async ({ page }) => {
  await openFinish(page);
  const panel = page.getByRole('complementary', { name: 'Finish' });
  const onScreen = await mean(page);
  const apart = async () => {
    const now = await mean(page);
    return Math.max(...now.map((v, c) => Math.abs(v - onScreen[c]!)));
  };
  const choose = panel.getByLabel('Choose the ICC profile of a press');
  await choose.setInputFiles({ name: 'notes.icc', mimeType: 'text/plain', buffer: Buffer.from('no profile at all') });
  await expect(page.getByText('"notes.icc": it is not an ICC profile')).toBeVisible();
  await choose.setInputFiles({ name: 'press.icc', mimeType: 'text/plain', buffer: Buffer.from(await pressIcc()) });
  const profile = panel.getByRole('button', { name: 'Chemical proof', exact: true });
  await expect(profile).toHaveAttribute('aria-pressed', 'true');
  await expect.poll(apart, { timeout: 30_000 }).toBeGreaterThan(1);
  const printed = await apart();
  await panel.getByRole('checkbox', { name: 'Mark colours that it cannot print' }).check();
  await expect.poll(apart, { timeout: 30_000 }).not.toBe(printed);
  await expect(panel.getByText(/of the picture colours become duller/)).toBeVisible();
  await panel.getByRole('button', { name: 'As a screen shows it' }).click();
  await expect.poll(apart, { timeout: 30_000 }).toBe(0);

  await panel.getByRole('button', { name: 'Hand over', exact: true }).click();
  const files = page.getByRole('complementary', { name: 'Hand over' });
  await files.getByText('TIFF', { exact: true }).click();
  await files.getByText('inks (CMYK)', { exact: true }).click();
  await expect(files.getByText(/^\d+(\.\d)?\u00a0(kB|MB)$/)).toBeVisible({ timeout: 60_000 });
  const waiting = page.waitForEvent('download');
  await files.getByRole('link', { name: 'Save TIFF' }).click();
  const saved = await sharp(await (await waiting).path()).metadata();
  expect([saved.format, saved.space, saved.channels]).toEqual(['tiff', 'cmyk', 4]);
});
