/** The rules of a picture as a whole: for all pictures, as a file, by patterns of names, and those that no longer meet any. */
import { useRef, useState } from 'react';
import { BRIEF_VERSION, type Brief } from '../../../core/brief/brief';
import { rulesWithoutPart } from '../../../core/scene/follow-part';
import { isMeant } from '../../../core/scene/material-rule';
import { nameOfPath } from '../../../core/scene/part-paths';
import { PLACED_ROOT } from '../../../core/scene/place-models';
import { send } from '../../shared/send';
import { everywhere, PLAIN_RULE } from '../assigning';
import { MATERIALS_COPY as COPY, POSE_COPY } from '../copy';
import { useModelParts } from '../use-model-parts';
import type { PanelContext } from '../view';
import { useWorkspaceStore } from '../workspace-store';

type Props = Pick<PanelContext, 'workspace' | 'onChange' | 'onMessage' | 'onPicking'> & {
  rules: Brief['materials'];
  /** Of the materials of the file. */
  names: readonly string[];
};

export function MaterialRules({ workspace, rules, names, onChange, onMessage, onPicking }: Props) {
  const { project } = workspace;
  const input = useRef<HTMLInputElement>(null);
  const [done, setDone] = useState<string | null>(null);
  const [pattern, setPattern] = useState('');
  const { set } = useWorkspaceStore((state) => state);
  const needsParts = rules.some(({ part }) => part !== null);
  const parts = useModelParts(workspace.revision.glb_sha256, needsParts);
  const there = parts === null || parts === 'failed' ? null : new Set(parts.map(({ path }) => path));
  const homeless = there === null ? [] : rulesWithoutPart(rules, there);
  const lost = rules.filter((rule) => homeless.includes(rule) || !names.some((name) => isMeant(rule.material, name)));
  /** What lost its part is for the part that is pressed. */
  const pointAt = (rule: Brief['materials'][number]) =>
    onPicking({
      asks: 'part',
      says: POSE_COPY.pointAtSays(nameOfPath(rule.part!)),
      onPart: (part) => {
        onPicking(null);
        if (part.startsWith(PLACED_ROOT)) return;
        const others = rules.filter((r) => r !== rule && !(r.material === rule.material && r.part === part));
        onChange({ materials: [...others, { ...rule, part }] });
      }
    });
  const toAll = async () => {
    const sent = await send<{ pictures: number }>('PUT', `/api/projects/${project.id}/materials`, { materials: rules });
    if (sent.ok) setDone(COPY.toAllDone(sent.value.pictures));
    else onMessage(sent.message);
  };
  const save = () => {
    const file = new Blob([`${JSON.stringify({ version: BRIEF_VERSION, materials: rules }, null, 2)}\n`], {
      type: 'application/json'
    });
    const link = document.createElement('a');
    link.href = URL.createObjectURL(file);
    link.download = `${project.name} materials.json`;
    link.click();
    URL.revokeObjectURL(link.href);
  };
  const read = async (file: File) => {
    const content: unknown = await file
      .text()
      .then((text) => JSON.parse(text) as unknown)
      .catch(() => null);
    if (content === null || typeof content !== 'object') return onMessage(COPY.notRules(file.name));
    const sent = await send<Brief['materials']>('POST', '/api/materials', content);
    if (!sent.ok) return onMessage(sent.message);
    onMessage(null);
    onChange({ materials: sent.value });
  };
  return (
    <div className="sec">
      <div className="row">
        <span className="lab">{COPY.rules}</span>
        <span className="n small">{rules.length > 0 ? COPY.rulesCount(rules.length) : COPY.noPicture}</span>
      </div>
      <form
        className="row"
        onSubmit={(e) => {
          e.preventDefault();
          const material = pattern.trim();
          if (!material) return;
          if (!rules.some((r) => r.material === material))
            onChange({ materials: [...rules, { ...PLAIN_RULE, material, becomes: 'paint-white' }] });
          set({ materialInHand: everywhere(material), materialPart: null });
          setPattern('');
        }}
      >
        <span className="fld" style={{ flex: 1 }}>
          <input
            aria-label={COPY.patternLabel}
            placeholder={`${COPY.pattern}: Oak*`}
            value={pattern}
            maxLength={200}
            onChange={(e) => setPattern(e.target.value)}
          />
        </span>
        <button type="submit" className="lk act" aria-disabled={!pattern.trim()}>
          {COPY.patternAdd}
        </button>
      </form>
      <div className="acts">
        <button type="button" className="lk act" onClick={() => void toAll()}>
          {COPY.toAll}
        </button>
        <button type="button" className="lk act" disabled={rules.length === 0} onClick={save}>
          {COPY.saveRules}
        </button>
        <input
          ref={input}
          className="vh"
          type="file"
          accept=".json,application/json"
          aria-label={COPY.readRulesLabel}
          onChange={(e) => {
            const file = e.target.files?.[0];
            e.target.value = '';
            if (file) void read(file);
          }}
        />
        <button type="button" className="lk act" onClick={() => input.current?.click()}>
          {COPY.readRules}
        </button>
      </div>
      {done ? (
        <p className="note" role="status">
          {done}
        </p>
      ) : null}
      {lost.length > 0 ? (
        <>
          <span className="lab">{COPY.lost}</span>
          {lost.map((rule) => (
            <div key={`${rule.material} ${rule.part ?? ''}`} className="row">
              <span title={rule.part ?? undefined}>
                {rule.part === null ? rule.material : COPY.onPart(rule.material, nameOfPath(rule.part))}
              </span>
              {homeless.includes(rule) ? (
                <button type="button" className="lk act" onClick={() => pointAt(rule)}>
                  {POSE_COPY.pointAt}
                </button>
              ) : null}
              <button
                type="button"
                className="lk act"
                onClick={() => onChange({ materials: rules.filter((r) => r !== rule) })}
              >
                {COPY.forget}
              </button>
            </div>
          ))}
        </>
      ) : null}
    </div>
  );
}
