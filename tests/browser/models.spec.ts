/** A model of a format that says no unit: asked, brought in, replaced by a newer file, and taken back. */
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
