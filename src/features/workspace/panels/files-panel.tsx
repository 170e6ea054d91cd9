/** A proof, or the whole set, as files to hand over: kind, depth, quality with its size, background, marks, words in it. */
import { useEffect, useState } from 'react';
import {
  DELIVERY_KINDS,
  type DeliveryKind,
  FILE_KIND_NAMES,
  hasQuality,
  holds16Bits,
  holdsClear,
  isLinear,
  QUALITY_DEFAULT
} from '../../../core/catalogue/file-kinds';
import { isOpenBehind } from '../../../core/brief/open-behind';
import { NAME_WORDS } from '../../../core/output/file-name';
import { Words } from '../../../ui/words';
import { bytes, send } from '../../shared/send';
import { FILES_COPY as COPY } from '../copy';
import type { PanelContext } from '../view';
import { Level } from './level';

const KINDS = DELIVERY_KINDS.map((key) => ({ key, label: FILE_KIND_NAMES[key] }));
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

export function FilesPanel({ workspace, shown }: Pick<PanelContext, 'workspace' | 'shown'>) {
  const [kind, setKind] = useState<DeliveryKind>('png');
  const [bits, setBits] = useState<8 | 16>(8);
  const [quality, setQuality] = useState(QUALITY_DEFAULT);
  const [clear, setClear] = useState(false);
  const [marks, setMarks] = useState(false);
  const [raw, setRaw] = useState(false);
  const [about, setAbout] = useState(true);
  const [withBrief, setWithBrief] = useState(false);
  const [author, setAuthor] = useState('');
  const [pattern, setPattern] = useState('');
  useEffect(() => setAuthor(kept(AUTHOR)), []);
  const brief = shown?.brief ?? null;
  const canClear = brief !== null && holdsClear(kind) && isOpenBehind(brief);
  const canMark = brief !== null && !isLinear(kind) && 'ppi' in brief.size && brief.patch === null;
  const canRaw = shown?.denoise_share === 1 && !isLinear(kind);
  const query = new URLSearchParams({ kind });
  if (holds16Bits(kind) && bits === 16) query.set('bits', '16');
  if (hasQuality(kind)) query.set('quality', String(quality));
  if (canClear && clear) query.set('background', 'clear');
  if (canMark && marks) query.set('marks', '');
  if (canRaw && raw) query.set('raw', '');
  if (about && !isLinear(kind)) {
    query.set('about', '');
    if (author.trim()) query.set('author', author.trim());
    if (withBrief) query.set('brief', '');
  }
  if (pattern.trim()) query.set('name', pattern.trim());
  const address = shown ? `/api/proofs/${shown.id}/file?${query}` : null;
  const weight = useWeight(address);
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
      {holds16Bits(kind) ? (
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
      {canClear || canMark || canRaw ? (
        <div className="sec">
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
              {weight === 'weighing' ? COPY.weighing : weight === null ? '' : bytes(weight)}
            </span>
          </p>
        ) : null}
        <p>
          <a className="lk act" download href={`/api/projects/${workspace.project.id}/set?${query}`}>
            {COPY.set}
          </a>
        </p>
        <p className="note">{COPY.setSays}</p>
      </div>
    </>
  );
}

/** How large the file is, bytes: written once, so that saving it then takes no time. Null where there is none. */
function useWeight(address: string | null): number | 'weighing' | null {
  const [known, setKnown] = useState<{ address: string; bytes: number | null } | null>(null);
  useEffect(() => {
    if (address === null) return;
    let left = false;
    const later = setTimeout(async () => {
      const sent = await send<{ bytes: number }>('GET', `${address}&weigh`);
      if (!left) setKnown({ address, bytes: sent.ok ? sent.value.bytes : null });
    }, WEIGH_AFTER_MS);
    return () => {
      left = true;
      clearTimeout(later);
    };
  }, [address]);
  if (address === null) return null;
  return known?.address === address ? known.bytes : 'weighing';
}
