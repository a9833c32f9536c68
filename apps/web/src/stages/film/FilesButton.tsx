import { Button } from '@mui/material';
import { useRef } from 'react';

interface FilesButtonProps {
  label: string;
  inputLabel: string;
  onFiles: (files: File[]) => void;
}

/** Chooses video files. */
export function FilesButton({ label, inputLabel, onFiles }: FilesButtonProps) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button variant="contained" onClick={() => input.current?.click()}>
        {label}
      </Button>
      <input
        ref={input}
        type="file"
        accept="video/*,.mp4,.mov,.mkv,.webm"
        multiple
        hidden
        aria-label={inputLabel}
        onChange={() => {
          const files = [...(input.current?.files ?? [])];
          // The same file can be chosen again.
          if (input.current) input.current.value = '';
          onFiles(files);
        }}
      />
    </>
  );
}
