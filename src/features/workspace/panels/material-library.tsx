/** The library's materials by kind or by name, one's own and those used last; taken by a press, or dragged onto the stage. */
import { useDraggable } from '@dnd-kit/core';
import { useState } from 'react';
import type { KeptDto } from '../../../contracts/dto';
import {
  libraryMaterial,
  MATERIAL_FAMILIES,
  MATERIAL_LIBRARY,
  type MaterialFamily
} from '../../../core/scene/material-library';
import { Words } from '../../../ui/words';
import { type MaterialInHand, type Rule, ruleOf, swatchUrl } from '../assigning';
import { MATERIALS_COPY as COPY } from '../copy';
import { lastUsed, noteUsed } from '../last-used';
import type { PanelContext } from '../view';
import { ItemRow } from './item-row';

type Taken = Pick<Rule, 'becomes' | 'change' | 'texture'>;
interface Props extends Pick<PanelContext, 'onWorkspace' | 'onMessage'> {
  inHand: MaterialInHand;
  rules: readonly Rule[];
  /** Key of the material that the name suggests. */
  suggested: string | null;
  kept: readonly KeptDto[];
  onTake: (taken: Taken) => void;
}

type Group = MaterialFamily | 'used' | 'own';

export function MaterialLibrary({ inHand, rules, suggested, kept, onTake, onWorkspace, onMessage }: Props) {
  const worn = ruleOf(rules, inHand);
  const used = lastUsed();
  const own = kept.filter((k) => k.kind === 'material');
  const begins = libraryMaterial(worn?.becomes ?? suggested ?? '')?.family ?? 'wood';
  const [group, setGroup] = useState<Group>(begins);
  const [search, setSearch] = useState('');
  const text = search.trim().toLowerCase();
  const groups: { key: Group; label: string }[] = [
    ...(used.length > 0 ? [{ key: 'used' as const, label: COPY.used }] : []),
    ...(own.length > 0 ? [{ key: 'own' as const, label: COPY.own }] : []),
    ...(Object.keys(MATERIAL_FAMILIES) as MaterialFamily[]).map((key) => ({ key, label: MATERIAL_FAMILIES[key] }))
  ];
  const shown = MATERIAL_LIBRARY.filter((entry) =>
    text !== ''
      ? `${entry.name} ${MATERIAL_FAMILIES[entry.family]}`.toLowerCase().includes(text)
      : group === 'used'
        ? used.includes(entry.key)
        : entry.family === group
  );
  const ownShown = own.filter((k) => (text === '' ? group === 'own' : k.name.toLowerCase().includes(text)));
  const take = (key: string) => {
    noteUsed(key);
    onTake({ becomes: key, change: null, texture: null });
  };
  return (
    <>
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
        <Words label={COPY.families} value={group} options={groups} onChoose={setGroup} />
      ) : shown.length + ownShown.length === 0 ? (
        <p className="note">{COPY.none(search.trim())}</p>
      ) : null}
      {ownShown.map(({ id, name, part }) => {
        const rule = part.materials?.[0];
        const swatch = rule ? swatchUrl(rule) : null;
        return rule ? (
          <ItemRow key={id} kind="part" id={id} name={name} onWorkspace={onWorkspace} onMessage={onMessage}>
            <button
              type="button"
              onClick={() => onTake({ becomes: rule.becomes, change: rule.change, texture: rule.texture })}
            >
              {swatch ? <img src={swatch} alt="" loading="lazy" width={56} height={42} /> : null}
              {name}
            </button>
          </ItemRow>
        ) : null;
      })}
      <div className="list two-up" role="group" aria-label={COPY.library}>
        {shown.map(({ key, name }) => (
          <Swatch key={key} id={key} name={name} pressed={worn?.becomes === key} onTake={() => take(key)} />
        ))}
      </div>
      <p className="note">{COPY.dragSays}</p>
    </>
  );
}

function Swatch({ id, name, pressed, onTake }: { id: string; name: string; pressed: boolean; onTake: () => void }) {
  const { setNodeRef, listeners, isDragging } = useDraggable({ id: `material ${id}`, data: { material: id } });
  return (
    <button
      ref={setNodeRef}
      type="button"
      aria-pressed={pressed}
      onClick={onTake}
      style={isDragging ? { opacity: 0.4 } : undefined}
      {...listeners}
    >
      <img src={`/api/materials/${id}`} alt="" loading="lazy" width={84} height={63} draggable={false} />
      <span>{name}</span>
    </button>
  );
}
