/** Exposure and white balance. */
import type { PanelContext } from '../view';
import { ExposureControls } from './exposure-controls';
import { WhiteControls } from './white-controls';

type Props = Pick<
  PanelContext,
  'brief' | 'was' | 'view' | 'reading' | 'picking' | 'onPicking' | 'onChange' | 'onMessage'
>;

export function ExposurePanel({ brief, was, view, reading, picking, onPicking, onChange, onMessage }: Props) {
  return (
    <>
      <ExposureControls brief={brief} view={view} reading={reading} onChange={onChange} />
      <WhiteControls
        finish={brief.finish}
        before={was?.finish ?? null}
        picking={picking}
        onPicking={onPicking}
        onChange={onChange}
        onMessage={onMessage}
      />
    </>
  );
}
