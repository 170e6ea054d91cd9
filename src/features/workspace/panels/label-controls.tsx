/** Pictures on faces of the model: put where one presses, sized in centimetres, turned, moved. */
import type { Brief } from '../../../core/brief/brief';
import { limitsOf } from '../../../core/brief/limits';
import type { Vec3 } from '../../../core/math/vec3';
import { BringIn } from '../../../ui/bring-in';
import { NumberField } from '../../../ui/number-field';
import { LABELS_COPY as COPY, MATERIALS_COPY } from '../copy';
import { roundedPlace } from '../posing';
import type { PanelContext } from '../view';
import { Level } from './level';
import { bringSurfacePicture, surfacePictures } from './material-pictures';

type Label = Brief['labels'][number];
type Props = Pick<
  PanelContext,
  'workspace' | 'brief' | 'picking' | 'onPicking' | 'onChange' | 'onMessage' | 'onWorkspace'
>;

const SHINES = [0, 0.25, 0.5, 0.75, 1].map((value) => ({ value, strong: value === 0.5 }));
const ACCEPT = '.png,.jpg,.jpeg,.webp,.tif,.tiff,.avif';
// Of the model's diagonal: large enough to be found, small enough to lie on one face.
const FIRST_WIDTH = 0.08;

const rounded = (v: Vec3): [number, number, number] => v.map((x) => Math.round(x * 1e4) / 1e4) as never;

export function LabelControls({ workspace, brief, picking, onPicking, onChange, onMessage, onWorkspace }: Props) {
  const { labels } = brief;
  const pictures = surfacePictures(workspace.backdrops);
  const { min_m, max_m } = workspace.revision.report;
  const asking = picking?.asks === 'label';
  const setAll = (next: Label[], joins = false) => onChange({ labels: next }, joins);
  const set = (index: number, part: Partial<Label>, joins = false) =>
    setAll(
      labels.map((label, i) => (i === index ? { ...label, ...part } : label)),
      joins
    );
  const ask = (says: string, take: (position_m: [number, number, number], normal: [number, number, number]) => void) =>
    onPicking({
      asks: 'label',
      says,
      onPick: (point, normal, joins) => {
        if (joins) return;
        onPicking(null);
        take(roundedPlace(point), rounded(normal));
      }
    });
  const put = (file: string) =>
    ask(COPY.putSays, (position_m, normal) => {
      const diagonal = Math.hypot(...max_m.map((v, k) => v - min_m[k]!));
      const width_cm = Math.max(0.1, Number((100 * FIRST_WIDTH * diagonal).toPrecision(2)));
      const name = COPY.newName(labels.length + 1);
      setAll([...labels, { name, file, position_m, normal, width_cm, turn_deg: 0, shine: 0.4, shown: true }]);
    });
  const add = async (image: File, onShare: (share: number) => void) => {
    const made = await bringSurfacePicture(image, onShare, { onMessage, onWorkspace });
    if (made) put(made.sha256);
  };
  return (
    <div className="sec">
      <span className="lab">{COPY.title}</span>
      <p className="note">{COPY.say}</p>
      <div className="acts">
        <BringIn
          label={MATERIALS_COPY.bringPictureLabel}
          accept={ACCEPT}
          word={MATERIALS_COPY.bringPicture}
          onFile={add}
        />
        {pictures.length > 0 ? (
          <button
            type="button"
            className="lk act"
            aria-pressed={asking}
            onClick={() => (asking ? onPicking(null) : put(pictures.at(-1)!.sha256))}
          >
            {COPY.put}
          </button>
        ) : null}
      </div>
      {labels.map((label, i) => (
        <div key={i} className="part">
          <div className="row">
            <span className="fld" style={{ flex: 1 }}>
              <input
                aria-label={COPY.name}
                value={label.name}
                maxLength={80}
                onChange={(e) => set(i, { name: e.target.value }, true)}
              />
            </span>
            <input
              type="checkbox"
              className="toggle toggle-sm"
              aria-label={`${COPY.shown}: ${label.name}`}
              checked={label.shown}
              onChange={(e) => set(i, { shown: e.target.checked })}
            />
          </div>
          <label className="row">
            <span className="lab">{COPY.picture}</span>
            <select
              className="plainselect"
              value={label.file}
              onChange={(e) => set(i, { file: e.target.value })}
              aria-label={`${COPY.picture}: ${label.name}`}
            >
              {pictures.map((p) => (
                <option key={p.sha256} value={p.sha256}>
                  {p.name}
                </option>
              ))}
            </select>
          </label>
          <div className="row">
            <NumberField
              label={COPY.width}
              unit="cm"
              digits={1}
              {...limitsOf('labels.width_cm')}
              value={label.width_cm}
              onChange={(width_cm) => set(i, { width_cm })}
            />
            <NumberField
              label={COPY.turn}
              unit="°"
              {...limitsOf('labels.turn_deg')}
              value={label.turn_deg}
              onChange={(turn_deg) => set(i, { turn_deg })}
            />
          </div>
          <Level
            name={COPY.shine}
            label={`${COPY.shine}: ${label.name}`}
            value={label.shine}
            range={[0, 1, 0.01]}
            ticks={SHINES}
            text={`${Math.round(100 * label.shine)}\u00a0%`}
            onChange={(shine, joins) => set(i, { shine: Math.round(shine * 100) / 100 }, joins)}
          />
          <div className="acts">
            <button
              type="button"
              className="lk act"
              onClick={() => ask(COPY.moveSays, (position_m, normal) => set(i, { position_m, normal }))}
            >
              {COPY.move}
            </button>
            <button type="button" className="lk act" onClick={() => setAll(labels.filter((_, k) => k !== i))}>
              {COPY.remove}
            </button>
          </div>
        </div>
      ))}
    </div>
  );
}
