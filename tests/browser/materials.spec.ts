/** Materials: of the library by press and by drop, changed, with pictures on them, on one part; labels; rules. */
import { readFile, writeFile } from 'node:fs/promises';
import { expect, type Page, test } from '@playwright/test';
import sharp from 'sharp';

async function openLook(page: Page, project: RegExp) {
  await page.goto('/');
  await page.getByRole('link', { name: project }).click();
  await expect(page.locator('html')).toHaveAttribute('data-alive', '', { timeout: 30_000 });
  // whatever others left: a page that is closed at once can lose its last change
  await page.evaluate(async () => {
    const [id] = /[0-9a-f-]{8,}/.exec(location.pathname) ?? [];
    await fetch(`/api/projects/${id}/materials`, {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ materials: [] })
    });
  });
  await page.reload();
  await expect(page.locator('html')).toHaveAttribute('data-alive', '', { timeout: 30_000 });
  await page.locator('.brief a.w', { hasText: 'photographic' }).click();
  return { panel: page.getByRole('complementary'), sentence: page.locator('.brief') };
}
/** What is changed last is not lost with the page. */
async function saved(page: Page, change: () => Promise<void>) {
  const idle = page.waitForResponse((r) => r.url().endsWith('/brief') && r.request().method() === 'PUT');
  await change();
  await idle;
  await page.waitForLoadState('networkidle', { timeout: 3000 }).catch(() => {});
}
/** A plain picture with a clear right half. */
const halfClear = () =>
  sharp(
    Buffer.from(Array.from({ length: 64 * 32 * 4 }, (_, i) => [210, 30, 20, (i >> 2) % 64 < 32 ? 255 : 0][i & 3]!)),
    { raw: { width: 64, height: 32, channels: 4 } }
  )
    .png()
    .toBuffer();

test('a material of the file becomes one of the library, and is taken back', async ({ page }) => {
  // its swatches are rendered beside the preview
  test.setTimeout(300_000);
  await page.goto('/');
  await page.getByRole('link', { name: /Perihelion lamp/ }).click();
  await expect(page.locator('html')).toHaveAttribute('data-alive', '', { timeout: 30_000 });
  const sentence = page.locator('.brief');
  await page.locator('.brief a.w', { hasText: 'photographic' }).click();
  const panel = page.getByRole('complementary');
  await panel.getByRole('button', { name: 'stoneware', exact: true }).click();
  await panel.getByRole('searchbox', { name: 'Find a material' }).fill('marble');
  const library = panel.getByRole('group', { name: 'Materials of the library' });
  await expect(library.getByRole('button')).toHaveCount(4);
  await library.getByRole('button', { name: 'Marble, green, polished' }).click();
  await expect(sentence).toContainText('photographic with one\u00a0other material');
  // its picture is rendered when it is first shown
  const swatch = library.locator('img').first();
  await expect.poll(() => swatch.evaluate((img: HTMLImageElement) => img.naturalWidth), { timeout: 150_000 }).toBe(168);
  await saved(page, () => panel.getByRole('button', { name: 'As in the file' }).click());
  await expect(sentence).not.toContainText('other material');
});

test('a material is dropped on the stage, changed, kept, and given to one part alone', async ({ page }) => {
  test.setTimeout(300_000);
  const { panel, sentence } = await openLook(page, /Perihelion lamp/);
  // what lies under the middle of the picture is chosen by a press, once the model is there
  await panel.getByRole('button', { name: 'Press it on the stage' }).click();
  const stage = page.locator('.im');
  const box = (await stage.boundingBox())!;
  const scope = panel.getByRole('radiogroup', { name: 'Where' });
  await expect(async () => {
    await stage.locator('.pick').click({ position: { x: box.width * 0.5, y: box.height * 0.75 } });
    await expect(scope).toBeVisible({ timeout: 2000 });
  }).toPass();
  const chosen = (await panel.locator('.part > .row b').first().textContent())!;
  await panel.getByRole('searchbox', { name: 'Find a material' }).fill('herringbone');
  const swatch = panel.getByRole('button', { name: 'Walnut herringbone' });
  await swatch.scrollIntoViewIfNeeded();
  const from = (await swatch.boundingBox())!;
  await page.mouse.move(from.x + 20, from.y + 20);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.5, box.y + box.height * 0.7, { steps: 8 });
  await page.mouse.move(box.x + box.width * 0.5, box.y + box.height * 0.75, { steps: 4 });
  await expect(page.locator('.droponto.over')).toBeVisible();
  await page.mouse.up();
  await expect(sentence).toContainText('photographic with one\u00a0other material');
  const row = panel.locator('ul.worn li', { hasText: chosen }).first();
  await expect(row).toContainText('Walnut herringbone');
  // changed in words; a press of the same name undoes all changes
  await panel.getByText('Change', { exact: true }).click();
  const shine = panel.getByRole('slider', { name: 'Shine' });
  await shine.focus();
  await page.keyboard.press('End');
  await expect(row).toContainText('Walnut herringbone, changed');
  await panel.getByLabel('Light output').fill('90000');
  await panel.getByLabel('Light output').press('Enter');
  await expect(panel.getByText(/It gives 90,000 cd/)).toBeVisible();
  await panel.getByRole('button', { name: 'Undo all changes' }).click();
  await expect(row).not.toContainText('changed');
  await shine.focus();
  await page.keyboard.press('End');
  await panel.getByRole('textbox', { name: 'Save this material as' }).fill('Walnut, mirror');
  await panel.getByRole('textbox', { name: 'Save this material as' }).press('Enter');
  await panel.getByText('Library', { exact: true }).click();
  await expect(panel.getByText('My own', { exact: true })).toBeVisible();
  // only the part that was pressed
  await scope.getByText(/^Only /).click();
  await panel.getByRole('searchbox', { name: 'Find a material' }).fill('paint, ochre');
  await panel.getByRole('button', { name: 'Paint, ochre' }).click();
  await expect(row).toContainText('one part other');
  await panel.getByRole('button', { name: 'As in the file' }).click();
  await expect(row).not.toContainText('other');
  // others find the lamp as it was
  await scope.getByText('All like this').click();
  await saved(page, () => panel.getByRole('button', { name: 'As in the file' }).click());
  await expect(sentence).not.toContainText('other material');
});

