/**
 * Size, quality and time decided together: destinations, the size panel in all its units, the deadline question, a
 * patch, what costs time.
 */
import { expect, test } from '@playwright/test';
import sharp from 'sharp';
import { briefOf, ownProject, panel, pictureOf, proofOf, sentence, word } from '../support/pages';

test('a destination is chosen, changed in every unit, and the sentence says what it asks for', async ({ page }) => {
  test.setTimeout(180_000);
  await ownProject(page, 'Reading room', 'Size room');
  await word(page, /A3 landscape/).click();
  const size = panel(page, 'Size');
  // as many pixels as a density allows, and that is said
  await size.getByRole('textbox', { name: 'Width in px', exact: true }).fill('30000');
  await size.getByRole('textbox', { name: 'Width in px', exact: true }).press('Enter');
  await expect(size.getByText('This is the most there can be: 1,200 ppi')).toBeVisible();
  await size.getByText('A1 panel at 1.5 m').click();
  await expect(sentence(page)).toContainText('for an A1 panel at 1.5 m, 155 ppi');
  await expect(size.getByRole('textbox', { name: 'Width in px', exact: true })).toHaveValue('5132');
  // pixels change a paper's density
  await size.getByRole('textbox', { name: 'Width in px', exact: true }).fill('3000');
  await size.getByRole('textbox', { name: 'Width in px', exact: true }).press('Enter');
  await expect(sentence(page)).toContainText('on A1 landscape at 90.6 ppi (an A1 panel at 1.5 m asks for 155 ppi)');
  await expect(size.getByRole('textbox', { name: 'Width in mm', exact: true })).toHaveValue('841.0');
  // too fine is said, and put right
  await size.getByRole('slider', { name: 'Pixels per inch' }).press('End');
  await expect(size.getByText('Finer than is seen')).toBeVisible();
  await size.getByRole('button', { name: 'Use 155 ppi' }).click();
  await expect(sentence(page)).toContainText('for an A1 panel at 1.5 m, 155 ppi');
  // beyond what a file can hold it stops, and says so
  await size.getByRole('textbox', { name: 'Width in px', exact: true }).fill('30000');
  await size.getByRole('textbox', { name: 'Width in px', exact: true }).press('Enter');
  await expect(size.getByText('This is the most there can be: 30,000 px a side')).toBeVisible();
  await size.getByRole('button', { name: 'Use 155 ppi' }).click();
  // nearer, its pixels would show
  await size.getByRole('textbox', { name: 'Seen from, m', exact: true }).fill('0.3');
  await size.getByRole('textbox', { name: 'Seen from, m', exact: true }).press('Enter');
  await expect(size.getByText('pixels would show from 0.3 m')).toBeVisible();
  // cm and inches; a typed side makes a sheet of one's own, in proportion
  await size.getByText('cm', { exact: true }).click();
  await expect(size.getByRole('textbox', { name: 'Width in cm', exact: true })).toHaveValue('84.10');
  await size.getByRole('textbox', { name: 'Width in cm', exact: true }).fill('60');
  await size.getByRole('textbox', { name: 'Width in cm', exact: true }).press('Enter');
  await expect(sentence(page)).toContainText('a sheet of 600');
  await size.getByText('inches', { exact: true }).click();
  await expect(size.getByRole('textbox', { name: 'Width in inches', exact: true })).toHaveValue('23.62');
  await expect(size.getByRole('textbox', { name: 'Height in inches', exact: true })).toHaveValue('16.68');
  await size.getByRole('button', { name: 'Pixels only' }).click();
  await expect(sentence(page)).toContainText('a screen of 3661');
  // a change from elsewhere is not undone by a field that was in hand and is left as it was
  await size.getByRole('textbox', { name: 'Width in px', exact: true }).focus();
  const { id, brief } = pictureOf(page);
  const put = page.waitForResponse((r) => r.request().method() === 'PUT');
  await page.evaluate(
    ([url, body]) => void fetch(url!, { method: 'PUT', headers: { 'Content-Type': 'application/json' }, body }),
    [
      `/api/pictures/${id}/brief`,
      JSON.stringify({ brief: { ...brief, size: { width_px: 1234, height_px: 987 } }, joins: false })
    ] as const
  );
  expect((await put).ok()).toBe(true);
  await expect(sentence(page)).toContainText('a screen of 1234');
  await size.getByRole('textbox', { name: 'Width in px', exact: true }).press('Enter');
  await expect(size.getByRole('textbox', { name: 'Width in px', exact: true })).toHaveValue('1234');
  expect(briefOf(page).size).toEqual({ width_px: 1234, height_px: 987 });
  expect(briefOf(page).seen.destination?.name).toBe('A1 panel at 1.5 m');
});

