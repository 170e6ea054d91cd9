import { defineConfig } from '@playwright/test';

const port = 4399;
export default defineConfig({
  testDir: 'tests/browser',
  globalSetup: './tests/support/demo-made.mjs',
  timeout: 120_000,
  // expectations wait for a server and its child processes, on machines half as fast as ours
  expect: { timeout: 30_000 },
  workers: 1,
  reporter: [['list'], ['json', { outputFile: 'build/browser-results.json' }]],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--use-gl=angle',
        '--use-angle=swiftshader',
        '--enable-unsafe-swiftshader',
        '--ignore-gpu-blocklist',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1'
      ]
    }
  },
  webServer: {
    command: 'rm -rf build/browser-data && node scripts/demo.mjs',
    url: `http://127.0.0.1:${port}/api/health`,
    timeout: 600_000,
    reuseExistingServer: false,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 8000 },
    env: { PORT: String(port), SPHAERA_DATA: 'build/browser-data', SPHAERA_DEMO_QUICK: '1' },
    stdout: 'pipe'
  }
});