test('a label lies on a face, a picture on a material; rules go to all pictures and through a file', async ({
  page
}) => {
  test.setTimeout(300_000);
  const { panel, sentence } = await openLook(page, /Perihelion lamp/);
  const picture = test.info().outputPath('badge.png');
  await writeFile(picture, await halfClear());
  const labels = panel.locator('.sec', { hasText: 'A picture on a face' });
  const stage = page.locator('.im');
  const box = (await stage.boundingBox())!;
  await labels.locator('input[type=file]').setInputFiles(picture);
  await expect(page.getByText('Press the face where the label is to lie.').first()).toBeVisible();
  await stage.locator('.pick').click({ position: { x: box.width * 0.5, y: box.height * 0.75 } });
  await expect(labels.getByRole('textbox', { name: 'Name' })).toHaveValue('Label 1');
  await expect(sentence).toContainText('one\u00a0label');
  await labels.getByLabel('Width').fill('4');
  await labels.getByLabel('Width').press('Enter');
  // what is no picture is said to be none
  await writeFile(test.info().outputPath('notes.png'), 'no picture at all');
  await labels.locator('input[type=file]').setInputFiles(test.info().outputPath('notes.png'));
  await expect(page.getByText(/"notes.png" cannot be read as a picture/)).toBeVisible();
  // a picture on a material, as wide as it says
  await panel.getByRole('button', { name: 'stoneware', exact: true }).click();
  await panel.getByText('Pictures on it', { exact: true }).click();
  await panel.getByLabel('Picture for colour').selectOption({ label: 'badge' });
  await panel.getByLabel('Width').first().fill('25');
  await panel.getByLabel('Width').first().press('Enter');
  await expect(panel.locator('ul.worn li', { hasText: 'stoneware' })).toContainText('of the file, changed');
  await expect(panel.getByText(/px to the centimetre/)).toBeVisible();
  // the preview comes with label and picture
  await expect(page.locator('.truth')).toHaveAttribute('data-samples', /./, { timeout: 60_000 });
  await panel.getByRole('button', { name: 'Use in all pictures' }).click();
  await expect(panel.getByText(/more pictures? ha(s|ve) these rules/)).toBeVisible();
  const download = page.waitForEvent('download');
  await panel.getByRole('button', { name: 'Save the rules' }).click();
  const file = test.info().outputPath('rules.json');
  await (await download).saveAs(file);
  const rules = JSON.parse(await readFile(file, 'utf8')) as { version: number; materials: { material: string }[] };
  expect(rules.materials[0]).toMatchObject({ material: 'stoneware', texture: { width_cm: 25 } });
  rules.materials[0]!.material = 'Nothing of this name*';
  await writeFile(file, JSON.stringify(rules));
  await panel.getByLabel('Choose a file of rules').setInputFiles(file);
  await expect(panel.getByText('Rules without a material or part in this revision')).toBeVisible();
  // what is said of a change that is being saved would take the place of what is said of the next file
  await saved(page, () => panel.getByRole('button', { name: 'Forget' }).click());
  await expect(panel.locator('ul.worn li', { hasText: 'stoneware' })).toContainText('as in the file');
  await writeFile(file, '{"materials":[{"material":"a","becomes":"gauze"}]}');
  await panel.getByLabel('Choose a file of rules').setInputFiles(file);
  await expect(page.getByText(/"gauze" is not in the library/)).toBeVisible();
  await labels.getByRole('button', { name: 'Remove' }).click();
  await expect(sentence).not.toContainText('label');
});
