/** A JSON file that a command was given. */
import { readFile } from 'node:fs/promises';
import { BadInput } from './bad-input';

/** `what`: "the brief". */
export async function readJson(path: string, what: string): Promise<unknown> {
  let text: string;
  try {
    text = await readFile(path, 'utf8');
  } catch {
    throw new BadInput(`cannot read ${what} ${path}`);
  }
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new BadInput(`${path} is not valid JSON: ${(error as Error).message}`);
  }
}
