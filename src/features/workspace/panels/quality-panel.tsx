import { limitsOf } from '../../../core/brief/limits';
import { BRIEF_DEFAULTS, type Brief } from '../../../core/brief/brief';
import { about } from '../../../core/brief/sentence';
import { QUALITY_KEYS, QUALITY_STEPS, type QualityKey, stepSettings } from '../../../core/catalogue/quality';
import { resolveSize, scaleSize } from '../../../core/output/size';
import { NumberField } from '../../../ui/number-field';
import { forecastOf } from '../../../core/forecast/forecast-of';
import type { PanelContext } from '../view';
import { Costs } from './costs';
import { DeadlineOffers } from './deadline-offers';
import { GrainChart } from './grain-chart';
import { KeptList } from './kept-list';
import { SetAside } from './set-aside';
import { StopSentence } from './stop-sentence';

const {
  diffuse_bounces,
  specular_bounces,
  transmission_bounces,
  transparent_bounces,
  minutes,
  filter_px,
  emissive_lights
} = BRIEF_DEFAULTS.quality;
/** A step as it was made, with no limits of one's own. */
const plainStep = (key: QualityKey) => ({
  ...stepSettings(key),
  diffuse_bounces,
  specular_bounces,
  transmission_bounces,
  transparent_bounces,
  minutes,
  filter_px,
  emissive_lights
});
const isPlain = (quality: Brief['quality']) =>
  Object.entries(plainStep(quality.step)).every(([key, value]) => quality[key as keyof Brief['quality']] === value);

