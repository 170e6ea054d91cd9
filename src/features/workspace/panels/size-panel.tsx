import { FILE_KIND_NAMES, FILE_KINDS } from '../../../core/catalogue/file-kinds';
import { PAPER_FAMILIES, PAPERS, type Paper } from '../../../core/catalogue/papers';
import type { SizeChoice } from '../../../core/catalogue/size-choice';
import { editSize, orientationOf } from '../../../core/output/edit-size';
import { proofPixels } from '../../../core/output/size';
import { aspectOf, inProportion, sameAspect, widened } from '../../../core/output/fit-frame';
import { Words } from '../../../ui/words';
import type { PanelContext } from '../view';
import { useWorkspaceStore } from '../workspace-store';
import { DestinationList } from './destination-list';
import { ForecastFigures } from './forecast-figures';
import { SharpnessControls } from './sharpness-controls';
import { type SheetUnit, SizeFields } from './size-fields';
import { TimeChart } from './time-chart';

const paperText = (paper: Paper, unit: SheetUnit) => {
  const k = unit === 'in' ? 25.4 : unit === 'cm' ? 10 : 1;
  const of = (mm: number) => (mm / k).toFixed(unit === 'mm' && Number.isInteger(mm) ? 0 : 1);
  return `${paper} ${of(PAPERS[paper][0])} × ${of(PAPERS[paper][1])} ${unit}`;
};

const ORIENTATIONS = [
  { key: 'landscape', label: 'Landscape', width: 18, height: 12.5 },
  { key: 'portrait', label: 'Portrait', width: 12, height: 17.5 }
] as const;

export function SizePanel(props: PanelContext) {
  const { brief, was, view, forecast, proofs } = props;
  const unit = useWorkspaceStore((s) => s.sheetUnit);
  const before = useWorkspaceStore((s) => s.frameBefore);
  const choose = useWorkspaceStore((s) => s.set);
  // bytes a pixel of the newest proof's picture, by kind of file
  const measured = proofs.find((p) => p.file_bytes)?.file_bytes ?? null;
  const { size, seen } = brief;
  /** A narrower sheet shows all that was seen: the view widens with it. */
  const onChange: typeof props.onChange = (part, joins = false) => {
    if (!part.size) return props.onChange(part, joins);
    const [from, to] = [aspectOf(size), aspectOf(part.size)];
    if (sameAspect(from, to)) return props.onChange(part, joins);
    const first = before ?? { aspect: from, view };
    choose({ frameBefore: sameAspect(first.aspect, to) ? null : first });
    const next = widened(first.view, first.aspect, to);
    props.onChange({ ...part, ...(next === view ? {} : { viewpoint: next }) }, joins);
  };
  const set = (next: SizeChoice, joins = false) => onChange({ size: next }, joins);
  const pixels = proofPixels({ ...brief, patch: null });
  const perPixel = measured?.[seen.file];
  const file =
    perPixel === undefined
      ? null
      : { name: FILE_KIND_NAMES[seen.file], bytes: perPixel * pixels.width * pixels.height };
  const orientation = orientationOf(size);
  const isWider = before !== null && view.focal_length_mm < before.view.focal_length_mm;
  return (
    <>
      <DestinationList {...props} onChange={onChange} />
      <div className="sec row" style={{ alignItems: 'end' }}>
        <label style={{ flex: 1 }}>
          <span className="lab">Paper</span>
          <span className="fld">
            <select
              className="grow"
              aria-label="Paper"
              value={'paper' in size ? size.paper : ''}
              onChange={(e) => e.target.value && set(editSize(size, { paper: e.target.value as Paper }, true))}
            >
              {'paper' in size ? null : <option value="">{'ppi' in size ? 'own sheet' : 'none, a screen'}</option>}
              {PAPER_FAMILIES.map(({ name, papers }) => (
                <optgroup key={name} label={name}>
                  {papers.map((paper) => (
                    <option key={paper} value={paper}>
                      {paperText(paper, unit)}
                    </option>
                  ))}
                </optgroup>
              ))}
            </select>
          </span>
        </label>
        <div>
          <span className="lab">Orientation</span>
          <div className="ori" role="radiogroup" aria-label="Orientation">
            {ORIENTATIONS.map(({ key, label, width, height }) => (
              <label key={key}>
                <input
                  type="radio"
                  name="orientation"
                  checked={key === orientation}
                  onChange={() => set(editSize(size, { turn: key }, true))}
                  aria-label={label}
                />
                <svg width={width + 2} height={height + 2} aria-hidden="true">
                  <rect x=".5" y=".5" width={width} height={height} />
                </svg>
              </label>
            ))}
          </div>
        </div>
      </div>
      {before ? (
        <p className="say" role="status">
          {isWider
            ? 'The view was widened, so that nothing is cut off; the hairline is the frame before. '
            : 'More is seen at the sides now; the hairline is the frame before. '}
          {isWider ? (
            <button type="button" className="lk act" onClick={() => props.onChange({ viewpoint: before.view })}>
              Keep the lens and crop the sides
            </button>
          ) : null}{' '}
          <button
            type="button"
            className="lk act"
            onClick={() => {
              choose({ frameBefore: null });
              props.onChange({ size: inProportion(size, before.aspect), viewpoint: before.view });
            }}
          >
            Crop the sheet to the picture instead
          </button>
        </p>
      ) : null}
      {'ppi' in size ? (
        <SharpnessControls
          size={size}
          seen={seen}
          wasPpi={was && 'ppi' in was.size ? was.size.ppi : null}
          onSize={set}
          onDistance={(distance_m) => props.onChange({ seen: { ...seen, distance_m } })}
        />
      ) : null}
      <SizeFields
        size={size}
        unit={unit}
        onUnit={(sheetUnit) => choose({ sheetUnit })}
        onSize={set}
        bleed_mm={brief.bleed_mm}
        onBleed={(bleed_mm) => props.onChange({ bleed_mm })}
      />
      <div className="sec row">
        <span className="lab">File</span>
        <Words
          label="File"
          value={seen.file}
          options={FILE_KINDS.map((key) => ({ key, label: FILE_KIND_NAMES[key] }))}
          onChoose={(file) => props.onChange({ seen: { ...seen, file } })}
        />
      </div>
      <div className="sec">
        <ForecastFigures forecast={forecast} file={file} />
        {forecast.now ? <TimeChart brief={brief} forecast={forecast} onSize={set} /> : null}
      </div>
    </>
  );
}
