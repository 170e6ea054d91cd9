/** Files to hand over: kinds, depth, quality with its size, names, words in them, and the set as a ZIP. Viewpoints. */
import { readFile } from 'node:fs/promises';
import { expect, type Page, test } from '@playwright/test';
import { unzipSync } from 'fflate';
import sharp from 'sharp';

async function openLamp(page: Page) {
  await page.goto('/');
  await page.getByRole('link', { name: /Perihelion lamp/ }).click();
  await expect(page.locator('html')).toHaveAttribute('data-alive', '', { timeout: 30_000 });
}

test('a proof is saved as TIFF of 16 bits, as PDF and in a ZIP, by names and with words of one’s own', async ({
  page
}) => {
  test.setTimeout(300_000);
  await openLamp(page);
  // a small quick proof
  await page
    .locator('.brief a.w', { hasText: 'quality' })
    .or(page.locator('.brief a.w', { hasText: 'Study' }))
    .first()
    .click();
  await page
    .getByRole('button', { name: /^Glance/ })
    .first()
    .click();
  await page
    .getByRole('button', { name: /^Render/ })
    .first()
    .click();
  await expect(page.locator('.tks .tk', { hasText: 'Glance' }).first()).toContainText('took', { timeout: 200_000 });
  await page.getByRole('button', { name: 'More files' }).click();
  const panel = page.getByRole('complementary');
  const save = async (name: RegExp) => {
    const download = page.waitForEvent('download');
    await panel.getByRole('link', { name }).click();
    const file = await download;
    return { name: file.suggestedFilename(), bytes: await readFile((await file.path())!) };
  };
  await panel.getByText('TIFF', { exact: true }).click();
  await panel.getByText('16\u00a0bits', { exact: true }).click();
  await panel.getByRole('textbox', { name: 'Author' }).fill('A. Test');
  await panel.getByRole('textbox', { name: 'Name' }).fill('{picture}_{width}x{height}_final');
  await expect(panel.getByRole('status')).toHaveText(/[kM]B/, { timeout: 60_000 });
  const tiff = await save(/^Save TIFF/);
  expect(tiff.name).toMatch(/_\d+x\d+_final\.tif$/);
  const { depth, xmp, width } = await sharp(tiff.bytes).metadata();
  expect(depth).toBe('ushort');
  expect(xmp!.toString()).toContain('A. Test');
  await panel.getByText('JPEG', { exact: true }).click();
  await expect(panel.getByRole('status')).toHaveText(/[kM]B/, { timeout: 60_000 });
  const large = await panel.getByRole('status').textContent();
  await panel.getByRole('slider', { name: 'Quality' }).focus();
  await page.keyboard.press('Home');
  await expect(panel.getByRole('status')).toHaveText(/[kM]B/, { timeout: 60_000 });
  expect(await panel.getByRole('status').textContent()).not.toBe(large);
  await panel.getByText('PDF', { exact: true }).click();
  expect((await save(/^Save PDF/)).bytes.toString('latin1', 0, 5)).toBe('%PDF-');
  await panel.getByText('WebP', { exact: true }).click();
  const zip = unzipSync(new Uint8Array((await save(/^Save all pictures/)).bytes));
  const [first] = Object.entries(zip);
  // into a folder: the browser's private one stands for what a user would choose
  await page.evaluate(() => {
    Object.assign(window, { showDirectoryPicker: () => navigator.storage.getDirectory() });
  });
  const inFolder = () =>
    page.evaluate(async () => {
      const folder = await navigator.storage.getDirectory();
      const found: [string, number][] = [];
      for await (const [name, handle] of (
        folder as unknown as { entries(): AsyncIterable<[string, FileSystemFileHandle]> }
      ).entries())
        found.push([name, (await handle.getFile()).size]);
      return Object.fromEntries(found);
    });
  const intoFolder = async (files: number) => {
    await panel.getByRole('button', { name: 'Save all pictures into a folder' }).click();
    await expect.poll(async () => Object.keys(await inFolder()).length, { timeout: 60_000 }).toBe(files);
    await expect(panel.getByText(/in “.*”. Files that were there before are as they were/)).toBeVisible();
  };
  const count = Object.keys(zip).length;
  await intoFolder(count);
  expect(await inFolder()).toEqual(Object.fromEntries(Object.entries(zip).map(([name, data]) => [name, data.length])));
  // once more: what is there stays, the new files are numbered
  await intoFolder(2 * count);
  expect(first![0]).toMatch(/_final\.webp$/);
  expect((await sharp(first![1]).metadata()).width).toBe(width);
});

test('a viewpoint is drawn as a plan, cut open, and a lens shifted until verticals are straight', async ({ page }) => {
  test.setTimeout(200_000);
  await openLamp(page);
  const sentence = page.locator('.brief');
  await page.locator('.brief a.w').first().click();
  const panel = page.getByRole('complementary');
  await panel.getByRole('button', { name: 'Plan', exact: true }).click();
  await expect(sentence).toContainText('in parallel projection');
  await panel.getByText('level', { exact: true }).click();
  await expect(panel.getByRole('slider', { name: 'Cut at' })).toBeVisible();
  await panel.getByRole('button', { name: 'Take away the other side' }).click();
  await panel.getByText('none', { exact: true }).first().click();
  await panel.getByRole('button', { name: 'Front', exact: true }).click();
  await panel.getByRole('button', { name: 'Cut at a face' }).click();
  // the globe of the lamp, once the model is there
  const pick = page.locator('.im .pick');
  const box = (await page.locator('.im').boundingBox())!;
  await expect(async () => {
    if ((await pick.count()) > 0) await pick.click({ position: { x: box.width * 0.316, y: box.height * 0.404 } });
    await expect(pick).toHaveCount(0, { timeout: 2000 });
  }).toPass({ timeout: 60_000 });
  await panel.getByText('none', { exact: true }).first().click();
  await page.locator('.brief a.w', { hasText: 'parallel projection' }).click();
  await panel.getByText('perspective', { exact: true }).click();
  await panel.getByLabel('Straight verticals').click();
  await expect(panel.getByText(/its lens is shifted by -?\d/)).toBeVisible();
  await panel.getByText('all around', { exact: true }).click();
  await expect(sentence).toContainText('seen all around');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Stage', exact: true }).click();
  await panel.getByText('thirds', { exact: true }).click();
  await panel.getByLabel('Horizon').click();
  await expect(page.locator('.guides line')).toHaveCount(5);
  // others find the lamp as it was
  await page.locator('.brief a.w').first().click();
  const saved = page.waitForResponse((r) => r.url().endsWith('/brief') && r.request().method() === 'PUT');
  await panel.getByRole('button', { name: /^Whole lamp/ }).click();
  await saved;
  await expect(sentence).toContainText('mm lens');
});
