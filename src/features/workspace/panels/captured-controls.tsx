/** Captured surroundings: which image, its sun, and how it is set upright. */
import { limitsOf } from '../../../core/brief/limits';
import { kelvinText, NBSP, wholeText } from '../../../core/brief/amounts';
import { useRef, useState } from 'react';
import type { CapturedDto } from '../../../contracts/dto';
import type { CapturedSurroundings } from '../../../core/brief/brief';
import { coarserWidths } from '../../../core/lights/captured/levels';
import type { FreeViewpoint } from '../../../core/camera/viewpoint';
import { BringIn } from '../../../ui/bring-in';
import { NumberField } from '../../../ui/number-field';
import { Words } from '../../../ui/words';
import { send, upload, withAdded } from '../../shared/send';
import type { Picking, PanelContext } from '../view';
import { ItemRow } from './item-row';
import { tenths, TurnStrip } from './turn-strip';

type Props = Pick<PanelContext, 'workspace' | 'view' | 'onMessage' | 'onWorkspace'> & {
  captured: CapturedSurroundings /** Of the picture, in whatever unit. */;
  sheet: { width: number; height: number };
  picking: Picking | null;
  onPicking: (picking: Picking | null) => void;
  onSet: (part: Partial<CapturedSurroundings>, joins?: boolean) => void;
};

export function CapturedControls({
  workspace,
  view,
  captured,
  sheet,
  picking,
  onPicking,
  onSet,
  onMessage,
  onWorkspace
}: Props) {
  const image = workspace.captured.find((c) => c.sha256 === captured.file) ?? null;
  const turning = picking?.asks === 'turn';
  const start = useRef({ rotation: 0, turned: false });
  const turnOnStage = () => {
    if (turning) return onPicking(null);
    onPicking({
      asks: 'turn',
      says: 'Drag across the picture to turn the image behind it.',
      onDrag(across, joins) {
        if (!joins) {
          start.current = { rotation: latest.current, turned: false };
          return;
        }
        onSet(
          { rotation_deg: tenths(start.current.rotation - across * pictureAngle(view, sheet)) },
          start.current.turned
        );
        start.current.turned = true;
      }
    });
  };
  const latest = useRef(captured.rotation_deg);
  latest.current = captured.rotation_deg;
  return (
    <>
      <CapturedList
        workspace={workspace}
        file={captured.file}
        onChoose={(file) => onSet({ file, sun: 'image', sun_turn_deg: 0, pitch_deg: 0, roll_deg: 0, most_px: null })}
        onMessage={onMessage}
        onWorkspace={onWorkspace}
      />
      {image ? (
        <div className="sec">
          <div className="row">
            <span className="lab">Turn it</span>
            <button type="button" className="lk act" aria-pressed={turning} onClick={turnOnStage}>
              {turning ? 'Done' : 'Drag on the stage'}
            </button>
          </div>
          <div className="turnwrap">
            <TurnStrip
              src={`/api/captured/${image.sha256}`}
              rotationDeg={captured.rotation_deg}
              view={view}
              onTurn={(rotation_deg, joins) => onSet({ rotation_deg }, joins)}
            />
          </div>
          <div className="rows" style={{ marginTop: 8 }}>
            <span>Seen in reflections</span>
            <input
              type="checkbox"
              className="toggle toggle-sm"
              aria-label="Seen in reflections"
              checked={captured.in_reflections}
              onChange={(e) => onSet({ in_reflections: e.target.checked })}
            />
          </div>
          <Fineness widthPx={image.width_px} mostPx={captured.most_px} onSet={(most_px) => onSet({ most_px })} />
        </div>
      ) : null}
      {image ? (
        <div className="sec">
          <span className="lab">The sun in it</span>
          <p className="say">{sunSentence(image)}</p>
          {image.sun ? (
            <>
              <Words
                label="The sun in the image"
                value={captured.sun}
                options={[
                  { key: 'image', label: 'As captured' },
                  { key: 'true', label: 'A true sun' },
                  { key: 'none', label: 'Cut out' }
                ]}
                onChoose={(sun) => onSet({ sun })}
              />
              {captured.sun === 'true' ? (
                <div className="rows" style={{ marginTop: 8 }}>
                  <span>Rotation against the image</span>
                  <NumberField
                    label="Rotation of the sun against the image"
                    value={captured.sun_turn_deg}
                    {...limitsOf('surroundings.captured.sun_turn_deg')}
                    unit="°"
                    onChange={(sun_turn_deg) => onSet({ sun_turn_deg })}
                  />
                </div>
              ) : null}
            </>
          ) : null}
        </div>
      ) : null}
      {image ? (
        <div className="sec">
          <span className="lab">Level, when the camera stood askew</span>
          <div className="rows">
            <span>Pitch</span>
            <NumberField
              label="Pitch"
              value={captured.pitch_deg}
              {...limitsOf('surroundings.captured.pitch_deg')}
              digits={1}
              unit="°"
              onChange={(pitch_deg) => onSet({ pitch_deg })}
            />
            <span>Roll</span>
            <NumberField
              label="Roll"
              value={captured.roll_deg}
              {...limitsOf('surroundings.captured.roll_deg')}
              digits={1}
              unit="°"
              onChange={(roll_deg) => onSet({ roll_deg })}
            />
          </div>
        </div>
      ) : null}
    </>
  );
}

