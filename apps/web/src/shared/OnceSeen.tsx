import Box from '@mui/material/Box';
import { type ReactNode, useEffect, useRef, useState } from 'react';

/** A place for a picture that is made when it is first looked at. */
export function OnceSeen({ width, children }: { width: number; children: ReactNode }) {
  const place = useRef<HTMLDivElement>(null);
  const [seen, setSeen] = useState(false);
  useEffect(() => {
    const element = place.current;
    if (seen || !element || typeof IntersectionObserver === 'undefined') return;
    const observer = new IntersectionObserver(([entry]) => entry?.isIntersecting && setSeen(true));
    observer.observe(element);
    return () => observer.disconnect();
  }, [seen]);
  return (
    <Box ref={place} sx={{ width, aspectRatio: '3 / 2', flex: 'none', bgcolor: '#4a4a4a' }}>
      {seen && children}
    </Box>
  );
}
