/** Size, quality and time decided together: destinations, the size panel in all its units, the deadline question, a patch, what costs time. */
import { expect, test } from '@playwright/test';
import { briefOf, ownProject, panel, sentence, word } from '../support/pages';

test('a destination is chosen, changed in every unit, and the sentence says what it asks for', async ({ page }) => {
  test.setTimeout(180_000);
  await ownProject(page, 'Reading room', 'Size room');
  await word(page, /A3 landscape/).click();
  const size = panel(page, 'Size');
  await size.getByText('A1 panel at 1.5 m').click();
  await expect(sentence(page)).toContainText('for an A1 panel at 1.5 m, 155 ppi');
  await expect(size.getByLabel('Width in px')).toHaveValue('5132');
  // pixels change a paper's density
  await size.getByLabel('Width in px').fill('3000');
  await size.getByLabel('Width in px').press('Enter');
  await expect(sentence(page)).toContainText('on A1 landscape at 90.6 ppi (an A1 panel at 1.5 m asks for 155 ppi)');
  await expect(size.getByLabel('Width in mm')).toHaveValue('841.0');
  // too fine is said, and put right
  await size.getByRole('slider', { name: 'Pixels per inch' }).press('End');
  await expect(size.getByText('Finer than is seen')).toBeVisible();
  await expect(size.getByText('This is the most there can be')).toBeVisible();
  await size.getByRole('button', { name: 'Take 155 ppi' }).click();
  await expect(sentence(page)).toContainText('for an A1 panel at 1.5 m, 155 ppi');
  // nearer, its pixels would show
  await size.getByLabel('Seen from').fill('0.3');
  await size.getByLabel('Seen from').press('Enter');
  await expect(size.getByText('pixels would show from 0.3 m')).toBeVisible();
  // cm and inches; a typed side makes a sheet of one's own, in proportion
  await size.getByText('cm', { exact: true }).click();
  await expect(size.getByLabel('Width in cm')).toHaveValue('84.10');
  await size.getByLabel('Width in cm').fill('60');
  await size.getByLabel('Width in cm').press('Enter');
  await expect(sentence(page)).toContainText('a sheet of 600');
  await size.getByText('inches', { exact: true }).click();
  await expect(size.getByLabel('Width in inches')).toHaveValue('23.62');
  await expect(size.getByLabel('Height in inches')).toHaveValue('16.68');
  await size.getByRole('button', { name: 'Pixels alone' }).click();
  await expect(sentence(page)).toContainText('a screen of 3661');
  expect(briefOf(page).seen.destination?.name).toBe('A1 panel at 1.5 m');
});

test('a narrower sheet widens the view and shows the frame before; the sheet can be cut to the picture instead; own destinations are kept', async ({ page }) => {
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
  await size.getByRole('button', { name: 'Cut the sheet to the picture instead' }).click();
  await expect(sentence(page)).toContainText('a sheet of 297');
  await expect(sentence(page)).toContainText('24\u00a0mm lens');
  await size.getByText('Own destinations').click();
  await size.getByPlaceholder('name for the size that is set now').fill('Jury wall');
  await size.getByRole('button', { name: 'Keep' }).click();
  await size.getByText('A4 handout').click();
  await expect(sentence(page)).toContainText('for an A4 handout, 300 ppi');
  await size.getByRole('button', { name: 'Jury wall', exact: true }).click();
  await expect(sentence(page)).toContainText('for Jury wall, 200 ppi');
});

test('a forecast is measured, a deadline offers what fits, a patch is rendered in its place, and what costs time is told', async ({ page }) => {
  test.setTimeout(300_000);
  await ownProject(page, 'Perihelion lamp', 'Time lamp');
  await expect(sentence(page)).toContainText(/ready in about/, { timeout: 60_000 });
  await word(page, /Glance/).click();
  const quality = panel(page, 'Quality');
  await quality.getByLabel('I need it by').fill('soon');
  await expect(quality.getByText('Write an hour like 17:00')).toBeVisible();
  await quality.getByLabel('I need it by').fill('in 1 min');
  const offers = quality.getByRole('group', { name: 'What can be had until then' }).getByRole('button');
  await expect(offers.first()).toBeVisible();
  expect(await offers.count()).toBeGreaterThan(0);
  await offers.first().click();
  await expect(offers.first()).toHaveAttribute('aria-pressed', 'true');
  const { quality: taken } = briefOf(page);
  await expect(quality.getByText(/It stops when/)).toContainText(`every pixel has ${taken.samples} samples`);
  await expect(quality.getByRole('img', { name: /Raw grain against time/ })).toBeVisible();

  await quality.getByRole('button', { name: 'Measure' }).click();
  await expect(quality.getByRole('button', { name: 'Measure again' })).toBeVisible({ timeout: 120_000 });
  await expect(quality.getByText(/of the time|Nothing that could be left out/).first()).toBeVisible();

  await page.getByRole('button', { name: 'Patch' }).click();
  const box = (await page.locator('.im').boundingBox())!;
  await page.mouse.move(box.x + box.width * 0.4, box.y + box.height * 0.4);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.5, box.y + box.height * 0.5, { steps: 4 });
  await expect(page.locator('.im .before')).toBeVisible();
  await page.mouse.up();
  await expect(page.locator('.tk').first()).toContainText('patch', { timeout: 120_000 });
  const patch = page.locator('.im img.patch');
  await expect(patch).toHaveAttribute('alt', /^Patch 1/);
  const place = (await patch.boundingBox())!;
  expect((place.x - box.x) / box.width).toBeCloseTo(0.4, 1);
  expect(place.width / box.width).toBeCloseTo(0.1, 1);
});
