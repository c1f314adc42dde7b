import Box from '@mui/material/Box';
import { useEffect, useRef, useState } from 'react';

/** Takes files that are let go anywhere over the page; says what will happen while they hover. */
export function DropFiles({ words, onFiles }: { words: string; onFiles(files: File[]): void }) {
  const [hovers, setHovers] = useState(false);
  const take = useRef(onFiles);
  take.current = onFiles;
  useEffect(() => {
    const holdsFiles = (event: DragEvent) => event.dataTransfer?.types.includes('Files') === true;
    const over = (event: DragEvent) => {
      if (!holdsFiles(event)) return;
      event.preventDefault();
      setHovers(true);
    };
    const leave = (event: DragEvent) => {
      // Out of the window, not from one element to the next.
      if (event.relatedTarget === null) setHovers(false);
    };
    const drop = (event: DragEvent) => {
      if (!holdsFiles(event)) return;
      event.preventDefault();
      setHovers(false);
      const files = [...(event.dataTransfer?.files ?? [])];
      if (files.length > 0) take.current(files);
    };
    window.addEventListener('dragover', over);
    window.addEventListener('dragleave', leave);
    window.addEventListener('drop', drop);
    return () => {
      window.removeEventListener('dragover', over);
      window.removeEventListener('dragleave', leave);
      window.removeEventListener('drop', drop);
    };
  }, []);
  if (!hovers) return null;
  return (
    <Box
      role="status"
      sx={{
        position: 'fixed',
        inset: 12,
        zIndex: 'tooltip',
        display: 'grid',
        placeItems: 'center',
        border: '2px dashed',
        borderColor: 'primary.main',
        bgcolor: 'background.paper',
        opacity: 0.92,
        color: 'text.primary',
        fontSize: '1rem',
        pointerEvents: 'none',
      }}
    >
      {words}
    </Box>
  );
}
