import type { PanelContext } from '../view';

const length = (metres: number) =>
  metres < 1 ? `${Math.round(metres * 1000)}\u00a0mm` : `${metres.toFixed(2)}\u00a0m`;
const NUMBERS = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'];
const count = (n: number, one: string, many = `${one}s`) =>
  `${NUMBERS[n] ?? n.toLocaleString('en')} ${n === 1 ? one : many}`;

/** What came in with the model: its size and weight, what it is made of, what was changed or left out on the way. */
export function ModelPanel({ workspace }: Pick<PanelContext, 'workspace'>) {
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
        <span className="lab">Materials</span>
        <ul>
          {report.materials.map((name, i) => (
            <li key={i}>
              {name}
              {report.glowing.includes(name) ? ', glows' : ''}
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
