/**
 * Models: asked for their unit, brought in, replaced by a newer file and taken back, repaired, and posed for a picture with
 * pieces beside them.
 */
import { expect, test } from '@playwright/test';

/** A box as STL of text, in millimetres with Z up. */
function box(width: number, depth: number, height: number, at = 0): Buffer {
  const corner = (i: number) => [at + (i & 1 ? width : 0), i & 2 ? depth : 0, i & 4 ? height : 0].join(' ');
  const faces = [
    [0, 2, 1],
    [1, 2, 3],
    [4, 5, 6],
    [5, 7, 6],
    [0, 1, 4],
    [1, 5, 4],
    [2, 6, 3],
    [3, 6, 7],
    [0, 4, 2],
    [2, 4, 6],
    [1, 3, 5],
    [3, 7, 5]
  ];
  const facets = faces.map(
    (face) => `facet normal 0 0 0\nouter loop\n${face.map((i) => `vertex ${corner(i)}`).join('\n')}\nendloop\nendfacet`
  );
  return Buffer.from(`solid box\n${facets.join('\n')}\nendsolid box\n`);
}
const file = (buffer: Buffer) => ({ name: 'side table.stl', mimeType: 'model/stl', buffer });

test('a model without a unit is asked for it, a newer file is its next revision, and the way back is there', async ({
  page
}) => {
  await page.goto('/');
  await expect(page.locator('html')).toHaveAttribute('data-alive', '');
  await page.getByLabel('Choose a model file').setInputFiles(file(box(600, 400, 450)));
  const bring = page.getByRole('button', { name: 'Bring it in' });
  await expect(bring).toBeInViewport();
  // guessed from its size
  await expect(page.getByText(/60\s*cm wide.*45\s*cm tall/)).toBeVisible();
  await bring.click();
  await expect(page).toHaveURL(/\/p\//, { timeout: 60_000 });
  await page.getByRole('navigation').getByRole('button', { name: 'Model' }).click();
  const panel = page.getByRole('complementary');
  await expect(panel.getByText(/Revision 1, from side table\.stl: 600\s*mm wide, 450\s*mm high/)).toBeVisible();

  const newer = panel.getByLabel('Choose a newer file of this model');
  await newer.setInputFiles(file(box(600, 400, 450)));
  await expect(page.getByText(/this file holds the model that is here already/i)).toBeVisible({ timeout: 60_000 });
  await newer.setInputFiles(file(box(800, 400, 450)));
  // read as the one before, and not asked again
  await expect(panel.getByText(/Revision 2, from side table\.stl: 800\s*mm wide/)).toBeVisible({ timeout: 60_000 });
  await expect(panel.getByText('1 object with another shape or material')).toBeVisible();
  await panel.getByRole('button', { name: 'Go back to revision 1' }).click();
  await expect(panel.getByText(/Revision 3, from side table\.stl: 600\s*mm wide/)).toBeVisible();
  await expect(page.getByText('This browser cannot draw the model')).toHaveCount(0);

  await newer.setInputFiles({
    name: 'side table.stl',
    mimeType: 'model/stl',
    buffer: box(600, 400, 450).subarray(0, 40)
  });
  await expect(page.getByText(/this STL holds no triangle/i)).toBeVisible({ timeout: 60_000 });
  await expect(panel.getByText(/Revision 3,/)).toBeVisible();
});

// A cube whose faces look inwards, one of them there twice, with a picture that did not come along.
const SICK = `mtllib vase.mtl
o Vase
${[0, 1, 2, 3, 4, 5, 6, 7].map((i) => `v ${i & 1} ${(i >> 1) & 1} ${(i >> 2) & 1}`).join('\n')}
vt 0 0
usemtl glaze
${['1 2 4 3', '5 7 8 6', '1 5 6 2', '3 4 8 7', '1 3 7 5', '2 6 8 4', '1 2 4 3']
  .map((face) => `f ${face.replaceAll(/\d/g, '$&/1')}`)
  .join('\n')}
`;

test('a sick model says what is wrong and where; a repair is done, undone, and a missing picture added', async ({
  page
}) => {
  await page.goto('/');
  await expect(page.locator('html')).toHaveAttribute('data-alive', '');
  await page.getByLabel('Choose a model file').setInputFiles([
    { name: 'vase.obj', mimeType: 'model/obj', buffer: Buffer.from(SICK) },
    { name: 'vase.mtl', mimeType: 'model/mtl', buffer: Buffer.from('newmtl glaze\nKd 1 1 1\nmap_Kd glaze.png\n') }
  ]);
  await page.getByRole('button', { name: 'Bring it in' }).click();
  await expect(page).toHaveURL(/\/p\//, { timeout: 60_000 });
  await page.getByRole('navigation').getByRole('button', { name: 'Model' }).click();
  const health = page.getByRole('region', { name: 'Health' });
  await expect(health.getByText('2 triangles that lay on another were taken out.')).toBeVisible();
  await expect(health.getByText('1 body is inside out')).toBeVisible();
  // where it is, is drawn on the stage
  await health.getByRole('button', { name: 'Vase' }).first().click();
  await expect(page.locator('.partframe line')).toHaveCount(12);
  await health.getByRole('button', { name: 'Turn them round' }).click();
  await expect(health.getByText('1 body was turned right side out.')).toBeVisible({ timeout: 30_000 });
  await health.getByRole('button', { name: 'Undo: turn them round' }).click();
  await expect(health.getByText('1 body is inside out')).toBeVisible({ timeout: 30_000 });

  const png = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
    'base64'
  );
  await health
    .getByLabel('Choose the files that are missing')
    .setInputFiles({ name: 'glaze.png', mimeType: 'image/png', buffer: png });
  await expect(health.getByText('did not come with it')).toHaveCount(0, { timeout: 30_000 });
  await expect(page.getByRole('complementary').getByText(/one texture/)).toBeVisible();
});

test('parts are found, turned and left out in one picture, and a piece is placed beside the model', async ({
  page
}) => {
  await page.goto('/');
  await page.getByRole('link', { name: /Perihelion lamp/ }).click();
  await expect(page.locator('html')).toHaveAttribute('data-alive', '', { timeout: 30_000 });
  await page.keyboard.press('0');
  const panel = page.getByRole('complementary');
  const sentence = page.locator('.brief');
  await panel.getByRole('button', { name: 'Ring', exact: true }).click();
  await expect(page.locator('.partframe line')).toHaveCount(12);
  const upright = panel.getByLabel('About the upright (Y)');
  await upright.fill('90');
  await upright.press('Enter');
  await expect(sentence).toContainText('with one\u00a0part moved');
  await panel.getByText('left out').click();
  await expect(sentence).toContainText('one\u00a0part left out');
  await panel.getByRole('button', { name: 'As it came in' }).click();
  await expect(sentence).not.toContainText('one\u00a0part');

  // picked with the keyboard: the crosshair begins in the middle, where the globe is
  await panel.getByRole('button', { name: 'Pick on the stage' }).click();
  await expect(page.locator('.pick')).toBeFocused();
  await page.keyboard.press('Enter');
  // the question ends with the answer
  await expect(page.locator('.pick')).toHaveCount(0);
  await expect(panel.locator('.part b')).toBeVisible();

  await panel.getByRole('button', { name: 'Place a piece' }).click();
  await panel.getByRole('button', { name: /^Cup/ }).click();
  await expect(page.locator('.pick')).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(sentence).toContainText('one\u00a0placed piece');
  await page.keyboard.press('Escape');
  const scale = panel.getByLabel('Scale');
  await scale.fill('150');
  await scale.press('Enter');
  await panel.getByRole('button', { name: 'Take it out' }).click();
  await expect(sentence).not.toContainText('placed piece');
});
