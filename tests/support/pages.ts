/** What browser tests do on every page: a project of their own, the brief line's words, the brief as it is kept. */
import { expect, type Page } from '@playwright/test';
import Database from 'better-sqlite3';
import type { Brief } from '../../src/core/brief/brief';

export const sentence = (page: Page) => page.locator('.brief');
export const word = (page: Page, text: string | RegExp) => page.locator('.brief a.w', { hasText: text }).first();
export const panel = (page: Page, name: string) => page.getByRole('complementary', { name });

/** A project of the test's own with the model of a demo project, so that the demo stays as it is. */
export async function ownProject(page: Page, demo: string, name: string): Promise<void> {
  const db = new Database('build/browser-data/sphaera.db', { readonly: true });
  const { sha } = db
    .prepare('SELECT r.glb_sha256 AS sha FROM revisions r JOIN projects p ON p.id = r.project_id WHERE p.name = ?')
    .get(demo) as { sha: string };
  db.close();
  const model = await (await page.request.get(`/api/models/${sha}`)).body();
  await page.goto('/');
  await page
    .getByLabel('Choose a model file')
    .setInputFiles({ name: `${name}.glb`, mimeType: 'model/gltf-binary', buffer: model });
  await expect(page).toHaveURL(/\/p\//, { timeout: 60_000 });
  await expect(page.locator('html')).toHaveAttribute('data-alive', '', { timeout: 30_000 });
}

/** The first picture of the project on the page, and its brief as it is kept. */
export function pictureOf(page: Page): { id: string; brief: Brief } {
  const db = new Database('build/browser-data/sphaera.db', { readonly: true });
  const row = db
    .prepare(
      'SELECT p.id, s.brief_json FROM pictures p JOIN brief_steps s ON s.picture_id = p.id AND s.step = p.step WHERE p.project_id = ?'
    )
    .get(new URL(page.url()).pathname.split('/').pop()) as { id: string; brief_json: string };
  db.close();
  return { id: row.id, brief: JSON.parse(row.brief_json) as Brief };
}
export const briefOf = (page: Page): Brief => pictureOf(page).brief;

/** The newest proof of the project on the page. */
export function proofOf(page: Page): string {
  const db = new Database('build/browser-data/sphaera.db', { readonly: true });
  const row = db
    .prepare(
      'SELECT pr.id FROM proofs pr JOIN pictures p ON p.id = pr.picture_id WHERE p.project_id = ? ORDER BY pr.number DESC'
    )
    .get(new URL(page.url()).pathname.split('/').pop()) as { id: string };
  db.close();
  return row.id;
}
