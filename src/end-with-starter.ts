const CHECK_MS = 1000;

/** The web server ends with who started it: one that stayed would answer for a render service that is gone. */
export function endWithStarter(): void {
  const starter = Number(process.env.SPHAERA_STARTER ?? 0);
  if (!starter) return;
  setInterval(() => {
    if (process.ppid !== starter) process.exit(0);
  }, CHECK_MS).unref();
}
