/** The materials of the file, each as it is, of the library or changed; suggestions from their names, taken by one press. */
import { useState } from 'react';
import type { KeptDto } from '../../../contracts/dto';
import { nameOfPath } from '../../../core/scene/part-paths';
import { libraryMaterial } from '../../../core/scene/material-library';
import { KeepForm } from '../../../ui/keep-form';
import { SeenImage } from '../../../ui/seen-image';
import { Words } from '../../../ui/words';
import { send } from '../../shared/send';
import { everywhere, PLAIN_RULE, type Rule, ruleOf, suggestionsFor, swatchUrl, withMaterial } from '../assigning';
import { MATERIALS_COPY as COPY } from '../copy';
import type { PanelContext } from '../view';
import { useWorkspaceStore } from '../workspace-store';
import { MaterialChanges } from './material-changes';
import { MaterialLibrary } from './material-library';
import { MaterialPictures } from './material-pictures';
import { MaterialRules } from './material-rules';

type Side = 'library' | 'change' | 'pictures';
const SIDES = (['library', 'change', 'pictures'] as const).map((key) => ({ key, label: COPY.sides[key] }));

export function MaterialList(context: PanelContext) {
  const { workspace, brief, picking, onPicking, onChange, onMessage, onWorkspace } = context;
  const { materials: names, glowing } = workspace.revision.report;
  const rules = brief.materials;
  const model = workspace.revision.glb_sha256;
  const { materialInHand: inHand, set } = useWorkspaceStore((state) => state);
  const [side, setSide] = useState<Side>('library');
  const own = [...new Set(names)];
  const suggestions = suggestionsFor(own, glowing, rules);
  const asking = picking?.asks === 'material';
  const give = (part: Partial<Rule> | null, joins = false) =>
    inHand && onChange({ materials: withMaterial(rules, inHand, part) }, joins);
  const pick = () =>
    onPicking(
      asking
        ? null
        : {
            asks: 'material',
            says: COPY.pickSays,
            onMaterial: (material, part) => {
              onPicking(null);
              set({ materialInHand: { material, part: null }, materialPart: part });
            }
          }
    );
  const keep = async (name: string) => {
    const rule = inHand && ruleOf(rules, inHand);
    if (!rule) return false;
    const kept = { ...brief, materials: [{ ...rule, part: null }] };
    const sent = await send<KeptDto>('POST', `/api/projects/${workspace.project.id}/kept`, {
      kind: 'material',
      name,
      brief: kept
    });
    if (sent.ok) onWorkspace((w) => ({ ...w, kept: [...w.kept, sent.value] }));
    else onMessage(sent.message);
    return sent.ok;
  };
  const rule = inHand && ruleOf(rules, inHand);
  return (
    <>
      <div className="sec">
        <div className="row">
          <span className="lab">{COPY.title}</span>
          <button type="button" className="lk act" aria-pressed={asking} onClick={pick}>
            {COPY.pick}
          </button>
        </div>
        {suggestions.length > 0 ? (
          <button
            type="button"
            className="lk act"
            title={suggestions.map((s) => COPY.suggests(s.material, s.name)).join('\n')}
            onClick={() =>
              onChange({
                materials: [
                  ...rules,
                  ...suggestions.map(({ material, becomes }) => ({ ...PLAIN_RULE, material, becomes }))
                ]
              })
            }
          >
            {COPY.takeAll(suggestions.length)}
          </button>
        ) : null}
        <ul className="tree worn">
          {own.map((name) => {
            const worn = ruleOf(rules, everywhere(name));
            const swatch = swatchUrl(worn, { model, name });
            const ofParts = rules.filter(
              (r) => r.part !== null && ruleOf([r], { material: name, part: r.part })
            ).length;
            return (
              <li key={name}>
                {swatch ? <SeenImage src={swatch} /> : null}
                <button
                  type="button"
                  className="name"
                  aria-pressed={name === inHand?.material}
                  onClick={() =>
                    set({ materialInHand: name === inHand?.material ? null : everywhere(name), materialPart: null })
                  }
                >
                  {name}
                </button>
                <span className="n">
                  {wornAs(worn)}
                  {ofParts > 0 ? COPY.ofParts(ofParts) : ''}
                </span>
              </li>
            );
          })}
        </ul>
      </div>
      {inHand ? (
        <div className="sec part">
          <div className="row">
            <b>{inHand.material}</b>
            <button type="button" className="lk act" disabled={rule === null} onClick={() => give(null)}>
              {COPY.back}
            </button>
          </div>
          <Scope />
          <Words label={COPY.sidesOf(inHand.material)} value={side} options={SIDES} onChoose={setSide} />
          {side === 'library' ? (
            <MaterialLibrary
              key={inHand.material}
              inHand={inHand}
              rules={rules}
              suggested={suggestions.find((s) => s.material === inHand.material)?.becomes ?? null}
              kept={workspace.kept}
              onTake={(taken) => give(taken)}
              onWorkspace={onWorkspace}
              onMessage={onMessage}
            />
          ) : side === 'change' ? (
            <MaterialChanges
              of={{ model, name: inHand.material }}
              key={`${inHand.material} ${inHand.part ?? ''}`}
              rule={rule}
              glows={glowing.includes(inHand.material)}
              onSet={(change, joins) => give({ change }, joins)}
            />
          ) : (
            <MaterialPictures
              texture={rule?.texture ?? null}
              pictures={workspace.backdrops}
              onSet={(texture, joins) => give({ texture }, joins)}
              onWorkspace={onWorkspace}
              onMessage={onMessage}
            />
          )}
          {rule ? <KeepForm label={COPY.keep} placeholder={COPY.keep} onKeep={keep} /> : null}
        </div>
      ) : null}
      <MaterialRules
        workspace={workspace}
        rules={rules}
        names={own}
        onPicking={onPicking}
        onChange={onChange}
        onMessage={onMessage}
      />
    </>
  );
}

/** Everywhere, or on the part that was pressed alone. */
function Scope() {
  const { materialInHand: inHand, materialPart: pressed, set } = useWorkspaceStore((state) => state);
  if (!inHand || pressed === null) return null;
  return (
    <Words
      label={COPY.scope}
      value={inHand.part === null ? 'all' : 'part'}
      options={[
        { key: 'all', label: COPY.allLikeThis },
        { key: 'part', label: COPY.onlyPart(nameOfPath(pressed)) }
      ]}
      onChoose={(scope) => set({ materialInHand: { ...inHand, part: scope === 'part' ? pressed : null } })}
    />
  );
}

function wornAs(rule: Rule | null): string {
  if (!rule) return COPY.asInFile;
  const name = rule.becomes === null ? null : (libraryMaterial(rule.becomes)?.name ?? rule.becomes);
  const changed = rule.change !== null || rule.texture !== null;
  return name === null ? COPY.fileChanged : changed ? COPY.changed(name) : name;
}
