/** The materials of the file, each as it is or as one of the library; suggestions from their names, taken by one press. */
import { useState } from 'react';
import type { Brief } from '../../../core/brief/brief';
import {
  libraryMaterial,
  MATERIAL_FAMILIES,
  MATERIAL_LIBRARY,
  type MaterialFamily
} from '../../../core/scene/material-library';
import { Words } from '../../../ui/words';
import { ruleOf, suggestionsFor, withMaterial } from '../assigning';
import { MATERIALS_COPY as COPY } from '../copy';

interface Props {
  /** Of the file. */
  names: readonly string[];
  glowing: readonly string[];
  rules: Brief['materials'];
  onRules: (rules: Brief['materials']) => void;
}

const FAMILIES = (Object.keys(MATERIAL_FAMILIES) as MaterialFamily[]).map((key) => ({
  key,
  label: MATERIAL_FAMILIES[key]
}));

export function MaterialList({ names, glowing, rules, onRules }: Props) {
  const [chosen, setChosen] = useState<string | null>(null);
  const [family, setFamily] = useState<MaterialFamily>('wood');
  const [search, setSearch] = useState('');
  const own = [...new Set(names)];
  const suggestions = suggestionsFor(own, glowing, rules);
  const open = (name: string) => {
    if (name === chosen) return setChosen(null);
    setChosen(name);
    setSearch('');
    const worn = libraryMaterial(ruleOf(rules, name)?.becomes ?? '');
    const suggested = suggestions.find((s) => s.material === name);
    setFamily((worn ?? libraryMaterial(suggested?.becomes ?? ''))?.family ?? family);
  };
  const text = search.trim().toLowerCase();
  const shown = MATERIAL_LIBRARY.filter((entry) =>
    text === '' ? entry.family === family : entry.name.toLowerCase().includes(text)
  );
  return (
    <div className="sec">
      <div className="row">
        <span className="lab">{COPY.title}</span>
        {suggestions.length > 0 ? (
          <button
            type="button"
            className="lk act"
            title={suggestions.map((s) => COPY.suggests(s.material, s.name)).join('\n')}
            onClick={() => onRules([...rules, ...suggestions.map(({ material, becomes }) => ({ material, becomes }))])}
          >
            {COPY.takeAll(suggestions.length)}
          </button>
        ) : null}
      </div>
      <ul className="tree worn">
        {own.map((name) => {
          const worn = libraryMaterial(ruleOf(rules, name)?.becomes ?? '');
          return (
            <li key={name}>
              {worn ? <img src={`/api/materials/${worn.key}`} alt="" loading="lazy" /> : <span className="none" />}
              <button type="button" className="name" aria-pressed={name === chosen} onClick={() => open(name)}>
                {name}
              </button>
              <span className="n">{worn ? worn.name : COPY.asInFile}</span>
            </li>
          );
        })}
      </ul>
      {chosen !== null ? (
        <div className="part">
          <div className="row">
            <b>{chosen}</b>
            <button
              type="button"
              className="lk act"
              disabled={ruleOf(rules, chosen) === null}
              onClick={() => onRules(withMaterial(rules, chosen, null))}
            >
              {COPY.back}
            </button>
          </div>
          <label className="fld">
            <input
              type="search"
              aria-label={COPY.search}
              placeholder={COPY.search}
              value={search}
              onChange={(e) => setSearch(e.target.value)}
            />
          </label>
          {text === '' ? (
            <Words label={COPY.families} value={family} options={FAMILIES} onChoose={setFamily} />
          ) : shown.length === 0 ? (
            <p className="note">{COPY.none(search.trim())}</p>
          ) : null}
          <div className="list two-up" role="group" aria-label={COPY.library}>
            {shown.map(({ key, name }) => (
              <button
                key={key}
                type="button"
                aria-pressed={ruleOf(rules, chosen)?.becomes === key}
                onClick={() => onRules(withMaterial(rules, chosen, key))}
              >
                <img src={`/api/materials/${key}`} alt="" loading="lazy" width={84} height={63} />
                <span>{name}</span>
              </button>
            ))}
          </div>
        </div>
      ) : null}
    </div>
  );
}
