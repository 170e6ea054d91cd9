const LIMIT_MS = 900_000;

/** Waits until the demo's projects are there and everything in the queue is rendered. */
export async function demoMade(at, projects = 3) {
  const end = Date.now() + LIMIT_MS;
  while (Date.now() < end) {
    const desk = await fetch(`${at}/api/desk`).then((answer) => answer.json());
    const shown = desk.projects.filter((project) => project.lead !== null);
    if (shown.length >= projects && desk.running === null && desk.waiting === 0) return;
    await new Promise((resolve) => setTimeout(resolve, 1000));
  }
  throw new Error(`the demo data was not made within ${LIMIT_MS / 60_000} minutes`);
}
