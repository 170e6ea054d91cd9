import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { expect, type Page, test } from '@playwright/test';

const open = async (page: Page, project: string) => {
  await page.goto('/');
  await page.getByRole('link', { name: new RegExp(project) }).click();
  await expect(page.getByRole('region', { name: 'Stage' })).toBeVisible();
  await expect(page.locator('html')).toHaveAttribute('data-alive', '', { timeout: 30_000 });
};
const sentence = (page: Page) => page.locator('.brief p').first();
const word = (page: Page, text: string | RegExp) => page.locator('.brief a.w', { hasText: text }).first();

test('the desk shows the three demo projects with rendered pictures', async ({ page }) => {
  const errors: string[] = [];
  page.on('pageerror', (e) => errors.push(e.message));
  await page.goto('/');
  await expect(page.getByText('Three projects on the desk')).toBeVisible();
  for (const name of ['Lantern Hill hut', 'Reading room', 'Perihelion lamp']) {
    const project = page.getByRole('link', { name: new RegExp(name) });
    await expect(project).toBeVisible();
    const natural = await project
      .locator('img')
      .evaluate((img: HTMLImageElement) => img.decode().then(() => Math.max(img.naturalWidth, img.naturalHeight)));
    expect(natural).toBeGreaterThan(250);
  }
  await expect(page.getByText('Drop a model here')).toBeVisible();
  expect(errors).toEqual([]);
});

test('a designer opens the reading room, moves about, changes words, renders, watches, and downloads an A3 file', async ({
  page
}) => {
  test.setTimeout(360_000);
  await open(page, 'Reading room');
  await expect(sentence(page)).toContainText('“Reading room, east window”, seen with a 24');
  await expect(sentence(page)).toContainText('A3 landscape at 200');
  await expect(page.locator('.slug.r')).toContainText('420 × 297');

  // moving about: a drag on the stage turns the model, and the viewpoint is its own from then on
  const stage = page.locator('.im canvas:not(.truth)');
  const box = (await stage.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 60, box.y + box.height / 2 + 8, { steps: 6 });
  // the model is there while it is in hand, as soon as it has been read
  const colours = () =>
    stage.evaluate((canvas: HTMLCanvasElement) => {
      const copy = document.createElement('canvas');
      copy.width = 64;
      copy.height = 48;
      const context = copy.getContext('2d')!;
      context.drawImage(canvas, 0, 0, 64, 48);
      return new Set(Array.from(new Uint32Array(context.getImageData(0, 0, 64, 48).data.buffer))).size;
    });
  await expect.poll(colours, { timeout: 30_000 }).toBeGreaterThan(50);
  await page.mouse.up();
  await expect(word(page, 'Reading room, east window')).toHaveClass(/ch/);
  // back at once, though the change may still be on its way
  await page.keyboard.press('Control+z');
  await expect(word(page, 'Reading room, east window')).not.toHaveClass(/ch/);

  // the hour: the sun's handle takes keys
  await word(page, 'Sky: 12').click();
  await page.getByRole('slider', { name: 'Hour' }).press('Shift+ArrowRight');
  await expect(sentence(page)).toContainText('09:40');
  await expect(word(page, 'Sky: 12')).toHaveClass(/ch/);

  await word(page, /Study/).click();
  await page.getByRole('button', { name: /Present/ }).click();
  await expect(page.getByRole('textbox', { name: 'Samples per pixel', exact: true })).toHaveValue('256');
  await page.getByRole('textbox', { name: 'Samples per pixel', exact: true }).fill('64');
  await page.getByRole('textbox', { name: 'Samples per pixel', exact: true }).press('Enter');
  await expect(sentence(page)).toContainText('at Present quality');

  await page.reload();
  await expect(sentence(page)).toContainText('09:40');
  await expect(sentence(page)).toContainText('at Present quality');

  await page.getByRole('button', { name: /^Render/ }).click();
  const ticket = page.locator('.tk', { has: page.getByRole('button', { name: 'Show proof 2' }) });
  await expect(ticket).toBeVisible();
  // the picture comes tile by tile before the render ends; the one before stands there until then
  await expect(page.locator('.im img:not(.under)')).toHaveAttribute('alt', /Proof 2/, { timeout: 60_000 });
  await expect(page.locator('.im img:not(.under)')).toHaveAttribute('src', /n=[2-9]/, { timeout: 60_000 });
  // the whole sheet would take minutes: what there is after the first tiles is kept as a proof, at its full size
  await page.keyboard.press('Control+.');
  await expect(ticket).toContainText('denoising', { timeout: 60_000 });
  await expect(ticket).toContainText('unfinished', { timeout: 180_000 });
  await expect(page.locator('.im img:not(.under)')).toHaveAttribute('alt', /Proof 2/);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'PNG', exact: true }).click()
  ]);
  expect(download.suggestedFilename()).toMatch(
    /^reading-room_reading-room-east-window_proof-2_present_\d+x\d+px\.png$/
  );
  const bytes = readFileSync(await download.path());
  // A3 at 200 ppi
  expect([bytes.readUInt32BE(16), bytes.readUInt32BE(20)]).toEqual([3307, 2339]);
  if (existsSync('/usr/bin/pngcheck'))
    expect(execFileSync('pngcheck', ['-v', await download.path()], { encoding: 'utf8' })).toMatch(
      /7874x7874 pixels\/meter/
    );
});

