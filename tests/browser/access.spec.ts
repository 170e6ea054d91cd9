/** Rules of WCAG 2.2 A and AA, and best practice, by axe-core: every panel, light and dark, wide and on a phone. */
import AxeBuilder from '@axe-core/playwright';
import { expect, type Page, test } from '@playwright/test';

const RULES = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];

async function violations(page: Page): Promise<string[]> {
  const { violations: found } = await new AxeBuilder({ page }).withTags(RULES).analyze();
  return found.flatMap(({ id, nodes }) =>
    nodes.map((node) => `${id}: ${node.target.join(' ')} ${node.failureSummary}`)
  );
}
async function openRoom(page: Page): Promise<void> {
  await page.goto('/');
  await page.getByRole('link', { name: /Reading room/ }).click();
  await expect(page.locator('html')).toHaveAttribute('data-alive', '');
}

for (const colorScheme of ['light', 'dark'] as const)
  test.describe(colorScheme, () => {
    test.use({ colorScheme });
    test('no screen or panel breaks a rule of access', async ({ page }) => {
      test.setTimeout(240_000);
      await page.goto('/');
      await expect(page.locator('html')).toHaveAttribute('data-alive', '');
      expect(await violations(page), 'desk').toEqual([]);
      await openRoom(page);
      expect(await violations(page), 'workspace').toEqual([]);
      for (const key of '123456789') {
        await page.keyboard.press(key);
        await expect(page.locator('aside.panel h2')).toBeFocused();
        expect(await violations(page), `panel ${key}`).toEqual([]);
        await page.keyboard.press('Escape');
        await expect(page.locator('aside.panel')).toHaveCount(0);
      }
      for (const name of ['Model', 'Keys']) {
        await page.getByRole('navigation').getByRole('button', { name }).click();
        expect(await violations(page), name).toEqual([]);
      }
    });
  });

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });
  test('no screen breaks a rule of access', async ({ page }) => {
    await page.goto('/');
    await expect(page.locator('html')).toHaveAttribute('data-alive', '');
    expect(await violations(page), 'desk').toEqual([]);
    await openRoom(page);
    expect(await violations(page), 'workspace').toEqual([]);
  });
});

test('the keyboard alone gets from the desk to a changed picture and back to the word', async ({ page }) => {
  await page.goto('/');
  await expect(page.locator('html')).toHaveAttribute('data-alive', '');
  await page.keyboard.press('Tab');
  await expect(page.getByRole('link', { name: 'Skip to the projects' })).toBeFocused();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Tab');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/p\//);
  await expect(page.locator('html')).toHaveAttribute('data-alive', '');
  const size = page.locator('.brief a[href="#size"]');
  await size.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Size' })).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(size).toBeFocused();
  await page.keyboard.press('?');
  await expect(page.getByRole('heading', { name: 'Keys' })).toBeFocused();
});
