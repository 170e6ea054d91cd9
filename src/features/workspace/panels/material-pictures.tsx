/** Pictures of one's own on a material: which, projected from where, how large in centimetres. */
import type { BackdropDto } from '../../../contracts/dto';
import { limitsOf } from '../../../core/brief/limits';
import type { PictureFiles, SurfaceTexture } from '../../../core/scene/surface-pictures';
import { filesOf } from '../../../core/scene/surface-pictures';
import { BringIn } from '../../../ui/bring-in';
import { NumberField } from '../../../ui/number-field';
import { Words } from '../../../ui/words';
import { bringIn, withAdded } from '../../shared/send';
import { MATERIALS_COPY as COPY } from '../copy';
import type { PanelContext } from '../view';
import { ItemRow } from './item-row';

type Props = Pick<PanelContext, 'onMessage' | 'onWorkspace'> & {
  texture: SurfaceTexture | null;
  pictures: readonly BackdropDto[];
  onSet: (texture: SurfaceTexture | null, joins: boolean) => void;
};

const START: SurfaceTexture = {
  color: null,
  roughness: null,
  normal: null,
  height: null,
  height_mm: 2,
  opacity: null,
  projection: 'box',
  axis: 'y',
  width_cm: 100,
  repeats: 1,
  turn_deg: 0,
  across_cm: 0,
  up_cm: 0,
  varied: false
};
const USES = ['color', 'roughness', 'normal', 'height', 'opacity'] as const satisfies readonly (keyof PictureFiles)[];
const PROJECTIONS = (['box', 'planar', 'cylinder', 'file'] as const).map((key) => ({
  key,
  label: COPY.projections[key]
}));
const AXES = (['x', 'y', 'z'] as const).map((key) => ({ key, label: key }));
/** Fewer pixels to the centimetre show from near. */
const COARSE_PER_CM = 10;
const ACCEPT = '.png,.jpg,.jpeg,.webp,.tif,.tiff,.avif';

/** Brings a picture in to lie on surfaces; null, and told, when it cannot be read. */
export async function bringSurfacePicture(
  image: File,
  onShare: (share: number) => void,
  { onMessage, onWorkspace }: Pick<PanelContext, 'onMessage' | 'onWorkspace'>
): Promise<BackdropDto | null> {
  const made = await bringIn<BackdropDto>('/api/backdrops', image, onShare, { purpose: 'surface' });
  onMessage(made.ok ? null : made.message);
  if (!made.ok) return null;
  onWorkspace((w) => ({ ...w, backdrops: withAdded(w.backdrops, made.value) }));
  return made.value;
}

export const surfacePictures = (pictures: readonly BackdropDto[]): BackdropDto[] =>
  pictures.filter((p) => p.purpose !== 'behind');

