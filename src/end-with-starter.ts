const CHECK_MS = 1000;

/** The web server ends with who started it: one that stayed would answer for a render service that is gone. */
export function endWithStarter(): void {
  const starter = Number(process.env.SPHAERA_STARTER ?? 0);
  if (!starter) return;
  setInterval(() => {
    // not the parent: a development server answers from a child of what was started
    if (!lives(starter)) process.exit(0);
  }, CHECK_MS).unref();
}

function lives(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
}
