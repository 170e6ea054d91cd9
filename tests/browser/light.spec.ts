/**
 * Light as its users set it: a softbox placed by its reflection, a ground of shadow alone, lamps by group and cue, the
 * sun dragged over its day, lamps of one's own with photometric files, white that is pressed, captured images turned
 * and reduced.
 */
import { expect, type Page, test } from '@playwright/test';
import Database from 'better-sqlite3';
import sharp from 'sharp';
import { flatHdr } from '../support/hdr';
import { briefOf, ownProject, panel, sentence, word } from '../support/pages';

const truth = (page: Page) => page.locator('.im canvas.truth');

/** The brightest green of the preview about a place of the picture, once what was changed has so many samples. */
async function seenAt(page: Page, x: number, y: number, samples: number): Promise<number> {
  await page.waitForFunction(
    (n) => Number(document.querySelector<HTMLElement>('.im canvas.truth')!.dataset.samples ?? -1) < n,
    samples,
    { timeout: 100_000 }
  );
  await page.waitForFunction(
    (n) => Number(document.querySelector<HTMLElement>('.im canvas.truth')!.dataset.samples ?? -1) >= n,
    samples,
    { timeout: 100_000 }
  );
  return truth(page).evaluate(
    (canvas: HTMLCanvasElement, [px, py]) => {
      const { data } = canvas
        .getContext('2d')!
        .getImageData(Math.round(canvas.width * px!) - 4, Math.round(canvas.height * py!) - 4, 9, 9);
      return data.filter((_, i) => i % 4 === 1).reduce((a, b) => Math.max(a, b), 0);
    },
    [x, y] as const
  );
}

