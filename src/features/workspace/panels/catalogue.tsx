/**
 * The panels: what each is called, and what it shows. An entry here makes a panel that can be opened; panels of the
 * brief are also named in `BRIEF_PANELS`, whose order gives them their keys.
 */
import type { ComponentType } from 'react';
import { ErrorBoundary } from '../../../ui/error-boundary';
import { FILES_COPY, PANEL_COPY, POSE_COPY } from '../copy';
import { FINISH_COPY } from '../finish/copy';
import type { PanelContext, PanelName } from '../view';
import { BackgroundPanel } from './background-panel';
import { ExposurePanel } from './exposure-panel';
import { FilesPanel } from './files-panel';
import { FinishPanel } from './finish-panel';
import { KeysPanel } from './keys-panel';
import { LampsPanel } from './lamps-panel';
import { LensPanel } from './lens-panel';
import { LookPanel } from './look-panel';
import { ModelPanel } from './model-panel';
import { Panel } from './panel';
import { PosePanel } from './pose-panel';
import { QualityPanel } from './quality-panel';
import { SizePanel } from './size-panel';
import { StagePanel } from './stage-panel';
import { SurroundingsPanel } from './surroundings-panel';
import { ViewpointPanel } from './viewpoint-panel';

export const PANELS: Record<PanelName, { title: string; component: ComponentType<PanelContext> }> = {
  viewpoint: { title: 'Viewpoint', component: ViewpointPanel },
  lens: { title: 'Lens and focus', component: LensPanel },
  pose: { title: POSE_COPY.title, component: PosePanel },
  surroundings: { title: 'Surroundings', component: SurroundingsPanel },
  lamps: { title: 'Lamps', component: LampsPanel },
  look: { title: 'Look', component: LookPanel },
  exposure: { title: 'Exposure and white balance', component: ExposurePanel },
  background: { title: 'Background and ground', component: BackgroundPanel },
  size: { title: 'Size', component: SizePanel },
  quality: { title: 'Quality', component: QualityPanel },
  finish: { title: FINISH_COPY.title, component: FinishPanel },
  model: { title: 'Model', component: ModelPanel },
  stage: { title: 'Stage', component: StagePanel },
  files: { title: FILES_COPY.title, component: FilesPanel },
  keys: { title: 'Keys', component: KeysPanel }
};

export const isPanelName = (text: string): text is PanelName => Object.hasOwn(PANELS, text);

export function OpenedPanel({
  name,
  context,
  onClose
}: {
  name: PanelName;
  context: PanelContext;
  onClose: () => void;
}) {
  const { title, component: Contents } = PANELS[name];
  return (
    <Panel name={name} title={title} onClose={onClose}>
      <ErrorBoundary
        fallback={(retry) => (
          <p className="say" role="alert">
            {PANEL_COPY.failed}{' '}
            <button type="button" className="lk act" onClick={retry}>
              {PANEL_COPY.retry}
            </button>
          </p>
        )}
      >
        <Contents {...context} />
      </ErrorBoundary>
    </Panel>
  );
}
