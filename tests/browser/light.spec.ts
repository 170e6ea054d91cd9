/** Light as its users set it: a softbox placed by its reflection, a ground of shadow alone, lamps by group and cue, the sun dragged over its day. */
import { expect, type Page, test } from '@playwright/test';
import Database from 'better-sqlite3';
import sharp from 'sharp';
import type { Brief } from '../../src/core/brief/brief';

const sentence = (page: Page) => page.locator('.brief');
const word = (page: Page, text: string | RegExp) => page.locator('.brief a.w', { hasText: text }).first();
const truth = (page: Page) => page.locator('.im canvas.truth');
const panel = (page: Page, name: string) => page.getByRole('complementary', { name });

/** A project of the test's own with the model of a demo project, so that the demo stays as it is. */
async function ownProject(page: Page, demo: string, name: string): Promise<void> {
  const db = new Database('build/browser-data/sphaera.db', { readonly: true });
  const { sha } = db.prepare('SELECT r.glb_sha256 AS sha FROM revisions r JOIN projects p ON p.id = r.project_id WHERE p.name = ?').get(demo) as { sha: string };
  db.close();
  const model = await (await page.request.get(`/api/models/${sha}`)).body();
  await page.goto('/');
  await page.getByLabel('Choose a model file').setInputFiles({ name: `${name}.glb`, mimeType: 'model/gltf-binary', buffer: model });
  await expect(page).toHaveURL(/\/p\//, { timeout: 60_000 });
  await expect(page.locator('html')).toHaveAttribute('data-alive', '', { timeout: 30_000 });
}

function briefOf(page: Page): Brief {
  const db = new Database('build/browser-data/sphaera.db', { readonly: true });
  const row = db.prepare('SELECT s.brief_json FROM pictures p JOIN brief_steps s ON s.picture_id = p.id AND s.step = p.step WHERE p.project_id = ?').get(new URL(page.url()).pathname.split('/').pop()) as { brief_json: string };
  db.close();
  return JSON.parse(row.brief_json) as Brief;
}

/** The brightest green of the preview about a place of the picture, once what was changed has so many samples. */
async function seenAt(page: Page, x: number, y: number, samples: number): Promise<number> {
  await page.waitForFunction((n) => Number(document.querySelector<HTMLElement>('.im canvas.truth')!.dataset.samples ?? -1) < n, samples, { timeout: 100_000 });
  await page.waitForFunction((n) => Number(document.querySelector<HTMLElement>('.im canvas.truth')!.dataset.samples ?? -1) >= n, samples, { timeout: 100_000 });
  return truth(page).evaluate((canvas: HTMLCanvasElement, [px, py]) => {
    const { data } = canvas.getContext('2d')!.getImageData(Math.round(canvas.width * px!) - 4, Math.round(canvas.height * py!) - 4, 9, 9);
    return data.filter((_, i) => i % 4 === 1).reduce((a, b) => Math.max(a, b), 0);
  }, [x, y] as const);
}

test('a softbox moves to where its reflection was asked for, by pressing and dragging on the model', async ({ page }) => {
  test.setTimeout(240_000);
  await ownProject(page, 'Perihelion lamp', 'own lamp');
  await word(page, /Studio/).click();
  await panel(page, 'Surroundings').getByRole('button', { name: 'Bright edges', exact: true }).click();
  await expect(sentence(page)).toContainText('Studio: bright edges');
  // on the glass globe, above and left of the ring
  const [x, y] = [0.431, 0.214];
  const before = await seenAt(page, x, y, 16);
  await page.getByRole('button', { name: 'Right edge softbox, strip' }).or(page.getByRole('button', { name: /^Right edge/ })).first().click();
  await page.getByRole('button', { name: 'Place by its reflection' }).click();
  await expect(page.locator('.view')).toContainText('Press where the reflection of Right edge should appear');
  const box = (await page.locator('.im').boundingBox())!;
  await page.mouse.move(box.x + box.width * 0.44, box.y + box.height * 0.19);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * x, box.y + box.height * y, { steps: 3 });
  await page.mouse.up();
  await expect(sentence(page)).toContainText('Studio: three lamps');
  await page.getByRole('button', { name: 'Done' }).click();
  const after = await seenAt(page, x, y, 16);
  expect(after).toBeGreaterThan(before + 12);
  // one step back undoes the whole drag but its press
  const placed = briefOf(page).surroundings;
  expect(placed.kind === 'studio' && placed.lamps?.find((l) => l.name === 'Right edge')?.azimuth_deg).not.toBe(122);
});

test('a ground of shadow alone: half transparent under the model, clear beyond it, in a clear PNG', async ({ page }) => {
  test.setTimeout(240_000);
  await ownProject(page, 'Perihelion lamp', 'lamp on nothing');
  await word(page, /Studio/).click();
  await panel(page, 'Surroundings').getByText('Shadow alone', { exact: true }).click();
  await expect(sentence(page)).toContainText('on a ground of shadow alone');
  await word(page, /A3/).click();
  await page.getByText('Slide 16:9').click();
  await expect(page.getByLabel('Width in px')).toHaveValue('1920');
  await page.getByLabel('Width in px').fill('480');
  await page.getByLabel('Width in px').press('Enter');
  await expect(sentence(page)).toContainText('480');
  await page.keyboard.press('Control+Enter');
  await expect(page.locator('.tk').first()).toContainText('grain', { timeout: 100_000 });
  const href = await page.getByRole('link', { name: 'PNG, clear' }).getAttribute('href');
  const { data, info } = await sharp(await (await page.request.get(href!)).body()).extractChannel(3).raw().toBuffer({ resolveWithObject: true });
  const share = (test: (alpha: number) => boolean) => data.filter((a) => test(a)).length / (info.width * info.height);
  expect(share((a) => a === 0)).toBeGreaterThan(0.3);
  expect(share((a) => a === 255)).toBeGreaterThan(0.01);
  expect(share((a) => a > 20 && a < 200)).toBeGreaterThan(0.005);
});

