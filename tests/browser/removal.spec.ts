import { expect, test } from '@playwright/test';
import { ownProject, panel, word } from '../support/pages';

test('projects, pictures and viewpoints are renamed, duplicated and removed, each with a way back', async ({
  page
}) => {
  test.setTimeout(180_000);
  await ownProject(page, 'Perihelion lamp', 'Lamp to sort');
  const pictures = page.getByRole('navigation', { name: 'Pictures of this project' });
  const names = pictures.locator('.pic b');
  const first = (await names.first().textContent())!;

  // pictures
  await pictures.getByRole('button', { name: 'New picture from this one' }).click();
  await expect(names).toHaveText([first, `${first}, 2`]);
  await pictures.getByRole('button', { name: `Edit ${first}, 2` }).click();
  await pictures.getByLabel(/^New name for/).fill('Detail');
  await pictures.getByRole('button', { name: 'Save' }).click();
  await expect(names).toHaveText([first, 'Detail']);
  await expect(page).toHaveTitle('Detail, Lamp to sort: Sphaera');
  // the browser's Back goes to the picture before
  await page.goBack();
  await expect(page).toHaveTitle(`${first}, Lamp to sort: Sphaera`);
  await page.goForward();
  await expect(page).toHaveTitle('Detail, Lamp to sort: Sphaera');
  await pictures.getByRole('button', { name: 'Edit Detail' }).click();
  await pictures.getByRole('button', { name: 'Remove' }).click();
  await expect(names).toHaveText([first]);
  await expect(page).toHaveTitle(`${first}, Lamp to sort: Sphaera`);
  await page.getByText('Detail is removed.').getByRole('button', { name: 'Undo' }).click();
  await expect(names).toHaveText([first, 'Detail']);

  // a viewpoint
  await word(page, first).click();
  const viewpoint = panel(page, 'Viewpoint');
  await viewpoint.getByLabel('Name for this viewpoint').fill('Corner');
  await viewpoint.getByRole('button', { name: 'Save', exact: true }).click();
  await viewpoint.getByRole('button', { name: 'Edit Corner' }).click();
  await viewpoint.getByLabel('New name for Corner').fill('Corner, low');
  await viewpoint.getByLabel('New name for Corner').press('Enter');
  await viewpoint.getByRole('button', { name: 'Edit Corner, low' }).click();
  await viewpoint.getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(viewpoint.getByText('Corner, low')).toHaveCount(0);
  await page.getByText('Corner, low is removed.').getByRole('button', { name: 'Undo' }).click();
  await expect(viewpoint.getByRole('button', { name: 'Edit Corner, low' })).toBeVisible();

  // the project
  await page.goto('/');
  await page.getByRole('button', { name: 'Edit Lamp to sort' }).click();
  await page.getByRole('button', { name: 'Duplicate' }).click();
  await expect(page.getByRole('link', { name: /Lamp to sort, 2/ })).toBeVisible();
  await page.getByRole('button', { name: 'Edit Lamp to sort', exact: true }).click();
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(page.getByRole('link', { name: /Lamp to sort/ })).toHaveCount(1);
  await page.getByRole('button', { name: 'Bring back Lamp to sort', exact: true }).click();
  await expect(page.getByRole('link', { name: /Lamp to sort/ })).toHaveCount(2);
  for (const name of ['Lamp to sort', 'Lamp to sort, 2']) {
    await page.getByRole('button', { name: `Edit ${name}`, exact: true }).click();
    await page.getByRole('button', { name: 'Remove', exact: true }).click();
    await expect(page.getByRole('button', { name: `Bring back ${name}`, exact: true })).toBeVisible();
  }
});

test('a picture that is no longer there is said to be gone', async ({ page }) => {
  await ownProject(page, 'Perihelion lamp', 'Lamp with an old address');
  await page.goto(`${new URL(page.url()).pathname}?picture=nonsense`);
  await expect(page.getByText(/The picture of this address is no longer there/)).toBeVisible();
});
