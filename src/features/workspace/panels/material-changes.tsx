/** A material changed in words: colour, shine, metal, clearness, relief, light, pattern. Its swatch follows. */
import { useEffect, useState } from 'react';
import { encodeSrgb } from '../../../core/color/srgb';
import { byRule } from '../../../core/scene/assign-materials';
import { implausible, type MaterialChange, NO_CHANGE } from '../../../core/scene/change-material';
import { libraryColor, libraryMaterial } from '../../../core/scene/material-library';
import { MATERIAL_DEFAULTS } from '../../../core/scene/scene';
import { NumberField } from '../../../ui/number-field';
import { Words } from '../../../ui/words';
import { limitsOf } from '../../../core/brief/limits';
import { type Rule, swatchUrl } from '../assigning';
import { MATERIALS_COPY as COPY } from '../copy';
import { Level } from './level';

interface Props {
  rule: Rule | null;
  /** The material that it changes. */
  of: { model: string; name: string };
  /** Of the file. */
  glows: boolean;
  onSet: (change: MaterialChange | null, joins: boolean) => void;
}

const SHARES = [0, 0.25, 0.5, 0.75, 1].map((value) => ({ value, strong: value === 0.5 }));
const TIMES = [0, 1, 2, 3, 4, 5].map((value) => ({ value, strong: value === 1 }));
const AXES = (['x', 'y', 'z'] as const).map((key) => ({ key, label: COPY.axes[key] }));
// a drag asks for many swatches: the one of its end is rendered
const SWATCH_AFTER_MS = 250;

const hexOf = (linear: readonly number[]): string =>
  `#${linear
    .slice(0, 3)
    .map((v) =>
      Math.round(255 * encodeSrgb(Math.min(1, Math.max(0, v))))
        .toString(16)
        .padStart(2, '0')
    )
    .join('')}`;