test('lamps by group: a cue switches all, a dimmer says what is left, one can be seen alone, and none is said', async ({ page }) => {
  test.setTimeout(240_000);
  await ownProject(page, 'Reading room', 'own room');
  await expect(sentence(page)).toContainText('picture spot, shelf lamps and table lamps');
  await word(page, 'shelf lamps').click();
  const lamps = panel(page, 'Lamps');
  await lamps.getByText('Night', { exact: true }).click();
  await expect(sentence(page)).toContainText(/Sky: .*2[0-3]:\d\d/);
  const dimmer = lamps.getByRole('slider', { name: 'Dimmer of Shelf lamps' });
  await dimmer.focus();
  await dimmer.press('Shift+ArrowLeft');
  await expect(sentence(page)).toContainText('shelf lamps at 50\u00a0%');
  await lamps.getByRole('button', { name: /^Picture spot: on/ }).click();
  await expect(sentence(page)).not.toContainText('picture spot');
  const whole = await seenAt(page, 0.5, 0.75, 4);
  expect(whole).toBeGreaterThan(5);
  await lamps.getByRole('button', { name: 'Table lamps alone' }).click();
  await expect(sentence(page)).toContainText('Table lamps alone');
  await seenAt(page, 0.5, 0.75, 4);
  // and back, with surroundings that the page had before
  await lamps.getByRole('button', { name: 'All lights' }).click();
  await expect(sentence(page)).not.toContainText('alone');
  await seenAt(page, 0.5, 0.75, 4);
  await expect(page.locator('.view .n')).not.toContainText('No preview');
  for (const group of ['Shelf lamps', 'Table lamps']) await lamps.getByRole('button', { name: `${group}: on` }).click();
  await expect(sentence(page)).toContainText('lamps off');
  await expect(page.locator('.view .n')).toContainText('No light reaches this picture', { timeout: 30_000 });
});

test('depth of field and what is sharp: a camera of the model becomes the user’s own, focused by a press', async ({ page }) => {
  test.setTimeout(120_000);
  await ownProject(page, 'Perihelion lamp', 'sharp lamp');
  expect(briefOf(page).viewpoint).toEqual({ camera: 'Whole lamp' });
  await word(page, /Studio/).click();
  const light = panel(page, 'Surroundings');
  await light.getByText('Camera', { exact: true }).click();
  await light.getByText('As the lens has it', { exact: true }).click();
  await light.getByLabel('f-number').fill('2.8');
  await light.getByLabel('f-number').press('Enter');
  await light.getByRole('button', { name: 'Press what should be sharp' }).click();
  const box = (await page.locator('.im').boundingBox())!;
  // the foot of the lamp
  await page.mouse.click(box.x + box.width * 0.5, box.y + box.height * 0.82);
  await expect.poll(() => briefOf(page).viewpoint).toMatchObject({ f_number: 2.8, focus_m: expect.any(Number) });
  expect(briefOf(page).exposure).toMatchObject({ f_number: 2.8, iso: 100 });
  await expect(page.locator('[role=alert]:not(#__next-route-announcer__)')).toHaveCount(0);
});

test('the sun is dragged along its day, and the sentence tells the hour', async ({ page }) => {
  await ownProject(page, 'Reading room', 'own hour');
  await word(page, /Sky:/).click();
  const arc = panel(page, 'Surroundings').getByRole('slider', { name: 'Hour' });
  const box = (await arc.boundingBox())!;
  const before = await word(page, /Sky:/).textContent();
  await page.mouse.move(box.x + box.width * 0.35, box.y + box.height * 0.5);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.3, box.y + box.height * 0.5, { steps: 3 });
  await page.mouse.up();
  await expect(word(page, /Sky:/)).not.toHaveText(before!);
  const morning = briefOf(page).surroundings;
  expect(morning.kind === 'sky' && Number(morning.time.slice(11, 13))).toBeLessThan(12);
});

test('a light is kept under a name, taken again from the library, and let go of', async ({ page }) => {
  test.setTimeout(120_000);
  await ownProject(page, 'Perihelion lamp', 'kept lamp');
  await word(page, /Studio/).click();
  const light = panel(page, 'Surroundings');
  await light.getByRole('button', { name: 'From the library' }).click();
  const shelf = light.getByRole('group', { name: 'Library of surroundings' });
  await expect(shelf.getByRole('button')).toHaveCount(24);
  // each has its picture
  await expect.poll(() => shelf.locator('img').first().evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(100);
  await shelf.getByRole('button', { name: 'Gallery with top light' }).click();
  await expect(sentence(page)).toContainText('Room: gallery with top light');
  await light.getByLabel('name for what is set now').fill('Show room');
  await light.getByRole('button', { name: 'Keep', exact: true }).click();
  await shelf.getByRole('button', { name: 'Overcast' }).click();
  await expect(sentence(page)).toContainText('Sky: 12');
  await light.getByRole('button', { name: 'Show room', exact: true }).click();
  await expect(sentence(page)).toContainText('Room: gallery with top light');
  await light.getByLabel('name for what is set now').fill('Show room');
  await light.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.locator('[role=alert]:not(#__next-route-announcer__)')).toContainText('"Show room" is there already');
  await light.getByRole('button', { name: 'Let go of Show room' }).click();
  await expect(light.getByRole('button', { name: 'Show room', exact: true })).toHaveCount(0);
});