test('a render can be stopped, and what there is stays as a proof', async ({ page }) => {
  test.setTimeout(240_000);
  await open(page, 'Lantern Hill hut');
  await word(page, /Study/).click();
  await expect(page.getByRole('textbox', { name: 'Samples per pixel', exact: true })).toHaveValue('32', {
    timeout: 20_000
  }); // the model may still be loading
  await page.getByRole('textbox', { name: 'Samples per pixel', exact: true }).fill('4000');
  await page.getByRole('textbox', { name: 'Samples per pixel', exact: true }).press('Enter');
  await expect(sentence(page)).not.toContainText('already shows this');
  await page.getByRole('button', { name: /^Render/ }).click();
  // the whole picture is there once
  await expect(page.locator('.tk.live .note')).toHaveAttribute('title', /^([2-9]|[1-9]\d)/, { timeout: 120_000 });
  await page.locator('.tk').getByRole('button', { name: 'Stop', exact: true }).click({ timeout: 60_000 });
  await expect(page.locator('.tk.live')).toHaveCount(0, { timeout: 120_000 });
  await expect(page.locator('.tk').first()).toContainText('unfinished');
  const image = page.locator('.im img:not(.under)');
  await expect(image).toHaveAttribute('alt', /Proof 2/);
  // denoised, and to be seen as it was rendered
  const noise = () =>
    image.evaluate(async (img: HTMLImageElement) => {
      await img.decode();
      const canvas = document.createElement('canvas');
      canvas.width = 200;
      canvas.height = 60;
      const context = canvas.getContext('2d')!;
      context.drawImage(img, img.naturalWidth * 0.3, img.naturalHeight * 0.8, 200, 60, 0, 0, 200, 60);
      const { data } = context.getImageData(0, 0, 200, 60);
      let sum = 0;
      for (let i = 4; i < data.length; i += 4) sum += Math.abs(data[i + 1]! - data[i - 3]!);
      return sum / (200 * 60);
    });
  const denoised = await noise();
  await page.getByRole('button', { name: 'Before denoising' }).click();
  await expect(image).toHaveAttribute('src', /raw/);
  expect(await noise()).toBeGreaterThan(1.1 * denoised);
  await expect(page.getByText('before denoising:')).toBeVisible();
  // it is continued from where it was, and removed with a way back
  await page.locator('.tk').first().getByRole('button', { name: 'Continue' }).click();
  await expect(page.locator('.tk.live .note')).toHaveAttribute('title', /^\d\d/, { timeout: 120_000 });
  await page.locator('.tk').getByRole('button', { name: 'Stop', exact: true }).click();
  const unfinished = page.locator('.tk', { hasText: 'unfinished' });
  await unfinished.getByRole('button', { name: 'Remove' }).click({ timeout: 120_000 });
  await expect(unfinished).toHaveCount(0);
  await expect(page.getByText(/^Proof 2 of .+ is removed/)).toBeVisible();
  await page.locator('.brief').getByRole('button', { name: 'Undo' }).click();
  await expect(unfinished).toHaveCount(1);
});