export function QualityPanel(props: PanelContext) {
  const { forecast, proofs, soFar, onTry } = props;
  const running = proofs.find((p) => p.state === 'running') ?? null;
  const ended = proofs.find((p) => p.ended_at_ms !== null) ?? null;
  const { brief, was, onChange } = props;
  const { quality } = brief;
  const sheet = resolveSize(brief.size);
  const set = (part: Partial<Brief['quality']>) => onChange({ quality: { ...quality, ...part } });
  const whole = (value: number | null) => (value === null ? null : Math.round(value));
  return (
    <>
      <span className="lab">What is the picture for?</span>
      <div className="list" role="group" aria-label="Quality">
        {QUALITY_KEYS.map((key) => {
          const { name, note, scale } = QUALITY_STEPS[key];
          const { width_px, height_px } = scaleSize(sheet, scale);
          const seconds =
            forecast.of(forecastOf({ ...brief, quality: { ...quality, ...stepSettings(key) } }))?.seconds ?? null;
          return (
            <button
              key={key}
              type="button"
              aria-pressed={quality.step === key}
              onClick={() => set({ step: key, ...stepSettings(key) })}
            >
              <span className="two" style={{ padding: '5px 0' }}>
                {name}
                <span>{note}</span>
              </span>
              <span className="n">
                {width_px} × {height_px}
                {seconds === null ? null : (
                  <>
                    <br />
                    about {about(seconds)}
                  </>
                )}
              </span>
            </button>
          );
        })}
      </div>
      {was && was.quality.step !== quality.step ? (
        <p className="note">The proof on the stage was rendered at {QUALITY_STEPS[was.quality.step].name}.</p>
      ) : null}
      <StopSentence
        brief={brief}
        forecast={running ? forecast.of(forecastOf(running.brief)) : forecast.now}
        running={running}
        ended={ended}
      />
      <GrainChart brief={brief} forecast={forecast} soFar={soFar} />
      <SetAside
        brief={brief}
        heaviest={props.workspace.revision.report.heaviest ?? []}
        triangles={props.workspace.revision.report.triangles}
        onSet={set}
      />
      <Costs {...props} onTry={onTry} />
      <DeadlineOffers
        project={props.workspace.project.id}
        brief={brief}
        forecast={forecast}
        onTake={(next) => set(next.quality)}
      />
      <div className="sec">
        <div className="row">
          <span className="lab">All settings</span>
          {isPlain(quality) ? null : (
            <button type="button" className="lk act" onClick={() => set(plainStep(quality.step))}>
              As {QUALITY_STEPS[quality.step].name} is
            </button>
          )}
        </div>
        <div className="rows">
          <span>Samples per pixel{quality.grain === null ? '' : ', at most'}</span>
          <NumberField
            label="Samples per pixel"
            value={quality.samples}
            {...limitsOf('quality.samples')}
            onChange={(samples) => set({ samples: Math.round(samples) })}
          />
          <span>Share of each side</span>
          <NumberField
            label="Share of each side"
            value={quality.scale * 100}
            min={1}
            max={100}
            unit="%"
            onChange={(percent) => set({ scale: percent / 100 })}
          />
          <span>Bounces</span>
          <NumberField
            label="Bounces"
            value={quality.bounces}
            {...limitsOf('quality.bounces')}
            onChange={(bounces) => set({ bounces: Math.round(bounces) })}
          />
          <span>Ends after</span>
          <NumberField
            label="Ends after"
            value={quality.minutes ?? null}
            none="no limit"
            {...limitsOf('quality.minutes')}
            digits={1}
            unit="min"
            onChange={(minutes) => set({ minutes })}
          />
          <span>Denoise after rendering</span>
          <input
            type="checkbox"
            className="toggle toggle-sm"
            aria-label="Denoise after rendering"
            checked={brief.finish.denoise > 0}
            onChange={(e) => onChange({ finish: { ...brief.finish, denoise: e.target.checked ? 1 : 0 } })}
          />
          {brief.finish.denoise > 0 ? (
            <>
              <span>Denoise while rendering</span>
              <input
                type="checkbox"
                className="toggle toggle-sm"
                aria-label="Denoise while rendering"
                title="The render pauses to denoise each time it has four times the samples"
                checked={brief.finish.denoise_meanwhile ?? false}
                onChange={(e) => onChange({ finish: { ...brief.finish, denoise_meanwhile: e.target.checked } })}
              />
            </>
          ) : null}
          <span>Stop below a grain of</span>
          <NumberField
            label="Grain"
            value={quality.grain}
            none="no target"
            {...limitsOf('quality.grain')}
            digits={2}
            unit="L*"
            onChange={(grain) => set({ grain })}
          />
          {quality.grain === null ? null : (
            <>
              <span>after at least</span>
              <NumberField
                label="Least samples"
                value={quality.min_samples}
                {...limitsOf('quality.min_samples')}
                unit="samples"
                onChange={(min_samples) => set({ min_samples: Math.round(min_samples) })}
              />
            </>
          )}
        </div>
        <details className="more">
          <summary>Further limits</summary>
          <div className="rows">
            <span>Diffuse bounces</span>
            <NumberField
              label="Diffuse bounces"
              value={quality.diffuse_bounces ?? null}
              none="any"
              {...limitsOf('quality.diffuse_bounces')}
              onChange={(value) => set({ diffuse_bounces: whole(value) })}
            />
            <span>Specular bounces</span>
            <NumberField
              label="Specular bounces"
              value={quality.specular_bounces ?? null}
              none="any"
              {...limitsOf('quality.specular_bounces')}
              onChange={(value) => set({ specular_bounces: whole(value) })}
            />
            <span>Transmission bounces</span>
            <NumberField
              label="Transmission bounces"
              value={quality.transmission_bounces ?? null}
              none="any"
              {...limitsOf('quality.transmission_bounces')}
              onChange={(value) => set({ transmission_bounces: whole(value) })}
            />
            <span>Transparent layers</span>
            <NumberField
              label="Transparent layers"
              value={quality.transparent_bounces ?? 256}
              {...limitsOf('quality.transparent_bounces')}
              onChange={(value) => set({ transparent_bounces: Math.round(value) })}
            />
            <span>Pixel filter radius</span>
            <NumberField
              label="Pixel filter"
              value={quality.filter_px ?? 1.5}
              {...limitsOf('quality.filter_px')}
              digits={1}
              unit="px"
              onChange={(filter_px) => set({ filter_px })}
            />
            <span>Limit for bright specks (× white)</span>
            <NumberField
              label="Firefly limit"
              value={quality.firefly}
              none="never"
              {...limitsOf('quality.firefly')}
              digits={1}
              onChange={(firefly) => set({ firefly })}
            />
            <span>Emissive materials light the scene</span>
            <input
              type="checkbox"
              className="toggle toggle-sm"
              aria-label="Emissive materials light the scene"
              checked={quality.emissive_lights ?? true}
              onChange={(e) => set({ emissive_lights: e.target.checked })}
            />
            <span>Light layers in EXR</span>
            <input
              type="checkbox"
              className="toggle toggle-sm"
              aria-label="Add the light of each lamp to the EXR"
              checked={quality.layers ?? false}
              onChange={(e) => set({ layers: e.target.checked })}
            />
            <span>Masks and depth in EXR</span>
            <input
              type="checkbox"
              className="toggle toggle-sm"
              aria-label="Add masks, depth and light passes to the EXR"
              checked={quality.aovs ?? false}
              onChange={(e) => set({ aovs: e.target.checked })}
            />
          </div>
        </details>
        <KeptList
          {...props}
          kind="step"
          title="Saved quality steps, in all projects"
          asks="name for the quality that is set now"
        />
      </div>
    </>
  );
}
