// Starts and keeps alive the processes of the application: the render service (begun again when it dies) and the web
// server.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { root } from './install.mjs';

export class Processes {
  ending = false;
  children = new Set();

  constructor(env) {
    this.env = { ...process.env, SPHAERA_ROOT: root, NEXT_TELEMETRY_DISABLED: '1', ...env };
    for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => this.end());
  }

  spawn(args, stdio = 'inherit') {
    const child = spawn(process.execPath, args, { cwd: root, env: this.env, stdio });
    this.children.add(child);
    child.on('exit', () => this.children.delete(child));
    return child;
  }

  keepRenderService() {
    const child = this.spawn(['--enable-source-maps', join(root, 'build/render-service.mjs')]);
    child.on('exit', (code, signal) => {
      if (this.ending) return;
      console.log(`the render service ended (${signal ?? code}); beginning it again`);
      setTimeout(() => !this.ending && this.keepRenderService(), 500);
    });
  }

  /** Runs to the end; resolves to the exit code. */
  run(args) {
    return new Promise((resolve) => this.spawn(args).on('exit', (code) => resolve(code ?? 1)));
  }

  /** Starts the web server on loopback and waits until it answers. */
  async web(port, dev = false) {
    const child = this.spawn(
      [join(root, 'node_modules/next/dist/bin/next'), dev ? 'dev' : 'start', '-H', '127.0.0.1', '-p', String(port)],
      ['ignore', 'ignore', 'inherit']
    );
    child.on('exit', (code) => {
      if (this.ending) return;
      console.error(`the web server ended with code ${code}; is port ${port} in use? Choose another with PORT=...`);
      this.end(1);
    });
    for (let i = 0; i < 240 && !this.ending; i++) {
      const answer = await fetch(`http://127.0.0.1:${port}/api/health`).catch(() => null);
      if (answer?.ok) return;
      await new Promise((resolve) => setTimeout(resolve, 250));
    }
    if (!this.ending) throw new Error('the web server did not answer within a minute');
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
