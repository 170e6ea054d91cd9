/**
 * Makes the demo data through the same use cases as a user's upload: models from their generators, projects, briefs,
 * and small proofs rendered by the service that runs beside. Does nothing when the data is there; goes on when it was
 * interrupted. SPHAERA_DEMO_QUICK=1 takes half the size and 16 samples, for tests.
 */
import { put } from '../server/files/content-store';
import { changeBrief } from '../server/usecases/change-brief';
import { createProject } from '../server/usecases/create-project';
import { requestProof } from '../server/usecases/request-proof';
import { viewDesk } from '../server/usecases/view-desk';
import { viewWorkspace } from '../server/usecases/view-workspace';
import { DEMO_CLIENT, DEMO_PROJECTS } from './projects';
import { writeModel } from './write-model';

const quick = process.env.SPHAERA_DEMO_QUICK === '1';
const there = new Set(viewDesk().projects.map((p) => p.name));
for (const project of DEMO_PROJECTS) {
  if (there.has(project.name)) continue;
  console.log(`drawing the model of the ${project.name}`);
  const { sha256 } = await put('incoming', await writeModel(project.model()));
  const made = await createProject({
    files: [{ upload: sha256, name: project.file }],
    unit: 'm',
    up: 'y',
    name: project.name,
    client: DEMO_CLIENT,
    kind: project.kind,
    pictures: project.pictures.map(({ name, brief, proof }) => ({
      name,
      brief: proof
        ? {
            ...brief,
            quality: { ...brief.quality, scale: proof.scale / (quick ? 2 : 1), samples: quick ? 16 : proof.samples }
          }
        : brief
    }))
  });
  if (!made.ok) throw new Error(`the demo model of ${project.name} was refused: ${made.message}`);
  // the proof is of the small brief; the picture then states the size and quality it is meant for
  made.value.pictures.forEach((id, i) => {
    const picture = project.pictures[i]!;
    if (!picture.proof) return;
    const asked = requestProof(id);
    if (!asked.ok) throw new Error(asked.message);
    changeBrief(id, picture.brief, false);
  });
}

let last = '';
for (;;) {
  const desk = viewDesk();
  const open = desk.projects
    .flatMap((p) => viewWorkspace(p.id)!.proofs)
    .filter((p) => p.state === 'waiting' || p.state === 'running');
  if (open.length === 0) break;
  const running = open.find((p) => p.state === 'running');
  const line = running
    ? `rendering the demo's proofs: ${open.length} to go, this one ${Math.floor(running.share * 100)} %`
    : `rendering the demo's proofs: ${open.length} to go`;
  if (
    line !== last &&
    (process.stdout.isTTY ||
      !running ||
      Math.floor(running.share * 10) !== Number(last.match(/(\d+) %/)?.[1] ?? -1) / 10)
  )
    console.log(line);
  last = line;
  await new Promise((resolve) => setTimeout(resolve, 2000));
}
process.exit(0);
