/**
 * A built module run as a process of its own, until it ends: what takes seconds or much memory does not belong in the
 * web server.
 */
import { spawn } from 'node:child_process';
import { config } from '../config';

/** Its exit code; null when it could not be started or was killed. Arguments are what the module's head says. */
export function runWorker(
  name: string,
  args: readonly string[],
  environment: Record<string, string> = {}
): Promise<number | null> {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, [config.built(`${name}.mjs`), ...args], {
      cwd: config.root,
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...config.childEnvironment, SPHAERA_DATA: config.dataDir, ...environment }
    });
    child.on('exit', resolve);
    child.on('error', () => resolve(null));
  });
}
