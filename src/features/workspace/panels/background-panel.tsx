/** What is seen where nothing stands, and what the model stands on. */
import type { PanelContext } from '../view';
import { BackgroundControls } from './background-controls';
import { GroundControls } from './ground-controls';

type Props = Pick<PanelContext, 'workspace' | 'brief' | 'was' | 'onChange' | 'onMessage' | 'onWorkspace'>;

export function BackgroundPanel(props: Props) {
  const { workspace, brief, was, onChange } = props;
  const inStudio = brief.surroundings.kind === 'studio';
  return (
    <>
      <BackgroundControls {...props} papered={inStudio && brief.ground.kind === 'none'} />
      <GroundControls
        ground={brief.ground}
        before={was?.ground ?? null}
        footM={workspace.revision.report.min_m[1]}
        studio={inStudio}
        onChange={(ground, joins) => onChange({ ground }, joins)}
      />
    </>
  );
}
