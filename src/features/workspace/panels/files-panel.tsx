/** A proof, or the whole set, as files to hand over: kind, depth, quality with its size, background, marks, words in it. */
import { useEffect, useRef, useState } from 'react';
import {
  DELIVERY_KINDS,
  type DeliveryKind,
  FILE_COLOURS,
  FILE_KIND_NAMES,
  type FileColours,
  hasQuality,
  holds16Bits,
  holdsClear,
  holdsColours,
  isLinear,
  QUALITY_DEFAULT
} from '../../../core/catalogue/file-kinds';
import { developKey } from '../../../core/brief/brief';
import { isOpenBehind } from '../../../core/brief/open-behind';
import { NAME_WORDS } from '../../../core/output/file-name';
import { NumberField } from '../../../ui/number-field';
import { Words } from '../../../ui/words';
import { bytes, follow } from '../../shared/send';
import { FILES_COPY as COPY, PRESS_COPY } from '../copy';
import { canFinish } from '../finish/use-finishing';
import type { PanelContext } from '../view';
import { Level } from './level';
import { PressProfiles } from './press-profiles';
import { SaveIntoFolder } from './save-into-folder';

const KINDS = DELIVERY_KINDS.map((key) => ({ key, label: FILE_KIND_NAMES[key] }));
const coloursOf = (kind: DeliveryKind) =>
  FILE_COLOURS.filter((key) => holdsColours(kind, key)).map((key) => ({ key, label: COPY.coloursOf[key] }));
const QUALITIES = [1, 25, 50, 75, 100].map((value) => ({ value, strong: value === 50 }));
const BITS = ([8, 16] as const).map((bits) => ({ key: String(bits) as '8' | '16', label: COPY.bits(bits) }));
const AUTHOR = 'sphaera author';
// a drag of the quality asks for many files: the one of its end is written
const WEIGH_AFTER_MS = 700;

const kept = (place: string): string => {
  try {
    return localStorage.getItem(place) ?? '';
  } catch {
    return '';
  }
};

type Props = Pick<PanelContext, 'workspace' | 'shown' | 'brief' | 'picture' | 'onWorkspace' | 'onMessage'>;

