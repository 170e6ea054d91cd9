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
      for (const key of '123456789f') {
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

// Reflow (WCAG 2.2, 1.4.10): 320 px is 1,280 px at 400 %, 639 px is 1,278 px at 200 %.
for (const [width, height] of [
  [390, 844],
  [320, 568],
  [639, 400],
  [320, 256]
] as const)
  test.describe(`at ${width} x ${height} px`, () => {
    test.use({ viewport: { width, height } });
    test('everything can be reached without scrolling sideways, and nothing lies over Render', async ({ page }) => {
      const overflow = () => page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
      await page.goto('/');
      await expect(page.locator('html')).toHaveAttribute('data-alive', '');
      expect(await overflow(), 'desk').toBeLessThanOrEqual(0);
      await openRoom(page);
      const reached = [
        page.getByRole('button', { name: /^(Render|Already)/ }).first(),
        page.getByRole('navigation').getByRole('button', { name: 'Model' }),
        page.getByRole('button', { name: 'Undo' }),
        page.getByRole('button', { name: 'Pixel for pixel' }),
        page.getByRole('button', { name: 'Patch' }),
        page.getByRole('link', { name: 'JPEG' })
      ];
      for (const control of reached) await control.hover({ trial: true });
      await page.locator('.brief a[href="#size"]').click();
      await expect(page.getByRole('heading', { name: 'Size' })).toBeFocused();
      for (const control of reached) await control.hover({ trial: true });
      await page.getByRole('radio', { name: 'Portrait' }).click({ trial: true });
      expect(await overflow(), 'workspace').toBeLessThanOrEqual(0);
      const small = await page.evaluate(() =>
        [...document.querySelectorAll('button, summary, select, input:not(.vh, [type=radio], [type=checkbox])')]
          .map((element) => ({ name: element.outerHTML.slice(0, 90), box: element.getBoundingClientRect() }))
          .filter(({ box }) => box.width > 0 && (box.width < 24 || box.height < 24))
          .map(({ name }) => name)
      );
      expect(small, 'targets under 24 px').toEqual([]);
    });
  });

test('a place on the stage is picked with the keyboard, and the open panel is in the address', async ({ page }) => {
  await openRoom(page);
  await page.locator('.brief a[href="#size"]').click();
  await expect(page).toHaveURL(/#size$/);
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Size' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page).not.toHaveURL(/#/);
  const patch = page.getByRole('button', { name: 'Patch' });
  await patch.focus();
  await page.keyboard.press('Enter');
  const layer = page.getByRole('application', { name: /Draw a rectangle/ });
  await expect(layer).toBeFocused();
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByText('Crosshair at 49 % across, 50 % down')).toBeAttached();
  await page.keyboard.press('Escape');
  await expect(layer).toHaveCount(0);
  await expect(patch).toBeFocused();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  for (let i = 0; i < 2; i++) await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('Shift+ArrowDown');
  // what it asks for is looked at, not rendered
  await page.route(/\/proofs$/, (route) =>
    route.fulfill({ status: 422, json: { code: 'refused', message: 'not now' } })
  );
  const asked = page.waitForRequest((request) => request.method() === 'POST' && /\/proofs$/.test(request.url()));
  await page.keyboard.press('Enter');
  const { patch: rect } = (await asked).postDataJSON() as { patch: Record<string, number> };
  expect(rect).toEqual({ x: 0.5, y: 0.5, width: 0.2, height: 0.1 });
});
