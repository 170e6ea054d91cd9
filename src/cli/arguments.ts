/** Options of a command over node's own parser, with refusals in one line. */
import { parseArgs } from 'node:util';
import { BadInput } from './bad-input';

export function readArguments<K extends string>(
  args: string[],
  names: readonly K[]
): { positional: string; options: Partial<Record<K, string>> } {
  try {
    const { values, positionals } = parseArgs({
      args,
      allowPositionals: true,
      options: Object.fromEntries(names.map((name) => [name, { type: 'string' as const }]))
    });
    if (positionals.length !== 1)
      throw new BadInput(
        positionals.length === 0
          ? 'name the file to work on'
          : `expected one file, got ${positionals.length}: ${positionals.join(' ')}`
      );
    return { positional: positionals[0]!, options: values as Partial<Record<K, string>> };
  } catch (error) {
    if (error instanceof BadInput) throw error;
    throw new BadInput((error as Error).message.split('\n')[0]!);
  }
}
