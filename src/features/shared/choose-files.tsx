/** A button that opens the browser's dialog for files. */
import { useRef } from 'react';

interface Props {
  /** Of the field that the files go into, for those who do not see the button. */
  label: string;
  button: string;
  disabled?: boolean;
  onFiles: (files: File[]) => void;
}

export function ChooseFiles({ label, button, disabled = false, onFiles }: Props) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        className="vh"
        type="file"
        multiple
        tabIndex={-1}
        aria-label={label}
        onChange={(e) => {
          const files = [...(e.target.files ?? [])];
          if (files.length > 0) onFiles(files);
          // the same files may be chosen again
          e.target.value = '';
        }}
      />
      <button type="button" className="lk act" disabled={disabled} onClick={() => input.current?.click()}>
        {button}
      </button>
    </>
  );
}