test('a project of one’s own from a file that we did not make', async ({ page }) => {
  const model = '/usr/share/assimp/models/glTF2/BoxTextured-glTF-Binary/BoxTextured.glb';
  test.skip(!existsSync(model), 'assimp-testmodels is not installed');
  await page.goto('/');
  await page.getByLabel('Choose a model file').setInputFiles(model);
  await expect(page).toHaveURL(/\/p\//, { timeout: 60_000 });
  await expect(page.getByText('No proof of this picture yet')).toBeVisible();
  await word(page, /A3 landscape/).click();
  await page.getByText('on a screen').click();
  await page.getByText('Slide 16:9').click();
  await expect(page.getByRole('textbox', { name: 'Width in px', exact: true })).toHaveValue('1920');
  await page.getByRole('textbox', { name: 'Width in px', exact: true }).fill('320');
  await page.getByRole('textbox', { name: 'Width in px', exact: true }).press('Enter');
  await expect(sentence(page)).toContainText('320');
  await page.keyboard.press('Control+Enter');
  await expect(page.locator('.tk').first()).toContainText('grain', { timeout: 100_000 });
  await expect(sentence(page)).toContainText('Proof 1 already shows this');
  await page.goto('/');
  await expect(page.getByText('BoxTextured')).toBeVisible();
});

test('a file that is no model is refused in a sentence and nothing is kept', async ({ page }) => {
  await page.goto('/');
  const before = await page.locator('.top li').count();
  await page
    .getByLabel('Choose a model file')
    .setInputFiles({ name: 'tower-section.svg', mimeType: 'image/svg+xml', buffer: Buffer.from('<svg/>') });
  await expect(page.locator('[role=alert]:not(#__next-route-announcer__)')).toContainText(/cannot be read as a model/);
  await page.reload();
  expect(await page.locator('.top li').count()).toBe(before);
});

test('a captured image lights the model', async ({ page }) => {
  await open(page, 'Perihelion lamp');
  await word(page, /Studio/).click();
  await page.getByRole('complementary', { name: 'Surroundings' }).getByText('Captured', { exact: true }).click();
  // a flat RGBE picture of 8 x 4 px
  const header = '#?RADIANCE\nFORMAT=32-bit_rle_rgbe\n\n-Y 4 +X 8\n';
  await page.getByLabel('Choose a captured image').setInputFiles({
    name: 'field.hdr',
    mimeType: 'image/vnd.radiance',
    buffer: Buffer.concat([Buffer.from(header), Buffer.alloc(8 * 4 * 4, 130)])
  });
  await expect(sentence(page)).toContainText('Captured: field');
  await page.getByLabel('Choose a captured image').setInputFiles({
    name: 'odd.hdr',
    mimeType: 'image/vnd.radiance',
    buffer: Buffer.from('#?RADIANCE\nFORMAT=32-bit_rle_rgbe\n\n-Y 4 +X 8\nxx')
  });
  await expect(page.locator('[role=alert]:not(#__next-route-announcer__)')).toContainText(/cut off/);
  // the image, then the kind of surroundings
  await page.keyboard.press('Control+z');
  await expect(sentence(page)).not.toContainText('Captured: field');
  await page.keyboard.press('Control+z');
  await expect(sentence(page)).toContainText('Studio');
});

test('a word pressed before the page has come to life opens its panel when it has', async ({ page }) => {
  await open(page, 'Reading room');
  const address = page.url();
  let release = () => {};
  const held = new Promise<void>((resolve) => {
    release = resolve;
  });
  await page.route('**/_next/static/**/*.js', async (route) => {
    await held;
    await route.continue();
  });
  await page.goto(address, { waitUntil: 'commit' });
  await word(page, /A3 landscape/).click();
  await expect(page.locator('html[data-alive]')).toHaveCount(0);
  await expect(page.getByRole('complementary', { name: 'Size' })).toHaveCount(0);
  release();
  await expect(page.getByRole('complementary', { name: 'Size' })).toBeVisible({ timeout: 30_000 });
  expect(page.url()).toBe(`${address}#size`);
});

test('in the eighth window of one browser a change is saved, and every other shows it', async ({ context }) => {
  const pages = [];
  for (let i = 0; i < 8; i++) {
    const page = await context.newPage();
    await open(page, 'Perihelion lamp');
    pages.push(page);
  }
  const last = pages.at(-1)!;
  await word(last, 'photographic').click();
  await last.getByText('Clay', { exact: true }).click();
  for (const page of [pages[0]!, pages[4]!]) {
    await page.bringToFront();
    await expect(sentence(page)).toContainText('in clay');
  }
  await last.bringToFront();
  await last.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(sentence(last)).toContainText('photographic');
});

test('requests from elsewhere are turned away', async ({ page, request }) => {
  await page.goto('/');
  const crossOrigin = await request.post('/api/projects', { data: {}, headers: { origin: 'http://example.invalid' } });
  expect(crossOrigin.status()).toBe(403);
  const host = await request.get('/', { headers: { host: 'example.invalid' } });
  expect(host.status()).toBe(421);
  expect(await page.evaluate(() => crossOriginIsolated)).toBe(true);
});

test('on a phone everything is reachable without sideways scrolling', async ({ browser }) => {
  const page = await browser.newPage({ viewport: { width: 390, height: 844 }, hasTouch: true });
  await open(page, 'Reading room');
  await word(page, /A3 landscape|landscape/).click();
  await expect(page.getByRole('complementary', { name: 'Size' })).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await page.close();
});
