import { useState } from 'react';
import type { WorkspaceDto } from '../../../contracts/dto';
import { FINENESSES, type Fineness, METRES_Y_UP } from '../../../core/units/read-as';
import { Words } from '../../../ui/words';
import { sizeInFile } from '../../shared/file-size';
import { ReadAsFields } from '../../shared/read-as-fields';
import { MODEL_COPY } from '../copy';
import type { PanelContext } from '../view';
import { changeModel } from './change-model';
import { Health } from './health';
import { Revisions } from './revisions';

const length = (metres: number) =>
  metres < 1 ? `${Math.round(metres * 1000)}\u00a0mm` : `${metres.toFixed(2)}\u00a0m`;
const NUMBERS = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'];
const count = (n: number, one: string, many = `${one}s`) =>
  `${NUMBERS[n] ?? n.toLocaleString('en')} ${n === 1 ? one : many}`;

type Props = Pick<PanelContext, 'workspace' | 'picture' | 'onWorkspace' | 'onMessage'>;

/** What came in with the model: its size and weight, what it is made of, what was changed or left out on the way. */
export function ModelPanel({ workspace, picture, onWorkspace, onMessage }: Props) {
  const { report, number } = workspace.revision;
  const [x, y, z] = report.size_m;
  return (
    <>
      <p className="say">
        Revision {number}, from {report.source}: {length(x)} wide, {length(y)} high, {length(z)} deep;{' '}
        {report.triangles.toLocaleString('en')} triangles, {count(report.textures, 'texture')},{' '}
        {count(report.cameras.length, 'camera')}, {count(report.lights.length, 'lamp')} and{' '}
        {count(report.glowing.length, 'glowing material')}.
      </p>
      <Revisions workspace={workspace} picture={picture} onWorkspace={onWorkspace} onMessage={onMessage} />
      <Health workspace={workspace} picture={picture} onWorkspace={onWorkspace} onMessage={onMessage} />
      <SizeOfModel
        key={workspace.revision.glb_sha256}
        workspace={workspace}
        picture={picture}
        onWorkspace={onWorkspace}
        onMessage={onMessage}
      />
      {report.fineness ? (
        <FinenessOfModel
          key={`fineness ${workspace.revision.glb_sha256}`}
          workspace={workspace}
          picture={picture}
          onWorkspace={onWorkspace}
          onMessage={onMessage}
        />
      ) : null}
      {report.changed.length + report.missing.length > 0 ? (
        <div className="sec" style={{ marginTop: 12 }}>
          <span className="lab">Import notes</span>
          <ul>
            {[...report.changed, ...report.missing].map((text) => (
              <li key={text}>{text}.</li>
            ))}
          </ul>
        </div>
      ) : (
        <p className="note">The import changed nothing and left nothing out.</p>
      )}
      <div className="sec" style={{ marginTop: 12 }}>
        <span className="lab">{MODEL_COPY.materials}</span>
        <ul className="tree">
          {weightsOf(report).map(({ name, triangles, texture_mb }) => (
            <li key={name}>
              <span className="name">
                {name}
                {report.glowing.includes(name) ? MODEL_COPY.glows : ''}
              </span>
              <span className="n">{MODEL_COPY.weighs(triangles, texture_mb)}</span>
            </li>
          ))}
        </ul>
      </div>
      {report.lights.length > 0 ? (
        <div className="sec">
          <span className="lab">Lamps without a surface</span>
          <ul>
            {report.lights.map((name, i) => (
              <li key={i}>{name}</li>
            ))}
          </ul>
        </div>
      ) : null}
    </>
  );
}

/** Unit and axis can be corrected: what stands in the model's metres follows. */
function SizeOfModel({ workspace, picture, onWorkspace, onMessage }: Props) {
  const { report } = workspace.revision;
  const was = report.read_as ?? METRES_Y_UP;
  const [readAs, setReadAs] = useState(was);
  const [busy, setBusy] = useState(false);
  const differs = readAs.unit !== was.unit || readAs.up !== was.up;
  const correct = async () => {
    setBusy(true);
    const now = await changeModel(workspace, picture, 'scale', readAs);
    setBusy(false);
    onMessage(now.ok ? null : now.message);
    if (now.ok) onWorkspace(now.value);
  };
  return (
    <div className="sec read-as">
      <span className="lab">{MODEL_COPY.size}</span>
      <ReadAsFields size={sizeInFile(report.size_m, was)} readAs={readAs} onChange={setReadAs}>
        {busy ? (
          <span role="status">{MODEL_COPY.correcting}</span>
        ) : differs ? (
          <button type="button" className="lk act" onClick={() => void correct()}>
            {MODEL_COPY.correct}
          </button>
        ) : null}
      </ReadAsFields>
    </div>
  );
}

/** Solids are meshed anew from the file that they came in with. */
function FinenessOfModel({ workspace, picture, onWorkspace, onMessage }: Props) {
  const { fineness = 'medium' } = workspace.revision.report;
  const [busy, setBusy] = useState(false);
  const mesh = async (next: Fineness) => {
    setBusy(true);
    const now = await changeModel(workspace, picture, 'fineness', { fineness: next });
    setBusy(false);
    onMessage(now.ok ? null : now.message);
    if (now.ok) onWorkspace(now.value);
  };
  return (
    <div className="sec">
      <span className="lab">{MODEL_COPY.fineness}</span>
      {busy ? (
        <p role="status">{MODEL_COPY.meshing}</p>
      ) : (
        <Words
          label={MODEL_COPY.fineness}
          value={fineness}
          options={FINENESSES.map((key) => ({ key, label: MODEL_COPY.finenesses[key] }))}
          onChoose={(next) => void mesh(next)}
        />
      )}
      <p className="note">{MODEL_COPY.chords[fineness]}</p>
    </div>
  );
}

/** The materials with what they weigh; of models brought in earlier their names alone. */
const weightsOf = ({ material_weights, materials }: WorkspaceDto['revision']['report']) =>
  material_weights ?? [...new Set(materials)].map((name) => ({ name, triangles: null, texture_mb: 0 }));
