import type { Brief } from '../../../core/brief/brief';
import { about } from '../../../core/brief/sentence';
import { QUALITY_KEYS, QUALITY_STEPS } from '../../../core/catalogue/quality';
import { resolveSize, scaleSize } from '../../../core/output/size';
import { NumberField } from '../../../ui/number-field';
import type { ChangeBrief } from '../use-brief';

interface Props {
  brief: Brief;
  was: Brief | null;
  samplesPerSecond: number | null;
  onChange: ChangeBrief;
}

export function QualityPanel({ brief, was, samplesPerSecond, onChange }: Props) {
  const { quality } = brief;
  const sheet = resolveSize(brief.size);
  const set = (part: Partial<Brief['quality']>) => onChange({ quality: { ...quality, ...part } });
  const whole = (value: number | null) => (value === null ? null : Math.round(value));
  return (
    <>
      <span className="lab">What is the picture for?</span>
      <div className="list" role="group" aria-label="Quality">
        {QUALITY_KEYS.map((key) => {
          const { name, note, samples, grain, bounces, scale } = QUALITY_STEPS[key];
          const { width_px, height_px } = scaleSize(sheet, scale);
          const seconds = samplesPerSecond === null ? null : (width_px * height_px * samples) / samplesPerSecond;
          return (
            <button key={key} type="button" aria-pressed={quality.step === key} onClick={() => onChange({ quality: { ...quality, step: key, samples, grain, bounces, scale } })}>
              <span className="two" style={{ padding: '5px 0' }}>
                {name}
                <span>{note}</span>
              </span>
              <span className="n">
                {width_px} × {height_px}
                {seconds === null ? null : (
                  <>
                    <br />
                    {grain === null ? 'about' : 'at most'} {about(seconds)}
                  </>
                )}
              </span>
            </button>
          );
        })}
      </div>
      {was && was.quality.step !== quality.step ? <p className="note">The proof on the stage was rendered at {QUALITY_STEPS[was.quality.step].name}.</p> : null}
      <div className="sec" style={{ marginTop: 14 }}>
        <span className="lab">For those who want the numbers</span>
        <div className="rows">
          <span>Samples a pixel{quality.grain === null ? '' : ', at most'}</span>
          <NumberField label="Samples a pixel" value={quality.samples} min={1} max={65536} onChange={(samples) => set({ samples: Math.round(samples) })} />
          <span>Bounces of light</span>
          <NumberField label="Bounces of light" value={quality.bounces} min={0} max={64} onChange={(bounces) => set({ bounces: Math.round(bounces) })} />
          <span>Ends after</span>
          <NumberField label="Ends after" value={quality.minutes ?? null} none="no limit" min={0.05} max={10_000} digits={1} unit="min" onChange={(minutes) => set({ minutes })} />
          <span>Denoise when it is rendered</span>
          <input type="checkbox" className="toggle toggle-sm" aria-label="Denoise when it is rendered" checked={brief.finish.denoise > 0} onChange={(e) => onChange({ finish: { ...brief.finish, denoise: e.target.checked ? 1 : 0 } })} />
          {brief.finish.denoise > 0 ? (
            <>
              <span>Show it denoised meanwhile</span>
              <input type="checkbox" className="toggle toggle-sm" aria-label="Show it denoised meanwhile" title="Each time that the samples have grown fourfold the render pauses to be denoised" checked={brief.finish.denoise_meanwhile ?? false} onChange={(e) => onChange({ finish: { ...brief.finish, denoise_meanwhile: e.target.checked } })} />
            </>
          ) : null}
          {quality.grain === null ? null : (
            <>
              <span>Done at a raw grain of</span>
              <NumberField label="Grain" value={quality.grain} min={0.01} max={20} digits={2} unit="L*" onChange={(grain) => set({ grain })} />
            </>
          )}
        </div>
        <details className="more">
          <summary>Further limits</summary>
          <div className="rows">
            <span>Bounces from matte things</span>
            <NumberField label="Bounces from matte things" value={quality.diffuse ?? null} none="any" min={0} max={64} onChange={(diffuse) => set({ diffuse: whole(diffuse) })} />
            <span>Bounces from gloss</span>
            <NumberField label="Bounces from gloss" value={quality.gloss ?? null} none="any" min={0} max={64} onChange={(gloss) => set({ gloss: whole(gloss) })} />
            <span>Bounces in glass</span>
            <NumberField label="Bounces in glass" value={quality.glass ?? null} none="any" min={0} max={64} onChange={(glass) => set({ glass: whole(glass) })} />
            <span>Sheer surfaces passed</span>
            <NumberField label="Sheer surfaces passed" value={quality.passes ?? 256} min={0} max={1024} onChange={(passes) => set({ passes: Math.round(passes) })} />
            <span>Pixel filter reaches</span>
            <NumberField label="Pixel filter" value={quality.filter_px ?? 1.5} min={0.5} max={4} digits={1} unit="px" onChange={(filter_px) => set({ filter_px })} />
            <span>Brightest path, in whites</span>
            <NumberField label="Firefly limit" value={quality.firefly} none="never" min={0.1} max={1e6} digits={1} onChange={(firefly) => set({ firefly })} />
            <span>Glow lights the scene</span>
            <input type="checkbox" className="toggle toggle-sm" aria-label="Glowing things light the scene" checked={quality.glow ?? true} onChange={(e) => set({ glow: e.target.checked })} />
            <span>Light layers in EXR</span>
            <input type="checkbox" className="toggle toggle-sm" aria-label="Keep each lamp’s share, for EXR" checked={quality.layers ?? false} onChange={(e) => set({ layers: e.target.checked })} />
            <span>Masks and depth in EXR</span>
            <input type="checkbox" className="toggle toggle-sm" aria-label="Keep masks, depth and light by its way, for EXR" checked={quality.aids ?? false} onChange={(e) => set({ aids: e.target.checked })} />
          </div>
        </details>
      </div>
    </>
  );
}
