// npm run screenshots: starts the application on the demo data and takes a picture of each main view into
// docs/screenshots. Views may be named.
import { join } from 'node:path';
import { build } from './build.mjs';
import { demoMade } from './demo-made.mjs';
import { root } from './install.mjs';
import { Processes } from './processes.mjs';

const port = 4397;
const at = `http://127.0.0.1:${port}`;
await build();
const { chromium } = await import('@playwright/test');
const processes = new Processes({ SPHAERA_DATA: process.env.SPHAERA_DATA ?? join(root, 'data', 'demo') });
processes.keepServices();
await processes.web(port);
if ((await processes.run([join(root, 'build/seed.mjs')])) !== 0) process.exit(1);
await demoMade(at);
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--use-gl=angle',
    '--use-angle=swiftshader',
    '--enable-unsafe-swiftshader',
    '--ignore-gpu-blocklist',
    '--disable-background-networking'
  ]
});

const named = process.argv.slice(2);

/** A pendant with two wings, as LM-63 has it. */
function wing() {
  const angles = Array.from({ length: 37 }, (_, i) => i * 5);
  const candela = (plane) =>
    angles
      .map((g) =>
        (
          700 *
          Math.max(0, Math.cos((g * Math.PI) / 180)) *
          (0.3 + 0.7 * Math.abs(Math.cos((plane * Math.PI) / 180))) *
          (1 + 1.3 * Math.sin((Math.min(g, 90) * Math.PI) / 180) ** 2)
        ).toFixed(1)
      )
      .join(' ');
  const planes = [0, 30, 60, 90, 120, 150, 180];
  return Buffer.from(
    [
      'IESNA:LM-63-2002',
      '[LUMINAIRE] Halm wing pendant',
      'TILT=NONE',
      `1 2000 1 ${angles.length} ${planes.length} 1 2 0.1 0.1 0`,
      '1 1 18',
      angles.join(' '),
      planes.join(' '),
      ...planes.map(candela)
    ].join('\r\n')
  );
}

