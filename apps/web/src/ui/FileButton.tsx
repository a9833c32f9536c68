import { Button } from '@mui/material';
import { useRef, type ChangeEvent } from 'react';

interface FileButtonProps {
  label: string;
  accept: string;
  onFile: (file: File) => void;
}

/** Hands on the one file that was chosen; the same may be chosen again. */
export const takeFile =
  (onFile: (file: File) => void) => (event: ChangeEvent<HTMLInputElement>) => {
    const [file] = event.target.files ?? [];
    if (file) onFile(file);
    event.target.value = '';
  };

/** A button that asks for one file. */
export function FileButton({ label, accept, onFile }: FileButtonProps) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button size="small" variant="outlined" onClick={() => input.current?.click()}>
        {label}
      </Button>
      <input
        ref={input}
        type="file"
        accept={accept}
        aria-label={label}
        hidden
        onChange={takeFile(onFile)}
      />
    </>
  );
}
