/** The starter and what it starts: one a data folder, and nobody outlives it. No web server here: that takes a build. */
import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, describe, expect, it } from 'vitest';

const STARTER = `
  import { Processes } from ${JSON.stringify(join(process.cwd(), 'scripts/processes.mjs'))};
  const processes = new Processes({ SPHAERA_DATA: process.env.FOLDER });
  processes.keepServices();
  console.log('started ' + [...processes.children][0].pid);
`;
const running: ChildProcess[] = [];
afterEach(() => {
  for (const child of running) child.kill('SIGKILL');
});

/** Starts it on a folder; what it says until it says something more, or ends. */
function start(folder: string): Promise<{ child: ChildProcess; said: string; ended: Promise<number | null> }> {
  const script = join(folder, 'starter.mjs');
  writeFileSync(script, STARTER);
  const child = spawn(process.execPath, [script], { env: { ...process.env, FOLDER: folder } });
  running.push(child);
  let said = '';
  const ended = new Promise<number | null>((resolve) => child.once('exit', (code) => resolve(code)));
  return new Promise((resolve) => {
    const hear = (chunk: Buffer) => {
      said += chunk.toString();
      if (/started \d+|already runs/.test(said)) resolve({ child, said, ended });
    };
    child.stdout!.on('data', hear);
    child.stderr!.on('data', hear);
  });
}
const isAlive = (pid: number) => {
  try {
    return readFileSync(`/proc/${pid}/stat`, 'utf8').split(' ')[2] !== 'Z';
  } catch {
    return false;
  }
};
async function until(check: () => boolean): Promise<void> {
  while (!check()) await new Promise((resolve) => setTimeout(resolve, 100));
}
const folder = () => mkdtempSync(join(tmpdir(), 'sphaera-starter-'));

describe('the starter', () => {
  it('refuses a second start on one data folder by name, and a folder of a killed one is free again', async () => {
    const data = folder();
    const first = await start(data);
    const second = await start(data);
    expect(second.said).toContain(`already runs on the data in ${data} (process ${first.child.pid})`);
    expect(await second.ended).toBe(1);
    first.child.kill('SIGKILL');
    await first.ended;
    expect((await start(data)).said).toMatch(/started \d+/);
  });

  it('leaves no process behind when it is killed', async () => {
    const { child, said, ended } = await start(folder());
    const service = Number(/started (\d+)/.exec(said)![1]);
    expect(isAlive(service)).toBe(true);
    child.kill('SIGKILL');
    await ended;
    await until(() => !isAlive(service));
  });

  it('begins the render service again when it dies', async () => {
    const { child, said } = await start(folder());
    const begun = new Promise<void>((resolve) =>
      child.stdout!.on('data', (chunk: Buffer) => /beginning it again/.test(chunk.toString()) && resolve())
    );
    process.kill(Number(/started (\d+)/.exec(said)![1]), 'SIGKILL');
    await begun;
  });
});
