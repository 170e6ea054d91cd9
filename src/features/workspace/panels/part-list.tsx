/** The model's tree: opened part by part, or searched by name. */
import { useEffect, useRef, useState } from 'react';
import type { Brief } from '../../../core/brief/brief';
import type { ModelPart } from '../../../core/scene/model-part';
import { POSE_COPY as COPY } from '../copy';
import { partsAbove, treeRows } from '../part-tree';

interface Props {
  parts: readonly ModelPart[];
  whole: ModelPart;
  pose: Brief['pose'];
  /** Path; null for none. */
  chosen: string | null;
  onChoose: (path: string) => void;
  asking: boolean;
  onPick: () => void;
}

const MOST_ROWS = 120;
/** A list of this many parts or fewer needs no search. */
const FEW = 8;

export function PartList({ parts, whole, pose, chosen, onChoose, asking, onPick }: Props) {
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set());
  const [search, setSearch] = useState('');
  const list = useRef<HTMLUListElement>(null);
  // what is picked on the stage is shown in the list
  useEffect(() => {
    if (chosen === null) return;
    const above = partsAbove(parts, chosen);
    if (above.length > 0) setOpened((before) => new Set([...before, ...above]));
  }, [chosen, parts]);
  useEffect(() => {
    if (chosen === null) return;
    list.current?.querySelector('[aria-pressed="true"]')?.scrollIntoView({ block: 'nearest' });
  }, [chosen, opened]);
  const rows = [...(search === '' ? [{ part: whole, opens: false }] : []), ...treeRows(parts, opened, search)];
  const posed = new Set(pose.map((p) => p.part));
  const toggle = (path: string) =>
    setOpened((before) => new Set(before.has(path) ? [...before].filter((p) => p !== path) : [...before, path]));
  return (
    <div className="sec first">
      <div className="row">
        {parts.length > FEW ? (
          <label className="fld" style={{ flex: 1 }}>
            <input
              type="search"
              aria-label={COPY.search}
              placeholder={COPY.search}
              value={search}
              onChange={(e) => setSearch(e.target.value)}
            />
          </label>
        ) : null}
        <button type="button" className="lk act" aria-pressed={asking} onClick={onPick}>
          {COPY.pick}
        </button>
      </div>
      <ul className="tree parts" ref={list}>
        {rows.slice(0, MOST_ROWS).map(({ part, opens }) => (
          <li key={part.path} style={{ paddingLeft: search === '' ? 14 * part.depth : 0 }}>
            {opens && search === '' ? (
              <button
                type="button"
                className="open"
                aria-expanded={opened.has(part.path)}
                aria-label={COPY.open(part.name)}
                onClick={() => toggle(part.path)}
              >
                {opened.has(part.path) ? '−' : '+'}
              </button>
            ) : (
              <span className="open" />
            )}
            <button
              type="button"
              className={posed.has(part.path) ? 'name posed' : 'name'}
              title={posed.has(part.path) ? COPY.posed : part.path || part.name}
              aria-pressed={part.path === chosen}
              onClick={() => onChoose(part.path)}
            >
              {part.name}
            </button>
            <span className="n">{part.triangles.toLocaleString('en')}</span>
          </li>
        ))}
      </ul>
      {rows.length > MOST_ROWS ? <p className="note">{COPY.more(rows.length - MOST_ROWS)}</p> : null}
      {rows.length === 0 ? <p className="note">{COPY.none(search)}</p> : null}
    </div>
  );
}