test(
  'a narrower sheet widens the view and shows the frame before; the sheet can be cut to the picture ' +
    'instead; own destinations are kept',
  async ({ page }) => {
    test.setTimeout(180_000);
    await ownProject(page, 'Reading room', 'Frame room');
    await word(page, /A3 landscape/).click();
    const size = panel(page, 'Size');
    await expect(sentence(page)).toContainText('24\u00a0mm lens');
    await size.getByRole('radio', { name: 'Portrait' }).click();
    await expect(sentence(page)).toContainText('12\u00a0mm lens');
    await expect(size.getByRole('status').first()).toContainText('The view was widened');
    const frame = await page.locator('.im').boundingBox();
    const before = await page.locator('.im .before').boundingBox();
    expect(before!.width / frame!.width).toBeCloseTo(1, 2);
    expect(before!.height / frame!.height).toBeCloseTo(0.5, 2);
    await size.getByRole('button', { name: 'Crop the sheet to the picture instead' }).click();
    await expect(sentence(page)).toContainText('a sheet of 297');
    await expect(sentence(page)).toContainText('24\u00a0mm lens');
    await size.getByText('Saved destinations').click();
    await size.getByPlaceholder('name this size').fill('Jury wall');
    await size.getByRole('button', { name: 'Save' }).click();
    await size.getByText('A4 handout').click();
    await expect(sentence(page)).toContainText('for an A4 handout, 300 ppi');
    await size.getByRole('button', { name: 'Jury wall', exact: true }).click();
    await expect(sentence(page)).toContainText('for Jury wall, 200 ppi');
  }
);

test('a picture of one’s own stands behind the model, heavy objects are slim in quick looks', async ({ page }) => {
  test.setTimeout(240_000);
  await ownProject(page, 'Perihelion lamp', 'Backdrop lamp');
  await word(page, 'background and ground').click();
  const around = panel(page, 'Background and ground');
  await around.getByText('Shadow only').click();
  await around.getByText('Picture', { exact: true }).click();
  await expect(around.getByText('No picture yet.')).toBeVisible();
  const choose = around.getByLabel('Choose a picture to stand behind the model');
  await choose.setInputFiles({ name: 'notes.png', mimeType: 'image/png', buffer: Buffer.from('no picture at all') });
  await expect(page.getByText('"notes.png" cannot be read as a picture')).toBeVisible();
  const half = await sharp({ create: { width: 300, height: 200, channels: 3, background: '#c02020' } })
    .composite([
      { input: { create: { width: 150, height: 200, channels: 3, background: '#2020c0' } }, left: 150, top: 0 }
    ])
    .png()
    .toBuffer();
  await choose.setInputFiles({ name: 'two halves.png', mimeType: 'image/png', buffer: half });
  await expect(around.getByRole('button', { name: /^two halves/ })).toHaveAttribute('aria-pressed', 'true');
  await expect(sentence(page)).toContainText('photographic, in front of a picture');
  await word(page, /Glance/).click();
  const quality = panel(page, 'Quality');
  const brass = quality.getByRole('radiogroup', { name: 'Polished brass in quick looks' });
  await brass.getByText('simplified').click();
  await expect.poll(() => briefOf(page).quality.slim).toEqual(['polished brass']);
  await expect(quality.getByText('They are whole again when the picture is to be shown.')).toBeVisible();
  await page.getByRole('button', { name: 'Render', exact: false }).first().click();
  await expect(page.locator('.tk').first()).toContainText('took', { timeout: 120_000 });
  const png = await (await page.request.get(`/api/proofs/${proofOf(page)}/file?kind=png`)).body();
  const { data, info } = await sharp(png).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  const at = (x: number, y: number) => [...data.subarray((y * info.width + x) * 3, (y * info.width + x) * 3 + 3)];
  expect(at(2, 2)).toEqual([0xc0, 0x20, 0x20]);
  expect(at(info.width - 3, 2)).toEqual([0x20, 0x20, 0xc0]);
});