/** How fine the image is taken: as it is, or halved once or more. */
function Fineness({
  widthPx,
  mostPx,
  onSet
}: {
  widthPx: number;
  mostPx: number | null;
  onSet: (mostPx: number | null) => void;
}) {
  const widths = [widthPx, ...coarserWidths(widthPx)];
  if (widths.length === 1) return null;
  return (
    <>
      <p className="note">Its light is the same at any width, px:</p>
      <Words
        label="Width that the image is taken at"
        value={String(widths.find((w) => w <= (mostPx ?? widthPx)) ?? widths.at(-1))}
        options={widths.map((w) => ({ key: String(w), label: wholeText(w) }))}
        onChoose={(w) => onSet(Number(w) === widthPx ? null : Number(w))}
      />
    </>
  );
}

/** Full angle across the picture, degrees. */
function pictureAngle(view: FreeViewpoint, { width, height }: { width: number; height: number }): number {
  return (2 * Math.atan((view.sensor_height_mm * (width / height)) / (2 * view.focal_length_mm)) * 180) / Math.PI;
}

function sunSentence({ sun }: CapturedDto): string {
  if (!sun) return 'No spot stands out as a sun would; the image lights as it is.';
  const { height_deg, lux, kelvin, radius_deg } = sun;
  const light = lux >= 1000 ? `${Math.round(lux / 100) / 10}${NBSP}klx` : `${Math.round(lux * 10) / 10}${NBSP}lx`;
  return (
    `A sun ${Math.round(height_deg)}° high of ${light} and ${kelvinText(Math.round(kelvin / 50) * 50)}, ` +
    `smeared to ${(2 * radius_deg).toFixed(1)}° across; the true one is 0.5°, so its shadows are ` +
    `${radius_deg > 0.6 ? 'crisper than this image’s' : 'about as crisp'}.`
  );
}

function CapturedList({
  workspace,
  file,
  onChoose,
  onMessage,
  onWorkspace
}: { file: string; onChoose: (sha: string) => void } & Pick<PanelContext, 'workspace' | 'onMessage' | 'onWorkspace'>) {
  // one that is here, but so large that it is asked whether it may be reduced
  const [large, setLarge] = useState<{ upload: string; name: string; message: string } | null>(null);
  const bringIn = async (image: File, onShare: (share: number) => void) => {
    setLarge(null);
    const sent = await upload(image, onShare, new AbortController().signal);
    if (sent.ok) await add(sent.value.upload, image.name, false);
    else onMessage(sent.message);
  };
  const add = async (uploaded: string, name: string, reduce: boolean) => {
    const made = await send<Omit<CapturedDto, 'name'>>('POST', '/api/captured', { upload: uploaded, name, reduce });
    if (!made.ok && made.code === 'too_large') return setLarge({ upload: uploaded, name, message: made.message });
    setLarge(null);
    if (!made.ok) return onMessage(made.message);
    const added = { ...made.value, name: name.replace(/\.[A-Za-z0-9]+$/, '') };
    onWorkspace((w) => ({ ...w, captured: withAdded(w.captured, added) }));
    onChoose(added.sha256);
  };
  return (
    <div className="sec">
      <span className="lab">Captured 360° images</span>
      <div role="group" aria-label="Captured images">
        {workspace.captured.map((c) => (
          <ItemRow
            key={c.sha256}
            kind="captured"
            id={c.sha256}
            name={c.name}
            onWorkspace={onWorkspace}
            onMessage={onMessage}
          >
            <button type="button" aria-pressed={c.sha256 === file} onClick={() => onChoose(c.sha256)}>
              {c.name}
              <span className="n">{`${c.width_px} × ${c.height_px}`}</span>
            </button>
          </ItemRow>
        ))}
      </div>
      {workspace.captured.length === 0 ? (
        <p className="say">
          No image yet. An .hdr or .exr of the full circle, twice as wide as high, lights the model as the place was
          lit.
        </p>
      ) : null}
      {large ? (
        <p className="say" role="status">
          {large.message}.{' '}
          <button type="button" className="lk act" onClick={() => void add(large.upload, large.name, true)}>
            Bring it in reduced
          </button>
        </p>
      ) : null}
      <BringIn label="Choose a captured image" accept=".hdr,.exr" word="Bring in an .hdr or .exr" onFile={bringIn} />
    </div>
  );
}