async function shoot(
  name,
  { project, word, act, after, size = { width: 1280, height: 800 }, dark = false, live = null }
) {
  if (named.length > 0 && !named.includes(name)) return;
  const page = await browser.newPage({ viewport: size, colorScheme: dark ? 'dark' : 'light' });
  await page.goto(at);
  if (project) {
    await page.getByRole('link', { name: new RegExp(project) }).click();
    await page.locator('html[data-alive]').waitFor();
    await page.locator('.im img:not(.under)').waitFor();
  }
  if (word) await page.locator('.brief a.w', { hasText: word }).first().click();
  // what is changed for a picture is undone after it
  const changes = (await act?.(page)) ?? 0;
  if (live) {
    if (changes === 0) {
      await page.getByRole('button', { name: 'Navigate' }).click();
      await page.getByRole('button', { name: 'Stage', exact: true }).click();
    }
    await page.waitForTimeout(1500);
    await page.waitForFunction(
      (samples) =>
        Number(document.querySelector('.im canvas.truth').dataset.samples) >= samples ||
        document.querySelector('.view .n').textContent.includes('at its end'),
      live,
      { timeout: 300_000 }
    );
  }
  await page.waitForTimeout(2500);
  await page.screenshot({ path: join(root, 'docs/screenshots', `${name}.png`) });
  await after?.(page);
  await page.waitForTimeout(500);
  // in a field the keys would undo what was typed
  await page.evaluate(() => document.activeElement?.blur());
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
await shoot('sky', {
  project: 'Lantern Hill hut',
  word: /Sky/,
  live: 32,
  act: async (page) => {
    await page.getByRole('button', { name: 'Library' }).click();
    await page.getByRole('button', { name: 'Fair-weather clouds' }).click();
    await page.getByRole('button', { name: 'Close library' }).click();
    await page.getByRole('slider', { name: 'Base of the clouds' }).scrollIntoViewIfNeeded();
    return 1;
  }
});
await shoot('own-lamp', {
  project: 'Reading room',
  word: /shelf lamps/,
  live: 32,
  act: async (page) => {
    await page.getByRole('button', { name: 'Spot', exact: true }).click();
    await page.waitForFunction(() => Number(document.querySelector('.im canvas.truth').dataset.samples) >= 1);
    await page.getByRole('button', { name: 'Place it' }).click();
    const box = await page.locator('.im').boundingBox();
    await page.mouse.click(box.x + box.width * 0.5, box.y + box.height * 0.2);
    await page.getByRole('button', { name: 'Aim it' }).click();
    await page.mouse.click(box.x + box.width * 0.42, box.y + box.height * 0.75);
    await page.getByRole('button', { name: 'Done' }).click();
    await page
      .getByLabel('Choose a photometric file')
      .setInputFiles({ name: 'wing.ies', mimeType: 'text/plain', buffer: wing() });
    await page.getByRole('img', { name: /Polar curve/ }).scrollIntoViewIfNeeded();
    return 8;
  }
});
await shoot('size', {
  project: 'Reading room',
  word: /A3/,
  act: async (page) => {
    await page.locator('dl.fig:not(.stale)').waitFor({ timeout: 120_000 });
    await page.getByRole('slider', { name: 'Pixels per inch' }).press('End');
    await page.getByText('Seen from').scrollIntoViewIfNeeded();
    await page.getByRole('img', { name: /Time against/ }).scrollIntoViewIfNeeded();
    return 1;
  }
});
await shoot('quality', {
  project: 'Reading room',
  word: /Study/,
  act: async (page) => {
    await page.locator('.brief p > .n').waitFor({ timeout: 120_000 });
    await page.getByLabel('I need it by').fill('in 10 min');
    await page.getByRole('button', { name: 'Measure' }).click();
    await page.getByRole('button', { name: 'Measure again' }).waitFor({ timeout: 300_000 });
    return 0;
  }
});
await shoot('parts', {
  project: 'Lantern Hill hut',
  live: 32,
  act: async (page) => {
    await page.keyboard.press('0');
    await page.getByRole('button', { name: 'Dome', exact: true }).click();
    await page.getByLabel('About the upright (Y)').fill('75');
    await page.keyboard.press('Enter');
    // the model has to be drawn before a place on it can be pressed
    await page.waitForTimeout(20_000);
    await page.getByRole('button', { name: 'Place a piece' }).click();
    const at = async (piece, x, y) => {
      await page.getByRole('button', { name: piece }).click();
      const box = await page.locator('.pick').boundingBox();
      await page.mouse.click(box.x + box.width * x, box.y + box.height * y);
      await page.keyboard.press('Escape');
    };
    await at(/^Figure, walking/, 0.62, 0.8);
    await at(/^Chair/, 0.3, 0.82);
    await page.getByRole('button', { name: 'Place a piece' }).click();
    await page.getByRole('button', { name: 'Dome', exact: true }).scrollIntoViewIfNeeded();
    return 3;
  }
});
await shoot('materials', {
  project: 'Lantern Hill hut',
  word: /photographic/,
  live: 24,
  act: async (page) => {
    const become = async (of, material) => {
      await page.getByRole('button', { name: of, exact: true }).click();
      await page.getByRole('searchbox', { name: 'Find a material' }).fill(material);
      await page
        .getByRole('group', { name: 'Materials of the library' })
        .getByRole('button', { name: material })
        .click();
    };
    await become('larch', 'Timber, charred');
    await become('weathered copper', 'Copper, green patina');
    await page.getByRole('searchbox', { name: 'Find a material' }).fill('');
    await page.waitForFunction(
      () => [...document.querySelectorAll('.list img')].every((img) => img.naturalWidth > 0),
      null,
      { timeout: 120_000 }
    );
    return 2;
  }
});
await shoot('viewpoint', {
  project: 'Lantern Hill hut',
  word: /lens/,
  live: 24,
  act: async (page) => {
    await page.getByRole('button', { name: 'Stage', exact: true }).click();
    await page.getByText('thirds', { exact: true }).click();
    await page.locator('.brief a.w', { hasText: /lens/ }).click();
    await page.getByLabel('Straight verticals').click();
    return 1;
  }
});
await shoot('raster', {
  project: 'Reading room',
  word: /mm lens/,
  act: async (page) => {
    await page.getByRole('button', { name: 'Stage', exact: true }).click();
    await page.getByText('The model', { exact: true }).click();
    await page.getByText('drawn', { exact: true }).click();
    await page.getByRole('button', { name: 'Navigate' }).click();
    await page.locator('.brief a.w', { hasText: /mm lens/ }).click();
    await page.getByText('Depth of field', { exact: true }).click();
    for (const [field, value] of [
      ['f-number of the lens', '2'],
      ['Focus distance', '4']
    ]) {
      await page.getByLabel(field).fill(value);
      await page.getByLabel(field).press('Enter');
      await page.waitForTimeout(1500);
    }
    await page.waitForTimeout(6000);
    return 3;
  }
});
await shoot('finish', {
  project: 'Reading room',
  act: async (page) => {
    await page.locator('.strip').getByRole('button', { name: 'Finish', exact: true }).click();
    await page.locator('.finished canvas[data-level="full"]').first().waitFor();
    const move = async (name, key, times) => {
      const slider = page.getByRole('slider', { name, exact: true });
      await slider.focus();
      for (let i = 0; i < times; i++) await slider.press(key);
    };
    await move('Exposure', 'ArrowRight', 8);
    await move('Shadows', 'ArrowRight', 25);
    await move('Sun, level', 'ArrowLeft', 20);
    await page.getByRole('button', { name: 'Parted by a line' }).click();
    await page.locator('.panel').evaluate((panel) => panel.scrollTo(0, 0));
    await page.waitForTimeout(6000);
    return 0;
  },
  after: (page) => page.getByRole('button', { name: 'As rendered', exact: true }).first().click()
});
await shoot('files', {
  project: 'Perihelion lamp',
  act: async (page) => {
    await page.getByRole('button', { name: 'More files' }).click();
    await page.getByText('PDF', { exact: true }).click();
    await page.getByText(/[kM]B$/).waitFor();
    return 0;
  }
});
await shoot('model', {
  project: 'Reading room',
  act: async (page) => {
    await page.getByRole('navigation').getByRole('button', { name: 'Model' }).click();
    return 0;
  }
});
await shoot('phone', { project: 'Reading room', word: /A3/, size: { width: 390, height: 844 } });
await browser.close();
processes.end();
