import { Button } from '@mui/material';
import { useRef } from 'react';

interface FileButtonProps {
  label: string;
  accept: string;
  onFile: (file: File) => void;
}

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
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          if (file) onFile(file);
          // The same file may be chosen again.
          event.target.value = '';
        }}
      />
    </>
  );
}