export function MaterialChanges({ rule, of, glows, onSet }: Props) {
  const change = rule?.change ?? NO_CHANGE;
  const set = (part: Partial<MaterialChange>, joins = false) => {
    const next = { ...change, ...part };
    const same = (Object.keys(NO_CHANGE) as (keyof MaterialChange)[]).every((key) => next[key] === NO_CHANGE[key]);
    onSet(same ? null : next, joins);
  };
  const base = { ...MATERIAL_DEFAULTS, ...(rule?.becomes ? libraryMaterial(rule.becomes)?.material : {}) };
  const now = rule ? byRule(MATERIAL_DEFAULTS, rule, { textures: [] }) : MATERIAL_DEFAULTS;
  const ofFile = !rule?.becomes;
  const pattern = base.solid_texture;
  const clear = now.transmission > 0;
  const faults = rule && (!ofFile || rule.change) ? implausible(ofFile ? knownOf(now, change) : now) : [];
  const level = (key: 'shine' | 'metal' | 'clear' | 'brushed' | 'variation', from: number) => (
    <Level
      name={COPY.changes[key]}
      label={COPY.changes[key]}
      value={change[key] ?? from}
      range={[0, 1, 0.01]}
      ticks={SHARES}
      text={change[key] === null ? COPY.unchanged : `${Math.round(100 * change[key])}\u00a0%`}
      onChange={(v, joins) => set({ [key]: Math.round(v * 100) / 100 }, joins)}
    />
  );
  const coat = base.layers && base.layers.coat > 0 ? base.layers.coatRoughness : base.roughness;
  return (
    <>
      <LiveSwatch rule={rule} of={of} />
      <div className="row">
        <span className="lab">{COPY.changes.color}</span>
        <input
          type="color"
          aria-label={COPY.changes.color}
          value={change.color ?? hexOf(libraryColor(base))}
          onChange={(e) => set({ color: e.target.value }, true)}
        />
        <button type="button" className="lk act" disabled={change.color === null} onClick={() => set({ color: null })}>
          {COPY.unchanged}
        </button>
      </div>
      {level('shine', ofFile ? 0.5 : 1 - coat)}
      {level('metal', base.metallic)}
      {level('brushed', base.layers?.anisotropy ?? 0)}
      {(change.brushed ?? base.layers?.anisotropy ?? 0) > 0 ? (
        <Level
          name={COPY.changes.brushed_deg}
          label={COPY.changes.brushed_deg}
          value={change.brushed_deg}
          range={[-90, 90, 1]}
          ticks={[-90, -45, 0, 45, 90].map((value) => ({ value, strong: value === 0 }))}
          text={`${change.brushed_deg}°`}
          onChange={(v, joins) => set({ brushed_deg: Math.round(v) }, joins)}
        />
      ) : null}
      {level('clear', base.transmission)}
      {clear ? (
        <div className="row">
          <span className="lab">{COPY.changes.tint}</span>
          <input
            type="color"
            aria-label={COPY.changes.tint}
            value={change.tint ?? hexOf(base.attenuationColor)}
            onChange={(e) => set({ tint: e.target.value }, true)}
          />
          <NumberField
            label={COPY.changes.tint_cm}
            unit="cm"
            digits={2}
            {...limitsOf('materials.change.tint_cm')}
            value={change.tint_cm}
            onChange={(tint_cm) => set({ tint_cm, tint: change.tint ?? hexOf(base.attenuationColor) })}
          />
        </div>
      ) : null}
      <Level
        name={COPY.changes.relief}
        label={COPY.changes.relief}
        value={change.relief ?? 1}
        range={[0, 5, 0.05]}
        ticks={TIMES}
        text={`${change.relief ?? 1} ×`}
        onChange={(v, joins) => set({ relief: Math.round(v * 20) / 20 }, joins)}
      />
      {pattern ? (
        <>
          <div className="row">
            <span className="lab">{COPY.changes.pattern_cm}</span>
            <NumberField
              label={COPY.changes.pattern_cm}
              unit="cm"
              digits={2}
              {...limitsOf('materials.change.pattern_cm')}
              value={change.pattern_cm ?? Math.round(pattern.size_m * 1e4) / 100}
              onChange={(pattern_cm) => set({ pattern_cm })}
            />
          </div>
          <div className="row">
            <span className="lab">{COPY.changes.pattern_along}</span>
            <Words
              label={COPY.changes.pattern_along}
              value={change.pattern_along ?? pattern.axis}
              options={AXES}
              onChoose={(pattern_along) => set({ pattern_along })}
            />
          </div>
        </>
      ) : null}
      {level('variation', pattern?.variation ?? 0)}
      <div className="row">
        <span className="lab">{COPY.changes.glow_nits}</span>
        <NumberField
          label={COPY.changes.glow_nits}
          unit="cd/m²"
          none={glows ? COPY.asInFile : COPY.noGlow}
          {...limitsOf('materials.change.glow_nits')}
          value={change.glow_nits}
          onChange={(glow_nits: number | null) => set({ glow_nits })}
        />
      </div>
      {faults.map((fault) => (
        <p key={fault} className="note warn" role="status">
          {fault}
        </p>
      ))}
      <button type="button" className="lk act" disabled={rule?.change == null} onClick={() => onSet(null, false)}>
        {COPY.undoChanges}
      </button>
    </>
  );
}

/** Of a material of the file only what was changed is known here. */
const knownOf = (now: ReturnType<typeof byRule>, change: MaterialChange) => ({
  ...now,
  ...(change.color === null ? { baseColor: [0.5, 0.5, 0.5, 1] as [number, number, number, number] } : {})
});

/** As it is now. */
function LiveSwatch({ rule, of }: Pick<Props, 'rule' | 'of'>) {
  const url = swatchUrl(rule, of);
  const [shown, setShown] = useState(url);
  useEffect(() => {
    const later = setTimeout(() => setShown(url), SWATCH_AFTER_MS);
    return () => clearTimeout(later);
  }, [url]);
  // of a rule for many names there may be none
  const [missing, setMissing] = useState<string | null>(null);
  return shown && shown !== missing ? (
    <img src={shown} alt={COPY.swatch} width={168} height={126} className="swatch" onError={() => setMissing(shown)} />
  ) : null;
}
