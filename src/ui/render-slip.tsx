/** The one filled button of a screen: an ink slip, with a perforated stub when there is something to tell. */
import type { ReactNode } from 'react';

interface Props {
  label: string;
  stub?: ReactNode;
  disabled?: boolean;
  onPress?: () => void;
}

export function RenderSlip({ label, stub, disabled, onPress }: Props) {
  return (
    <button
      type="button"
      className={`render${stub ? '' : ' solo'}${disabled ? ' dis' : ''}`}
      aria-disabled={disabled || undefined}
      onClick={disabled ? undefined : onPress}
    >
      <span className="slip">
        <span className="a">{label}</span>
        {stub ? <span className="b n">{stub}</span> : null}
      </span>
    </button>
  );
}