test('a forecast is measured, a deadline offers what fits, and a patch is rendered in its place', async ({ page }) => {
  test.setTimeout(300_000);
  await ownProject(page, 'Perihelion lamp', 'Time lamp');
  await expect(sentence(page)).toContainText(/ready in about/, { timeout: 60_000 });
  await word(page, /Glance/).click();
  const quality = panel(page, 'Quality');
  await quality.getByLabel('I need it by').fill('soon');
  await expect(quality.getByText('Write an hour like 17:00')).toBeVisible();
  await quality.getByLabel('I need it by').fill('in 10 min');
  const offers = quality.getByRole('group', { name: 'What fits by then' }).getByRole('button');
  await expect(offers.first()).toBeVisible();
  expect(await offers.count()).toBeGreaterThan(0);
  // a piece of each as it would be
  await expect(offers.first().getByRole('img', { name: /A piece of/ })).toBeVisible({ timeout: 120_000 });
  await offers.first().click();
  await expect(offers.first()).toHaveAttribute('aria-pressed', 'true');
  // the kept brief follows the page by a moment
  const stops = quality.getByText(/^Stops /);
  await expect
    .poll(async () => (await stops.textContent())!.includes(`at ${briefOf(page).quality.samples} samples per pixel`))
    .toBe(true);
  await expect(quality.getByRole('img', { name: /Grain before denoising against time/ })).toBeVisible();

  await page.getByRole('button', { name: 'Patch' }).click();
  const box = (await page.locator('.im').boundingBox())!;
  await page.mouse.move(box.x + box.width * 0.4, box.y + box.height * 0.4);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.5, box.y + box.height * 0.5, { steps: 4 });
  await expect(page.locator('.im .before')).toBeVisible();
  await page.mouse.up();
  await expect(page.locator('.tk').first()).toContainText('patch', { timeout: 120_000 });
  const patch = page.locator('.im img.patch');
  await expect(patch).toHaveAttribute('alt', /^Patch 1/, { timeout: 120_000 });
  const place = (await patch.boundingBox())!;
  expect((place.x - box.x) / box.width).toBeCloseTo(0.4, 1);
  expect(place.width / box.width).toBeCloseTo(0.1, 1);
});

test('what costs time is told, and tried on a patch by one press', async ({ page }) => {
  test.setTimeout(420_000);
  await ownProject(page, 'Reading room', 'Costly room');
  await word(page, /Glance/).click();
  const quality = panel(page, 'Quality');
  await quality.getByRole('button', { name: 'Measure' }).click();
  // it can be stopped, and goes on from there
  await expect(quality.getByText(/at a time: 3 of 1\d, about .+ left/)).toBeVisible({ timeout: 100_000 });
  await quality.getByRole('button', { name: 'Stop', exact: true }).click();
  await quality.getByRole('button', { name: 'Go on measuring' }).click();
  await expect(quality.getByText(/at a time: [3-5] of 1\d/)).toBeVisible({ timeout: 60_000 });
  // what is found is said as soon as it is known: four lamps on the shelves take their time on any machine
  await expect(
    quality.getByText(/^Shelf lamps: \d+\s±\s\d+\s% of the time; switched off, that changes the picture by/)
  ).toBeVisible({ timeout: 180_000 });
  await quality.getByRole('button', { name: 'Stop', exact: true }).click();
  await expect(quality.getByRole('button', { name: 'Go on measuring' })).toBeVisible();
  // tried by one press: as it is, and with it
  await quality.getByRole('button', { name: 'Try it on a patch' }).first().click();
  await expect(page.locator('.tk')).toHaveCount(2, { timeout: 120_000 });
  for (const ticket of await page.locator('.tk').all()) {
    await expect(ticket).toContainText('patch', { timeout: 120_000 });
    await expect(ticket).toContainText('took', { timeout: 120_000 });
  }
});