export function FilesPanel({ workspace, shown, brief: own, picture, onWorkspace, onMessage }: Props) {
  const [kind, setKind] = useState<DeliveryKind>('png');
  const [bits, setBits] = useState<8 | 16>(8);
  const [colors, setColors] = useState<FileColours>('srgb');
  const [press, setPress] = useState<string | null>(null);
  const [quality, setQuality] = useState(QUALITY_DEFAULT);
  const [clear, setClear] = useState(false);
  const [marks, setMarks] = useState(false);
  const [raw, setRaw] = useState(false);
  const [long, setLong] = useState<number | null>(null);
  const [half, setHalf] = useState(false);
  const [pictureOnly, setPictureOnly] = useState(false);
  const [asNow, setAsNow] = useState(true);
  const [copied, setCopied] = useState<string | null>(null);
  const [about, setAbout] = useState(true);
  const [withBrief, setWithBrief] = useState(false);
  const [author, setAuthor] = useState('');
  const [pattern, setPattern] = useState('');
  useEffect(() => setAuthor(kept(AUTHOR)), []);
  const brief = shown?.brief ?? null;
  const inks = colors === 'press' && holdsColours(kind, colors);
  const profile = workspace.press.find(({ sha256 }) => sha256 === press) ?? workspace.press[0] ?? null;
  const hasBits = holds16Bits(kind) && !inks;
  const canClear = brief !== null && holdsClear(kind) && isOpenBehind(brief) && !inks;
  const canMark = brief !== null && !isLinear(kind) && 'ppi' in brief.size && brief.patch === null;
  const canRaw = shown?.denoise_share === 1 && !isLinear(kind);
  const query = new URLSearchParams({ kind });
  if (hasBits && bits === 16) query.set('bits', '16');
  if (holdsColours(kind, colors) && colors !== 'srgb') query.set('colors', colors);
  if (inks && profile) query.set('profile', profile.sha256);
  if (hasQuality(kind)) query.set('quality', String(quality));
  if (canClear && clear) query.set('background', 'clear');
  if (canMark && marks) query.set('marks', '');
  const canFinishNow =
    brief !== null &&
    !isLinear(kind) &&
    developKey(brief.finish) !== developKey(own.finish) &&
    shown?.state !== 'running';
  const film = shown ? Math.max(shown.width_px, shown.height_px) : 0;
  if (!isLinear(kind) && long !== null && long < film) query.set('long', String(long));
  if (kind === 'exr' && half) query.set('half', '');
  if (kind === 'exr' && pictureOnly) query.set('picture', '');
  if (canRaw && raw) query.set('raw', '');
  if (canFinishNow && asNow) {
    query.set('finish', 'picture');
    // another state of the finish is another file
    query.set('state', String(picture.changes));
  }
  if (about && !isLinear(kind)) {
    query.set('about', '');
    if (author.trim()) query.set('author', author.trim());
    if (withBrief) query.set('brief', '');
  }
  if (pattern.trim()) query.set('name', pattern.trim());
  const address = shown && (!inks || profile) ? `/api/proofs/${shown.id}/file?${query}` : null;
  const weight = useWeight(address);
  const { state, stop } = weight;
  const flag = (label: string, value: boolean, set: (on: boolean) => void) => (
    <div className="rows">
      <span>{label}</span>
      <input
        type="checkbox"
        className="toggle toggle-sm"
        aria-label={label}
        checked={value}
        onChange={(e) => set(e.target.checked)}
      />
    </div>
  );
  return (
    <>
      <p className="say">{shown ? COPY.say(shown.number, shown.width_px, shown.height_px) : COPY.none}</p>
      <Words label={COPY.kind} value={kind} options={KINDS} onChoose={setKind} />
      <p className="note">{COPY.about[kind]}</p>
      {coloursOf(kind).length > 1 ? (
        <div className="sec">
          <div className="row">
            <span className="lab">{COPY.colours}</span>
            <Words
              label={COPY.colours}
              value={holdsColours(kind, colors) ? colors : 'srgb'}
              options={coloursOf(kind)}
              onChoose={setColors}
            />
          </div>
          <p className="note">{COPY.coloursSay[holdsColours(kind, colors) ? colors : 'srgb']}</p>
          {inks ? (
            <>
              {profile ? null : <p className="say">{PRESS_COPY.needed}</p>}
              <PressProfiles
                workspace={workspace}
                chosen={profile?.sha256 ?? null}
                without={null}
                onChoose={setPress}
                onWorkspace={onWorkspace}
                onMessage={onMessage}
              />
            </>
          ) : null}
        </div>
      ) : null}
      {hasBits ? (
        <div className="row">
          <span className="lab">{COPY.depth}</span>
          <Words
            label={COPY.depth}
            value={String(bits) as '8' | '16'}
            options={BITS}
            onChoose={(key) => setBits(key === '16' ? 16 : 8)}
          />
        </div>
      ) : null}
      {hasQuality(kind) ? (
        <Level
          name={COPY.quality}
          label={COPY.quality}
          value={quality}
          range={[1, 100, 1]}
          ticks={QUALITIES}
          text={`${quality}`}
          onChange={(v) => setQuality(Math.round(v))}
        />
      ) : null}
      {kind === 'exr' ? (
        <div className="sec">
          {flag(COPY.half, half, setHalf)}
          {flag(COPY.pictureOnly, pictureOnly, setPictureOnly)}
        </div>
      ) : null}
      {film > 0 && !isLinear(kind) ? (
        <div className="rows">
          <span>{COPY.long}</span>
          <NumberField
            label={COPY.long}
            value={Math.min(long ?? film, film)}
            min={16}
            max={film}
            digits={0}
            unit="px"
            onChange={(px) => setLong(Math.round(px))}
          />
        </div>
      ) : null}
      {canClear || canMark || canRaw || canFinishNow ? (
        <div className="sec">
          {canFinishNow ? flag(COPY.asNow, asNow, setAsNow) : null}
          {canClear ? flag(COPY.clear, clear, setClear) : null}
          {canMark ? flag(COPY.marks, marks, setMarks) : null}
          {canRaw ? flag(COPY.raw, raw, setRaw) : null}
        </div>
      ) : null}
      {isLinear(kind) ? null : (
        <div className="sec">
          {flag(COPY.words, about, setAbout)}
          {about ? (
            <>
              <label className="row">
                <span className="lab">{COPY.author}</span>
                <span className="fld" style={{ flex: 1 }}>
                  <input
                    value={author}
                    maxLength={200}
                    onChange={(e) => {
                      setAuthor(e.target.value);
                      try {
                        localStorage.setItem(AUTHOR, e.target.value);
                      } catch {
                        // without storage it holds for this visit
                      }
                    }}
                  />
                </span>
              </label>
              {flag(COPY.brief, withBrief, setWithBrief)}
            </>
          ) : null}
        </div>
      )}
      <div className="sec">
        <label className="row">
          <span className="lab">{COPY.name}</span>
          <span className="fld" style={{ flex: 1 }}>
            <input
              value={pattern}
              maxLength={200}
              placeholder="{picture}_{width}x{height}"
              onChange={(e) => setPattern(e.target.value)}
            />
          </span>
        </label>
        <p className="note">{COPY.nameSays(NAME_WORDS.map((word) => `{${word}}`).join(' '))}</p>
        {address ? (
          <p className="row">
            <a className="lk act" download href={address}>
              {COPY.save(FILE_KIND_NAMES[kind])}
            </a>
            <span className="n" role="status">
              {statusOf(state)}
            </span>
          </p>
        ) : null}
        {address && state.name === 'writing' && state.share > 0 ? (
          <div className="row">
            <progress className="progress" aria-label={COPY.written} value={state.share} max={1} />
            <span className="n">{COPY.left(state.share, state.secondsLeft)}</span>
            <button type="button" className="lk" onClick={stop}>
              {COPY.stop}
            </button>
          </div>
        ) : null}
        {address && state.name === 'refused' ? (
          <p className="note" role="alert">
            {state.message}
          </p>
        ) : null}
        {address ? (
          <p className="row">
            <button type="button" className="lk act" onClick={() => void copyPicture(query, shown!.id).then(setCopied)}>
              {COPY.copy}
            </button>
            {brief && 'ppi' in brief.size ? (
              <a className="lk act" target="_blank" rel="noreferrer" href={printed(query, shown!.id)}>
                {COPY.print}
              </a>
            ) : null}
          </p>
        ) : null}
        {copied === null ? null : (
          <p className="note" role="status">
            {copied}
          </p>
        )}
        {shown && brief?.quality.aovs && canFinish(shown) ? (
          <p>
            <a className="lk act" download href={`/api/proofs/${shown.id}/masks`} title={COPY.masksSay}>
              {COPY.masks}
            </a>
          </p>
        ) : null}
        {inks && !profile ? null : (
          <>
            <p>
              <a className="lk act" download href={`/api/projects/${workspace.project.id}/set?${query}`}>
                {COPY.set}
              </a>
            </p>
            <SaveIntoFolder project={workspace.project.id} query={query} />
            <p className="note">{COPY.setSays}</p>
          </>
        )}
      </div>
    </>
  );
}