export function MaterialPictures({ texture, pictures, onSet, onMessage, onWorkspace }: Props) {
  const own = surfacePictures(pictures);
  const now = texture ?? START;
  const set = (part: Partial<SurfaceTexture>, joins = false) => {
    const next = { ...now, ...part };
    onSet(filesOf(next).length === 0 ? null : next, joins);
  };
  const add = async (image: File, onShare: (share: number) => void) => {
    const made = await bringSurfacePicture(image, onShare, { onMessage, onWorkspace });
    if (made) set(guessUse(made.name, now, made.sha256));
  };
  const main = own.find((p) => p.sha256 === (now.color ?? now.opacity ?? now.height ?? now.normal ?? now.roughness));
  const number = (
    key: 'width_cm' | 'repeats' | 'turn_deg' | 'across_cm' | 'up_cm' | 'height_mm',
    label: string,
    unit: string
  ) => (
    <div className="row">
      <span className="lab">{label}</span>
      <NumberField
        label={label}
        unit={unit}
        digits={key === 'width_cm' ? 1 : 0}
        {...limitsOf(`materials.texture.${key}`)}
        value={now[key]}
        onChange={(v) => set({ [key]: v })}
      />
    </div>
  );
  return (
    <>
      {own.length === 0 ? <p className="note">{COPY.noPictures}</p> : null}
      {own.length > 0
        ? USES.map((use) => (
            <label key={use} className="row">
              <span className="lab">{COPY.textures[use]}</span>
              <select
                className="plainselect"
                aria-label={COPY.choosePicture(COPY.textures[use])}
                value={now[use] ?? ''}
                onChange={(e) => set({ [use]: e.target.value || null })}
              >
                <option value="">{COPY.noPicture}</option>
                {own.map((p) => (
                  <option key={p.sha256} value={p.sha256}>
                    {p.name}
                  </option>
                ))}
              </select>
            </label>
          ))
        : null}
      <BringIn label={COPY.bringPictureLabel} accept={ACCEPT} word={COPY.bringPicture} onFile={add} />
      {texture ? (
        <>
          <span className="lab">{COPY.projection}</span>
          <Words
            label={COPY.projection}
            value={now.projection}
            options={PROJECTIONS}
            onChoose={(projection) => set({ projection })}
          />
          {now.projection === 'planar' || now.projection === 'cylinder' ? (
            <div className="row">
              <span className="lab">{COPY.axis}</span>
              <Words label={COPY.axis} value={now.axis} options={AXES} onChoose={(axis) => set({ axis })} />
            </div>
          ) : null}
          {now.projection === 'file' ? number('repeats', COPY.repeats, '×') : number('width_cm', COPY.width, 'cm')}
          {now.projection === 'file' ? null : (
            <>
              {number('across_cm', COPY.across, 'cm')}
              {number('up_cm', COPY.up, 'cm')}
            </>
          )}
          {number('turn_deg', COPY.turn, '°')}
          <label className="rows" title={COPY.variedSays}>
            <span>{COPY.varied}</span>
            <input
              type="checkbox"
              className="toggle toggle-sm"
              checked={now.varied}
              onChange={(e) => set({ varied: e.target.checked })}
            />
          </label>
          {now.height !== null && now.normal === null ? number('height_mm', COPY.height_mm, 'mm') : null}
          {main ? <p className="note">{sizeNote(main, now)}</p> : null}
          <button type="button" className="lk act" onClick={() => onSet(null, false)}>
            {COPY.clearPictures}
          </button>
        </>
      ) : null}
      <div role="group" aria-label={COPY.bringPictureLabel}>
        {own.map((p) => (
          <ItemRow
            key={p.sha256}
            kind="backdrop"
            id={p.sha256}
            name={p.name}
            onWorkspace={onWorkspace}
            onMessage={onMessage}
          >
            <button
              type="button"
              aria-pressed={filesOf(now).includes(p.sha256)}
              onClick={() => set(guessUse(p.name, { ...now, color: null }, p.sha256))}
            >
              {p.name}
              <span className="n">{`${p.width_px} × ${p.height_px}`}</span>
            </button>
          </ItemRow>
        ))}
      </div>
    </>
  );
}

/** What a picture is for, by its name as texture sets are named; else the colour. */
export function guessUse(name: string, now: SurfaceTexture, sha256: string): Partial<SurfaceTexture> {
  const text = name.toLowerCase();
  if (/normal|_nrm|_nor\b/.test(text)) return { normal: sha256 };
  if (/rough|gloss/.test(text)) return { roughness: sha256 };
  if (/height|displ|bump/.test(text)) return { height: sha256 };
  if (/opacity|alpha|mask/.test(text)) return { opacity: sha256 };
  return now.color === null || /colou?r|albedo|diff|base/.test(text) ? { color: sha256 } : {};
}

function sizeNote({ width_px, height_px }: BackdropDto, { projection, width_cm }: SurfaceTexture): string {
  const perCm = width_px / width_cm;
  if (projection !== 'file' && perCm < COARSE_PER_CM) return COPY.tooCoarse(perCm.toFixed(1));
  return COPY.notSquare(width_px, height_px);
}
