import { NumberField } from '../../../ui/number-field';
import { Words } from '../../../ui/words';
import { MAX_THREADS } from '../preview/messages';
import { STAGE_COPY as COPY } from '../copy';
import { SHADINGS } from '../raster/model-drawing';
import { GUIDES } from '../use-stage-view';
import type { PanelContext } from '../view';

const DEPTHS = ['machine', 'on', 'off'] as const;

/** How the stage shows the picture while it is made; of no weight for the picture itself. */
export function StagePanel({
  stageView: view,
  onStageView: onChange
}: Pick<PanelContext, 'stageView' | 'onStageView'>) {
  return (
    <>
      <span className="lab">At rest</span>
      <Words
        label="At rest"
        value={view.preview ? 'true' : 'model'}
        options={[
          { key: 'true', label: 'Rendered picture' },
          { key: 'model', label: 'The model' }
        ]}
        onChoose={(key) => onChange({ preview: key === 'true' })}
      />
      <p className="say sec" style={{ border: 0 }}>
        {view.preview
          ? 'When you rest, this browser renders the picture at the size of the stage, with the light ' +
            'and the materials that a proof will have.'
          : 'The stage shows the model only; proofs render as usual.'}
      </p>
      {view.preview ? (
        <div className="rows">
          <span>Threads, at most</span>
          <NumberField
            label="Threads, at most"
            value={view.threads}
            none="all"
            min={1}
            max={MAX_THREADS}
            onChange={(threads) => onChange({ threads: threads === null ? null : Math.round(threads) })}
          />
        </div>
      ) : null}
      <div className="sec" style={{ marginTop: 14 }}>
        <span className="lab">{COPY.moving}</span>
        <Words
          label={COPY.moving}
          value={view.shading}
          options={SHADINGS.map((key) => ({ key, label: COPY.shadings[key] }))}
          onChoose={(shading) => onChange({ shading })}
        />
        {view.shading === 'lines' ? null : (
          <div className="rows">
            <span>{COPY.edges}</span>
            <input
              type="checkbox"
              className="toggle toggle-sm"
              aria-label={COPY.edges}
              checked={view.edges}
              onChange={(e) => onChange({ edges: e.target.checked })}
            />
          </div>
        )}
        {view.shading === 'shaded' || view.shading === 'clay' ? (
          <>
            <span className="lab">{COPY.depth}</span>
            <Words
              label={COPY.depth}
              value={view.depth === null ? 'machine' : view.depth ? 'on' : 'off'}
              options={DEPTHS.map((key) => ({ key, label: COPY.depths[key] }))}
              onChoose={(key) => onChange({ depth: key === 'machine' ? null : key === 'on' })}
            />
            <p className="note">{COPY.depthSays}</p>
          </>
        ) : null}
      </div>
      <div className="sec">
        <span className="lab">{COPY.guides}</span>
        <Words
          label={COPY.guides}
          value={view.guides.lines}
          options={GUIDES.map((key) => ({ key, label: COPY.lines[key] }))}
          onChoose={(lines) => onChange({ guides: { ...view.guides, lines } })}
        />
        <div className="rows">
          <span>{COPY.horizon}</span>
          <input
            type="checkbox"
            className="toggle toggle-sm"
            aria-label={COPY.horizon}
            checked={view.guides.horizon}
            onChange={(e) => onChange({ guides: { ...view.guides, horizon: e.target.checked } })}
          />
        </div>
      </div>
      <p className="note">{COPY.walking}</p>
    </>
  );
}
