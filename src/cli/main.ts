/**
 * `sphaera`: the same use cases without a browser.
 * Exit codes: 0 done, 2 bad input (one clear line on standard error), 3 own fault.
 */
import { BadInput } from './bad-input';
import { finishCommand } from './finish-command';
import { importCommand } from './import-command';
import { renderCommand } from './render-command';
import { watchCommand } from './watch-command';

const USAGE = `sphaera import FILE [--unit mm|cm|m|in|ft] [--up y|z] [--fineness coarse|medium|fine] --out model.glb [--report report.json]
sphaera watch FILE --project NAME
sphaera render MODEL --brief brief.json --out picture.png|jpg|tif|webp|avif|exr|hdr|pdf|ora [--bits 8|16]
               [--quality 94] [--long PX] [--colors srgb|p3|press] [--profile press.icc]
               [--threads N] [--report report.json]
sphaera finish PICTURE --project NAME [--proof N] [--finish finish.json] --out picture.EXT
               [--bits 8|16] [--quality 94] [--long PX] [--colors srgb|p3|press] [--profile press.icc]`;

async function main(args: string[]): Promise<number> {
  const [command, ...rest] = args;
  if (command === 'import') return importCommand(rest);
  if (command === 'render') return renderCommand(rest);
  if (command === 'finish') return finishCommand(rest);
  if (command === 'watch') return watchCommand(rest);
  if (command === '--help' || command === 'help') {
    console.log(USAGE);
    return 0;
  }
  throw new BadInput(
    command
      ? `unknown command "${command}"; the commands are import, watch, render and finish`
      : `say what to do:\n${USAGE}`
  );
}

main(process.argv.slice(2)).then(
  (code) => process.exit(code),
  (error: unknown) => {
    if (error instanceof BadInput) {
      process.stderr.write(`sphaera: ${error.message}\n`);
      process.exit(2);
    }
    process.stderr.write(
      `sphaera: this is our own fault: ${error instanceof Error ? (error.stack ?? error.message) : String(error)}\n`
    );
    process.exit(3);
  }
);
