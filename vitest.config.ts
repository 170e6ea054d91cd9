import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['src/**/*.test.ts', 'tests/integration/**/*.test.ts'],
    environment: 'node',
    env: { SPHAERA_ROOT: process.cwd() },
    testTimeout: 120_000,
    hookTimeout: 120_000,
    maxWorkers: 2,
    reporters: ['default', ['json', { outputFile: 'build/unit-results.json' }]]
  }
});
