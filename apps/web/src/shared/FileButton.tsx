import Button, { type ButtonProps } from '@mui/material/Button';
import { useRef } from 'react';

interface FileButtonProps extends Pick<ButtonProps, 'size' | 'disabled'> {
  words: string;
  /** What is asked for, said where the words alone do not. */
  label: string;
  /** Endings and types, as file fields take them. */
  accept: string;
  multiple?: boolean;
  onFiles(files: File[]): void;
}

/** A button that asks for files. */
export function FileButton({ words, label, accept, multiple = false, onFiles, ...button }: FileButtonProps) {
  const field = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button {...button} onClick={() => field.current?.click()}>
        {words}
      </Button>
      <input
        ref={field}
        type="file"
        accept={accept}
        multiple={multiple}
        hidden
        aria-label={label}
        onChange={(event) => {
          const files = [...(event.target.files ?? [])];
          event.target.value = '';
          if (files.length > 0) onFiles(files);
        }}
      />
    </>
  );
}