/** Puts the picture on the clipboard as PNG; what is to be said of it. */
async function copyPicture(query: URLSearchParams, proof: string): Promise<string> {
  const png = new URLSearchParams(query);
  png.set('kind', 'png');
  png.set('bits', '8');
  // a clipboard knows sRGB alone
  png.delete('colors');
  png.delete('profile');
  try {
    const response = await fetch(`/api/proofs/${proof}/file?${png}`);
    if (!response.ok) return ((await response.json()) as { message?: string }).message ?? COPY.notCopied;
    await navigator.clipboard.write([new ClipboardItem({ 'image/png': await response.blob() })]);
    return COPY.copied;
  } catch {
    return COPY.notCopied;
  }
}

/** The address of the page as PDF, which the browser shows with its print dialog at hand. */
function printed(query: URLSearchParams, proof: string): string {
  const pdf = new URLSearchParams(query);
  pdf.set('kind', 'pdf');
  pdf.set('inline', '');
  return `/api/proofs/${proof}/file?${pdf}`;
}

type Written =
  | { name: 'writing'; share: number; secondsLeft: number | null }
  | { name: 'written'; bytes: number }
  | { name: 'refused'; message: string }
  | { name: 'stopped' };
const BEGUN: Written = { name: 'writing', share: 0, secondsLeft: null };

/** What is said beside the link to a file. */
const statusOf = (state: Written): string =>
  state.name === 'written'
    ? bytes(state.bytes)
    : state.name === 'stopped'
      ? COPY.stopped
      : state.name === 'refused'
        ? ''
        : COPY.weighing;

/** The file at an address: written once, so that its size is known and saving it then takes no time. */
function useWeight(address: string | null): { state: Written; stop: () => void } {
  const [known, setKnown] = useState<{ address: string; state: Written } | null>(null);
  const stopping = useRef<AbortController | null>(null);
  useEffect(() => {
    if (address === null) return;
    const stop = new AbortController();
    stopping.current = stop;
    const say = (state: Written) => setKnown({ address, state });
    const later = setTimeout(async () => {
      const began = performance.now();
      const onShare = (share: number) => {
        if (stop.signal.aborted) return;
        const left = ((performance.now() - began) / 1000) * (1 / share - 1);
        say({ name: 'writing', share, secondsLeft: share > 0.1 ? left : null });
      };
      const sent = await follow<{ bytes: number }, number>(address, {}, onShare, stop.signal);
      if (stop.signal.aborted) return;
      say(sent.ok ? { name: 'written', bytes: sent.value.bytes } : { name: 'refused', message: sent.message });
    }, WEIGH_AFTER_MS);
    return () => {
      stop.abort();
      clearTimeout(later);
    };
  }, [address]);
  const stop = () => {
    stopping.current?.abort();
    if (address !== null) setKnown({ address, state: { name: 'stopped' } });
  };
  return { state: known !== null && known.address === address ? known.state : BEGUN, stop };
}
