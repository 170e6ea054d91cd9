// npm run screenshots: starts the application on the demo data and takes a picture of each main view into docs/screenshots. Views may be named.
import { join } from 'node:path';
import { build } from './build.mjs';
import { root } from './install.mjs';
import { Processes } from './processes.mjs';

const port = 4397;
const at = `http://127.0.0.1:${port}`;
await build();
const { chromium } = await import('@playwright/test');
const processes = new Processes({ SPHAERA_DATA: process.env.SPHAERA_DATA ?? join(root, 'data', 'demo') });
processes.keepRenderService();
if ((await processes.run([join(root, 'build/seed.mjs')])) !== 0) process.exit(1);
await processes.web(port);
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--use-gl=angle', '--use-angle=swiftshader', '--enable-unsafe-swiftshader', '--ignore-gpu-blocklist', '--disable-background-networking'] });

const named = process.argv.slice(2);

async function shoot(name, { project, word, act, size = { width: 1280, height: 800 }, dark = false, live = null }) {
  if (named.length > 0 && !named.includes(name)) return;
  const page = await browser.newPage({ viewport: size, colorScheme: dark ? 'dark' : 'light' });
  await page.goto(at);
  if (project) {
    await page.getByRole('link', { name: new RegExp(project) }).click();
    await page.locator('html[data-alive]').waitFor();
    await page.locator('.im img').waitFor();
  }
  if (word) await page.locator('.brief a.w', { hasText: word }).first().click();
  // what is changed for a picture is undone after it
  const changes = (await act?.(page)) ?? 0;
  if (live) {
    if (changes === 0) {
      await page.getByRole('button', { name: 'Move about' }).click();
      await page.getByRole('button', { name: 'Stage', exact: true }).click();
    }
    await page.waitForTimeout(1500);
    await page.waitForFunction((samples) => Number(document.querySelector('.im canvas.truth').dataset.samples) >= samples, live, { timeout: 300_000 });
  }
  await page.waitForTimeout(2500);
  await page.screenshot({ path: join(root, 'docs/screenshots', `${name}.png`) });
  for (let i = 0; i < changes; i++) {
    await page.keyboard.press('Control+z');
    await page.waitForTimeout(500);
  }
  await page.close();
}

await shoot('desk', {});
await shoot('workspace-reading-room', { project: 'Reading room', word: /A3/ });
await shoot('workspace-hut', { project: 'Lantern Hill hut', word: /Sky/, dark: true });
await shoot('workspace-lamp', { project: 'Perihelion lamp', word: /Studio/ });
await shoot('preview', { project: 'Lantern Hill hut', live: 16 });
await shoot('studio', {
  project: 'Perihelion lamp',
  word: /Studio/,
  live: 64,
  act: async (page) => {
    await page.getByRole('button', { name: 'Bright edges', exact: true }).click();
    return 1;
  }
});
await shoot('lamps', {
  project: 'Reading room',
  word: /shelf lamps/,
  dark: true,
  live: 64,
  act: async (page) => {
    await page.getByText('Evening', { exact: true }).click();
    return 1;
  }
});
await shoot('library', {
  project: 'Perihelion lamp',
  word: /Studio/,
  act: async (page) => {
    await page.getByRole('button', { name: 'From the library' }).click();
    return 0;
  }
});
await shoot('phone', { project: 'Reading room', word: /A3/, size: { width: 390, height: 844 } });
await browser.close();
processes.end();
