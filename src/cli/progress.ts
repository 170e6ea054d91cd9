/** Progress in one line on standard error, when that is a terminal. */
import type { FilmProgress } from '../kernel/host/render-film';

export function showProgress(progress: FilmProgress): void {
  if (!process.stderr.isTTY) return;
  const left = progress.secondsLeft === null ? '' : `, ${Math.ceil(progress.secondsLeft)} s left`;
  process.stderr.write(
    `\r${Math.floor(progress.share * 100)} % of the samples, ${Math.round(progress.seconds)} s ` +
      `gone${left}   ${progress.share >= 1 ? '\n' : ''}`
  );
}
