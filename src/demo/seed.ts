/**
 * Makes the demo data through the same use cases as a user's upload: models from their generators, projects, briefs,
 * and small proofs in the queue, which the service renders while one watches: first every lead picture at few samples,
 * then each picture at its own. Goes on when it was interrupted, and does nothing once all was made, so that what a
 * user removes stays away. SPHAERA_DEMO_QUICK=1 asks for the first proofs alone, for tests.
 */
import { put } from '../server/files/content-store';
import { isMarked, mark } from '../server/files/marks';
import { createProject } from '../server/usecases/create-project';
import { requestProofOf } from '../server/usecases/request-proof';
import { viewDesk } from '../server/usecases/view-desk';
import { viewPicture, viewWorkspace } from '../server/usecases/view-workspace';
import { DEMO_CLIENT, DEMO_PROJECTS, type DemoPicture } from './projects';
import { writeModel } from '../drawing/write-model';

const FIRST_SAMPLES = 16;
const MADE = 'demo-made';
if (isMarked(MADE)) process.exit(0);

for (const project of DEMO_PROJECTS) {
  if (projectNamed(project.name)) continue;
  console.log(`drawing the model of the ${project.name}`);
  const { sha256 } = await put('incoming', await writeModel(project.model()));
  const created = await createProject({
    files: [{ upload: sha256, name: project.file }],
    unit: 'm',
    up: 'y',
    name: project.name,
    client: DEMO_CLIENT,
    kind: project.kind,
    pictures: project.pictures.map(({ name, brief }) => ({ name, brief }))
  });
  if (!created.ok) throw new Error(`the demo model of ${project.name} was refused: ${created.message}`);
  forEachProof(
    project.name,
    ({ lead }, proofs) => lead === true && proofs === 0,
    ({ scale }) => ({ scale: scale / 2, samples: FIRST_SAMPLES })
  );
}
if (process.env.SPHAERA_DEMO_QUICK !== '1')
  for (const project of DEMO_PROJECTS)
    forEachProof(
      project.name,
      ({ lead }, proofs) => proofs === (lead ? 1 : 0),
      (proof) => proof
    );
mark(MADE);
process.exit(0);

function projectNamed(name: string): string | undefined {
  return viewDesk().projects.find((p) => p.name === name)?.id;
}

/** Asks for a proof of each picture that is due with the number of proofs it has. */
function forEachProof(
  name: string,
  due: (picture: DemoPicture, proofs: number) => boolean,
  rendered: (proof: DemoPicture['proof']) => DemoPicture['proof']
): void {
  const project = projectNamed(name);
  if (!project) return;
  for (const picture of viewWorkspace(project)!.pictures) {
    const demo = DEMO_PROJECTS.find((p) => p.name === name)!.pictures.find((p) => p.name === picture.name);
    if (!demo || !due(demo, viewPicture(picture.id)!.proofs.length)) continue;
    const quality = { ...demo.brief.quality, ...rendered(demo.proof) };
    const asked = requestProofOf(picture.id, { ...demo.brief, quality });
    if (!asked.ok) throw new Error(asked.message);
  }
}
