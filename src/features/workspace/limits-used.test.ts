import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { limitsOf } from '../../core/brief/limits';

describe('the ranges of controls', () => {
  const folder = join(import.meta.dirname, 'panels');
  const used = readdirSync(folder)
    .filter((name) => name.endsWith('.tsx'))
    .flatMap((name) =>
      [...readFileSync(join(folder, name), 'utf8').matchAll(/limitsOf\('([^']+)'\)/g)].map(
        (m) => [name, m[1]!] as const
      )
    );
  it('are found in the panels', () => expect(used.length).toBeGreaterThan(20));
  it.each(used)('%s: %s is a number of the brief', (_, path) => {
    const { min, max } = limitsOf(path);
    expect(min).toBeLessThan(max);
  });
});