test('a softbox moves to where its reflection was asked for, by pressing and dragging on the model', async ({
  page
}) => {
  test.setTimeout(240_000);
  await ownProject(page, 'Perihelion lamp', 'own lamp');
  await word(page, /Studio/).click();
  await panel(page, 'Surroundings').getByRole('button', { name: 'Bright edges', exact: true }).click();
  await expect(sentence(page)).toContainText('Studio: bright edges');
  // on the glass globe, above and left of the ring
  const [x, y] = [0.437, 0.223];
  const before = await seenAt(page, x, y, 16);
  await page
    .getByRole('button', { name: 'Right edge softbox, strip' })
    .or(page.getByRole('button', { name: /^Right edge/ }))
    .first()
    .click();
  await page.getByRole('button', { name: 'Place by its reflection' }).click();
  await expect(page.locator('.view')).toContainText('Pick where the reflection of Right edge should appear');
  const box = (await page.locator('.im').boundingBox())!;
  await page.mouse.move(box.x + box.width * 0.445, box.y + box.height * 0.201);
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

test('a ground of shadow alone: half transparent under the model, clear beyond it, in a clear PNG', async ({
  page
}) => {
  test.setTimeout(240_000);
  await ownProject(page, 'Perihelion lamp', 'lamp on nothing');
  await word(page, 'background and ground').click();
  await panel(page, 'Background and ground').getByText('Shadow only', { exact: true }).click();
  await expect(sentence(page)).toContainText('on a shadow-only ground');
  await word(page, /A3/).click();
  await page.getByText('on a screen').click();
  await page.getByText('Slide 16:9').click();
  await expect(page.getByRole('textbox', { name: 'Width in px', exact: true })).toHaveValue('1920');
  await page.getByRole('textbox', { name: 'Width in px', exact: true }).fill('480');
  await page.getByRole('textbox', { name: 'Width in px', exact: true }).press('Enter');
  await expect(sentence(page)).toContainText('480');
  await page.keyboard.press('Control+Enter');
  await expect(page.locator('.tk').first()).toContainText('grain', { timeout: 100_000 });
  const href = await page.getByRole('link', { name: 'PNG, transparent' }).getAttribute('href');
  const { data, info } = await sharp(await (await page.request.get(href!)).body())
    .extractChannel(3)
    .raw()
    .toBuffer({ resolveWithObject: true });
  const share = (test: (alpha: number) => boolean) => data.filter((a) => test(a)).length / (info.width * info.height);
  expect(share((a) => a === 0)).toBeGreaterThan(0.3);
  expect(share((a) => a === 255)).toBeGreaterThan(0.01);
  expect(share((a) => a > 20 && a < 200)).toBeGreaterThan(0.005);
});

test('lamps by group: a cue switches all, a dimmer says what is left, one can be seen alone, and none is said', async ({
  page
}) => {
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
  // the sky glows even at night; of a lamp alone that is off there is nothing
  await lamps.getByRole('button', { name: 'Table lamps alone' }).click();
  await expect(page.locator('.view .n')).toContainText('No light reaches this picture', { timeout: 30_000 });
});

test('depth of field and what is sharp: a camera of the model becomes the user’s own, focused by a press', async ({
  page
}) => {
  test.setTimeout(120_000);
  await ownProject(page, 'Perihelion lamp', 'sharp lamp');
  expect(briefOf(page).viewpoint).toEqual({ camera: 'Whole lamp' });
  await word(page, 'exposure').click();
  await panel(page, 'Exposure').getByText('Camera', { exact: true }).click();
  await word(page, /mm lens/).click();
  const lens = panel(page, 'Lens and focus');
  await lens.getByText('Depth of field', { exact: true }).click();
  await lens.getByRole('textbox', { name: 'f-number of the lens', exact: true }).fill('2.8');
  await lens.getByRole('textbox', { name: 'f-number of the lens', exact: true }).press('Enter');
  await lens.getByRole('button', { name: 'Pick what should be sharp' }).click();
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

test('a light is saved under a name, chosen again from the library, and removed', async ({ page }) => {
  test.setTimeout(120_000);
  await ownProject(page, 'Perihelion lamp', 'kept lamp');
  await word(page, /Studio/).click();
  const light = panel(page, 'Surroundings');
  await light.getByRole('button', { name: 'Library' }).click();
  const shelf = light.getByRole('group', { name: 'Library of surroundings' });
  await expect(shelf.getByRole('button')).toHaveCount(24);
  // each has its picture
  await expect
    .poll(() =>
      shelf
        .locator('img')
        .first()
        .evaluate((img: HTMLImageElement) => img.naturalWidth)
    )
    .toBeGreaterThan(100);
  await shelf.getByRole('button', { name: 'Gallery with top light' }).click();
  await expect(sentence(page)).toContainText('Room: gallery with top light');
  await light.getByLabel('name these surroundings').fill('Show room');
  await light.getByRole('button', { name: 'Save', exact: true }).click();
  await shelf.getByRole('button', { name: 'Overcast' }).click();
  await expect(sentence(page)).toContainText('Sky: 12');
  await light.getByRole('button', { name: 'Show room', exact: true }).click();
  await expect(sentence(page)).toContainText('Room: gallery with top light');
  await light.getByLabel('name these surroundings').fill('Show room');
  await light.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.locator('[role=alert]:not(#__next-route-announcer__)')).toContainText(
    '"Show room" is there already'
  );
  await light.getByRole('button', { name: 'Edit Show room' }).click();
  await light.getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(light.getByRole('button', { name: 'Show room', exact: true })).toHaveCount(0);
});

const alert = (page: Page) => page.locator('[role=alert]:not(#__next-route-announcer__)');
const press = async (page: Page, x: number, y: number) => {
  const box = (await page.locator('.im').boundingBox())!;
  await page.mouse.click(box.x + box.width * x, box.y + box.height * y);
};

/** A photometric file after LM-63: twice as bright in one plane as across it. */
function photometricFile(angles: number[]): Buffer {
  const candela = (plane: number) =>
    angles
      .map((g) =>
        (900 * Math.max(0, Math.cos((g * Math.PI) / 180)) * (1 + Math.cos((plane * Math.PI) / 180) ** 2)).toFixed(1)
      )
      .join(' ');
  return Buffer.from(
    [
      'IESNA:LM-63-2002',
      '[LUMINAIRE] Halm wing',
      'TILT=NONE',
      `1 2000 1 ${angles.length} 3 1 2 0.1 0.1 0`,
      '1 1 18',
      angles.join(' '),
      '0 90 180',
      ...[0, 90, 180].map(candela)
    ].join('\r\n')
  );
}

test(
  'a lamp of one’s own stands where the floor was pressed, shines where it is aimed, as its photometric ' +
    'file says; lamps are measured',
  async ({ page }) => {
    test.setTimeout(360_000);
    await ownProject(page, 'Reading room', 'own spots');
    await word(page, /picture spot/).click();
    const lamps = panel(page, 'Lamps');
    await lamps.getByRole('button', { name: 'Spot', exact: true }).click();
    await expect(sentence(page)).toContainText('more lamps');
    // what is pressed must be there: the model has come
    await expect(page.locator('.im canvas.truth')).toHaveAttribute('data-samples', /./, { timeout: 60_000 });
    await lamps.getByRole('button', { name: 'Place it' }).click();
    // the border of the rug, 9 mm above the floor
    await press(page, 0.7, 0.92);
    await expect.poll(() => briefOf(page).lamps.added[0]?.position_m[1], { timeout: 20_000 }).toBeCloseTo(0.089, 2);
    expect(briefOf(page).lamps.added[0]!.direction[1]).toBeGreaterThan(0.99);
    await lamps.getByRole('button', { name: 'Aim it' }).click();
    await press(page, 0.3, 0.6);
    await expect.poll(() => briefOf(page).lamps.added[0]!.direction[0]).toBeLessThan(-0.3);
    await lamps.getByRole('button', { name: 'Done' }).click();
    // its mark stands where the picture was pressed, but for its clearance
    const mark = (await page.getByRole('button', { name: 'Own spot, marked on the stage' }).boundingBox())!;
    const stage = (await page.locator('.im').boundingBox())!;
    expect(Math.abs((mark.x + mark.width / 2 - stage.x) / stage.width - 0.7)).toBeLessThan(0.02);

    const angles = Array.from({ length: 37 }, (_, i) => i * 5);
    const choose = lamps.getByLabel('Choose a photometric file');
    await choose.setInputFiles({
      name: 'twisted.ies',
      mimeType: 'text/plain',
      buffer: photometricFile([...angles.slice(0, 20), 5, ...angles.slice(21)])
    });
    await expect(alert(page)).toContainText(
      /"twisted\.ies", line \d+: the vertical angles are not ascending: 95 is followed by 5/
    );
    await choose.setInputFiles({ name: 'wing.ies', mimeType: 'text/plain', buffer: photometricFile(angles) });
    await expect(lamps.getByRole('img', { name: /Polar curve of Halm wing, at most 1,8\d\d cd/ })).toBeVisible({
      timeout: 20_000
    });
    await expect(
      lamps
        .getByRole('img', { name: /Polar curve/ })
        .locator('svg path')
        .first()
    ).toBeVisible();
    // 1,800 cd along and 900 across, both by the cosine, and linear between: 1,350 pi lm
    await expect.poll(() => Math.abs(briefOf(page).lamps.added[0]!.lumen / (1350 * Math.PI) - 1)).toBeLessThan(0.06);

    await lamps.getByRole('button', { name: 'Measure', exact: true }).click();
    await expect(lamps.getByRole('button', { name: 'Measure again' })).toBeVisible({ timeout: 200_000 });
    await expect(lamps.locator('dl.measured')).toContainText(/Own spot\s*[\d.]+\u00a0%/);
    // the spots on the pictures light nothing that is seen from here
    await lamps.getByRole('button', { name: 'Leave it out' }).first().click();
    await expect.poll(() => briefOf(page).lamps.groups.find((g) => g.group === 'Picture spot')?.on).toBe(false);
    await lamps.getByRole('button', { name: 'Remove it' }).click();
    await expect.poll(() => briefOf(page).lamps.added).toEqual([]);
  }
);

test('white is pressed on the picture, and a proof takes it from the film that is there', async ({ page }) => {
  test.setTimeout(240_000);
  await ownProject(page, 'Perihelion lamp', 'own white');
  const { pathname } = new URL(page.url());
  await page.getByRole('button', { name: /^Render/ }).click();
  await expect(page.locator('.tk').first()).toContainText('took', { timeout: 180_000 });

  await word(page, 'exposure').click();
  const light = panel(page, 'Exposure');
  await light.getByRole('button', { name: 'Warm lamps' }).click();
  await expect.poll(() => briefOf(page).finish.white).toEqual({ kelvin: 2700, tint: 0 });
  await expect(page.locator('.im canvas.truth')).toHaveAttribute('data-samples', /^([4-9]|\d\d)/, { timeout: 60_000 });
  await light.getByRole('button', { name: 'Pick white' }).click();
  await press(page, 0.12, 0.3);
  // grey paper in the light of the set's softboxes, 5,500 K, whatever balance it was seen in
  await expect.poll(() => Math.abs((briefOf(page).finish.white?.kelvin ?? 0) - 5500)).toBeLessThan(900);
  const finish = page.getByRole('button', { name: /^Finish.*proof/ });
  await expect(finish).toContainText('of proof 1');
  await finish.click();
  await expect(page.locator('.tk').filter({ has: page.getByRole('button', { name: 'Show proof 2' }) })).toContainText(
    'took',
    { timeout: 60_000 }
  );
  const db = new Database('build/browser-data/sphaera.db', { readonly: true });
  const films = db
    .prepare(
      'SELECT p.film_sha256 AS film, p.rays AS rays FROM proofs p JOIN pictures q ON q.id = ' +
        'p.picture_id WHERE q.project_id = ? ORDER BY p.number'
    )
    .all(pathname.split('/').pop()) as { film: string; rays: number }[];
  db.close();
  expect(films).toHaveLength(2);
  expect(films[1]).toEqual(films[0]);
});

test('a face is pressed, and the hours are offered at which the sun strikes it so', async ({ page }) => {
  test.setTimeout(120_000);
  await ownProject(page, 'Lantern Hill hut', 'own sun');
  await word(page, /Sky:/).click();
  const light = panel(page, 'Surroundings');
  await expect(page.locator('.im canvas.truth')).toHaveAttribute('data-samples', /./, { timeout: 60_000 });
  await light.getByText('Sun on a surface, strength of sun and sky, window openings').click();
  await light.getByRole('button', { name: 'Pick a surface' }).click();
  await press(page, 0.4, 0.52);
  await expect(light.getByText(/Now it (is struck at|lies in shade)/)).toBeVisible();
  await light.getByRole('button', { name: 'Done' }).click();
  const offer = light.getByRole('group', { name: 'Times when the sun reaches it' }).getByRole('button').first();
  const said = (await offer.textContent())!;
  await offer.click();
  await expect(word(page, /Sky:/)).toContainText(said.split(', ')[1]!);
  await expect(light.getByText('Now it is struck at 30°')).toBeVisible();
});

test('a captured image is turned on its strip, and an enormous one is reduced when that is wanted', async ({
  page
}) => {
  test.setTimeout(180_000);
  await ownProject(page, 'Perihelion lamp', 'own field');
  await word(page, /Studio/).click();
  const light = panel(page, 'Surroundings');
  await light.getByText('Captured', { exact: true }).click();
  const choose = light.getByLabel('Choose a captured image');
  await choose.setInputFiles({ name: 'wide.hdr', mimeType: 'application/octet-stream', buffer: flatHdr(512, 256) });
  const strip = light.getByRole('slider', { name: 'Turn the image' });
  await expect(strip).toBeVisible({ timeout: 30_000 });
  // a quarter of the strip is a quarter of a turn; once more when the panel has moved under the pointer
  await expect(async () => {
    await strip.hover({ position: { x: 100, y: 30 } });
    const box = (await strip.boundingBox())!;
    await page.mouse.down();
    await page.mouse.move(box.x + 100 + box.width / 4, box.y + 30, { steps: 4 });
    await page.mouse.up();
    await expect
      .poll(() => (briefOf(page).surroundings as { rotation_deg?: number }).rotation_deg, { timeout: 5000 })
      .toBeCloseTo(-90, 0);
  }).toPass({ timeout: 30_000 });
  await choose.setInputFiles({
    name: 'enormous.hdr',
    mimeType: 'application/octet-stream',
    buffer: flatHdr(8448, 4224)
  });
  await expect(light.getByRole('status')).toContainText(
    '"enormous.hdr" is 8,448 × 4,224 px; Sphaera keeps at most 8,192 px across',
    { timeout: 60_000 }
  );
  await light.getByRole('button', { name: 'Bring it in reduced' }).click();
  await expect(light.getByRole('button', { name: /^enormous/ })).toContainText('4224 × 2112', { timeout: 60_000 });
});
