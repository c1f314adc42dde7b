import type { AnyMaterial } from '@fendrix/contract';
import Box from '@mui/material/Box';
import { useEffect, useRef, useState } from 'react';
import { SmallPicture } from '../render/SmallPicture';
import { swatchSet } from './swatchSet';

/** Pixels across a swatch. */
const WIDTH = 72;
const SAMPLES = 32;

/** A small true picture of a material, made when it is first looked at and kept. */
export function Swatch({ material, width = WIDTH }: { material: AnyMaterial; width?: number }) {
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
      {seen && (
        <SmallPicture
          set={swatchSet(material)}
          width={WIDTH}
          samples={SAMPLES}
          levelled={false}
          kept
          label=""
        />
      )}
    </Box>
  );
}
