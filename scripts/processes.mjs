// Starts and keeps alive the processes of the application: the render service and the web server, each begun again when
// it dies. One start a data folder; what was started ends with who started it.
import { spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './install.mjs';

const AGAIN_MS = 500;
const ANSWER_MS = 60_000;
// A web server that ends sooner has something that a further start does not mend.
const MENDABLE_MS = 5000;

function isAlive(pid) {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return error.code === 'EPERM';
  }
}

function sayWhyNot({ code }, folder) {
  console.error(
    code === 'ENOSPC' || code === 'EDQUOT'
      ? `The disk with Sphaera's data in ${folder} is full. Make room and start again.`
      : `Sphaera may not write to its data in ${folder} (${code}). Allow writing there, or set SPHAERA_DATA to another folder.`
  );
  process.exit(1);
}

export class Processes {
  ending = false;
  children = new Set();
  /** Tells our own web server from another that answers on the port. */
  start = randomUUID();

  constructor(env) {
    this.env = {
      ...process.env,
      SPHAERA_ROOT: root,
      SPHAERA_STARTER: String(process.pid),
      SPHAERA_START: this.start,
      NEXT_TELEMETRY_DISABLED: '1',
      ...env
    };
    this.takeFolder(this.env.SPHAERA_DATA);
    for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => this.end());
  }

  /** A second start on one data folder would run its jobs twice. */
  takeFolder(folder) {
    try {
      mkdirSync(folder, { recursive: true });
    } catch (error) {
      sayWhyNot(error, folder);
    }
    const lock = join(folder, 'started-by');
    const take = () => writeFileSync(lock, String(process.pid), { flag: 'wx' });
    try {
      take();
    } catch (error) {
      if (error.code !== 'EEXIST') return sayWhyNot(error, folder);
      const other = Number(readFileSync(lock, 'utf8'));
      if (other && other !== process.pid && isAlive(other)) {
        console.error(
          `Sphaera already runs on the data in ${folder} (process ${other}). Stop it, or set SPHAERA_DATA to another folder.`
        );
        process.exit(1);
      }
      // left behind by a start that was killed
      rmSync(lock, { force: true });
      take();
    }
    process.on('exit', () => rmSync(lock, { force: true }));
  }

  spawn(args, stdio = 'inherit') {
    const child = spawn(process.execPath, args, { cwd: root, env: this.env, stdio });
    this.children.add(child);
    child.on('exit', () => this.children.delete(child));
    return child;
  }

  /** What works beside the web server: the render service, and who follows the watched folder where there is one. */
  keepServices() {
    this.keep('the render service', 'render-service');
    if (this.env.SPHAERA_WATCH) this.keep('the watch', 'watch-service');
  }

  keep(name, module) {
    const child = this.spawn(['--enable-source-maps', join(root, `build/${module}.mjs`)]);
    child.on('exit', (code, signal) => {
      if (this.ending) return;
      console.log(`${name} ended (${signal ?? code}); beginning it again`);
      setTimeout(() => !this.ending && this.keep(name, module), AGAIN_MS);
    });
  }

  /** Runs to the end; resolves to the exit code. */
  run(args) {
    return new Promise((resolve) => this.spawn(args).on('exit', (code) => resolve(code ?? 1)));
  }

  /** Starts the web server on loopback, and waits until its first page answers. */
  async web(port, dev = false) {
    this.keepWeb(port, dev);
    const at = `http://127.0.0.1:${port}`;
    for (const end = Date.now() + ANSWER_MS; Date.now() < end && !this.ending; ) {
      const health = await fetch(`${at}/api/health`)
        .then((answer) => answer.json())
        .catch(() => null);
      if (health?.start === this.start) {
        // a development server may begin anew in the middle of an answer
        const page = await fetch(at).catch(() => null);
        if (page?.ok) return;
        if (page) {
          console.error(`the web server answers its first page with ${page.status}; see above`);
          return this.end(1);
        }
      }
      await new Promise((resolve) => setTimeout(resolve, 250));
    }
    if (!this.ending) throw new Error('the web server did not answer within a minute');
  }

  keepWeb(port, dev) {
    const began = Date.now();
    const child = this.spawn(
      [join(root, 'node_modules/next/dist/bin/next'), dev ? 'dev' : 'start', '-H', '127.0.0.1', '-p', String(port)],
      ['ignore', 'ignore', 'inherit']
    );
    child.on('exit', (code, signal) => {
      if (this.ending) return;
      if (Date.now() - began < MENDABLE_MS) {
        console.error(
          `the web server ended with ${signal ?? `code ${code}`}; is port ${port} in use? Choose another with PORT=...`
        );
        return this.end(1);
      }
      console.log(`the web server ended (${signal ?? code}); beginning it again`);
      setTimeout(() => !this.ending && this.keepWeb(port, dev), AGAIN_MS);
    });
  }

  end(code = 0) {
    if (this.ending) return;
    this.ending = true;
    for (const child of this.children) child.kill('SIGTERM');
    const hard = setTimeout(() => {
      for (const child of this.children) child.kill('SIGKILL');
    }, 5000);
    hard.unref();
    const poll = setInterval(() => {
      if (this.children.size > 0) return;
      clearInterval(poll);
      process.exit(code);
    }, 50);
  }
}
