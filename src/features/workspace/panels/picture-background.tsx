/** A picture of one's own behind the model: which, what of it, and how light. */
import type { BackdropDto } from '../../../contracts/dto';
import type { PictureBackground } from '../../../core/brief/brief';
import { coveredPart } from '../../../core/finishing/background';
import { BringIn } from '../../../ui/bring-in';
import { bringIn, withAdded } from '../../shared/send';
import type { PanelContext } from '../view';
import { ItemRow } from './item-row';
import { Level } from './level';

const ENLARGED = [1, 2, 3, 4].map((value) => ({ value, strong: value === 1 }));
const STOPS = [-2, -1, 0, 1, 2].map((value) => ({ value, strong: value === 0 }));
const SHARES = [0, 0.25, 0.5, 0.75, 1].map((value) => ({ value, strong: value === 0.5 }));
// Less than this of a picture outside the sheet is nothing to move.
const OVERHANG = 0.005;

type Props = Pick<PanelContext, 'workspace' | 'onMessage' | 'onWorkspace'> & {
  /** Null until one is chosen. */
  background: PictureBackground | null;
  /** Width over height of the sheet. */
  aspect: number;
  onSet: (next: PictureBackground, joins?: boolean) => void;
};

export const PICTURE_START: Omit<PictureBackground, 'file'> = {
  kind: 'picture',
  across: 0.5,
  down: 0.5,
  enlarged: 1,
  lighter_ev: 0
};

export function PictureControls({ workspace, background, aspect, onSet, onMessage, onWorkspace }: Props) {
  const chosen = background && (workspace.backdrops.find((b) => b.sha256 === background.file) ?? null);
  const pictures = workspace.backdrops.filter((b) => b.purpose !== 'surface');
  const choose = (file: string) =>
    onSet({ ...PICTURE_START, ...(background ? { lighter_ev: background.lighter_ev } : {}), file });
  const add = async (image: File, onShare: (share: number) => void) => {
    const made = await bringIn<BackdropDto>('/api/backdrops', image, onShare, { purpose: 'behind' });
    if (!made.ok) return onMessage(made.message);
    onMessage(null);
    onWorkspace((w) => ({ ...w, backdrops: withAdded(w.backdrops, made.value) }));
    choose(made.value.sha256);
  };
  return (
    <>
      <div role="group" aria-label="Pictures behind the model">
        {pictures.map((b) => (
          <ItemRow
            key={b.sha256}
            kind="backdrop"
            id={b.sha256}
            name={b.name}
            onWorkspace={onWorkspace}
            onMessage={onMessage}
          >
            <button type="button" aria-pressed={b.sha256 === background?.file} onClick={() => choose(b.sha256)}>
              {b.name}
              <span className="n">{`${b.width_px} × ${b.height_px}`}</span>
            </button>
          </ItemRow>
        ))}
      </div>
      {pictures.length === 0 ? (
        <p className="say">
          No picture yet. A photograph of the place, or any PNG, JPEG, WebP, TIFF or AVIF, covers the sheet behind the
          model.
        </p>
      ) : null}
      <BringIn
        label="Choose a picture to stand behind the model"
        accept=".png,.jpg,.jpeg,.webp,.tif,.tiff,.avif"
        word="Bring in a picture"
        onFile={add}
      />
      {background && chosen ? (
        <Placing
          background={background}
          size={{ width: chosen.width_px, height: chosen.height_px }}
          aspect={aspect}
          onSet={onSet}
        />
      ) : null}
    </>
  );
}

function Placing({
  background,
  size,
  aspect,
  onSet
}: {
  background: PictureBackground;
  size: { width: number; height: number };
  aspect: number;
  onSet: Props['onSet'];
}) {
  const part = coveredPart(size, background, aspect);
  const set = (next: Partial<PictureBackground>, joins?: boolean) => onSet({ ...background, ...next }, joins);
  const hundredth = (v: number) => Math.round(v * 100) / 100;
  const place = (share: number, ends: readonly [string, string]) =>
    share === 0.5
      ? 'middle'
      : share < 0.5
        ? `${Math.round((1 - 2 * share) * 100)} % ${ends[0]}`
        : `${Math.round((2 * share - 1) * 100)} % ${ends[1]}`;
  return (
    <>
      <Level
        name="Enlarged"
        label="How far the picture is enlarged"
        value={background.enlarged}
        range={[1, 4, 0.05]}
        ticks={ENLARGED}
        text={`${background.enlarged} ×`}
        onChange={(v, joins) => set({ enlarged: hundredth(v) }, joins)}
      />
      {part.width < 1 - OVERHANG ? (
        <Level
          name="Across"
          label="What of the picture shows from left to right"
          value={background.across}
          range={[0, 1, 0.01]}
          ticks={SHARES}
          text={place(background.across, ['left', 'right'])}
          onChange={(v, joins) => set({ across: hundredth(v) }, joins)}
        />
      ) : null}
      {part.height < 1 - OVERHANG ? (
        <Level
          name="Down"
          label="What of the picture shows from top to bottom"
          value={background.down}
          range={[0, 1, 0.01]}
          ticks={SHARES}
          text={place(background.down, ['top', 'bottom'])}
          onChange={(v, joins) => set({ down: hundredth(v) }, joins)}
        />
      ) : null}
      <Level
        name="Lighter"
        label="How much lighter the picture is"
        value={background.lighter_ev}
        range={[-2, 2, 0.1]}
        ticks={STOPS}
        text={`${background.lighter_ev > 0 ? '+' : ''}${background.lighter_ev} EV`}
        onChange={(v, joins) => set({ lighter_ev: Math.round(v * 10) / 10 }, joins)}
      />
    </>
  );
}
