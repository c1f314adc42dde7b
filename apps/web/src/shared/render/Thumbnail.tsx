import type { SetDocument } from '@fendrix/contract';
import Box from '@mui/material/Box';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { surround } from '../theme';
import { SmallPicture } from './SmallPicture';

/** Pixels across; a picture has the sides of its sensor, its place those of 3 to 2. */
export const THUMBNAIL_WIDTH = 72;

/** The picture of such a place, kept. */
export const ThumbnailPicture = ({ set, samples }: { set: SetDocument; samples: number }) => (
  <SmallPicture set={set} width={THUMBNAIL_WIDTH} samples={samples} levelled={false} kept label="" />
);

/** A place for a small picture beside its words: what it holds is worked out and made when it is first looked at. */
export function ThumbnailPlace({
  width = THUMBNAIL_WIDTH,
  children,
}: {
  width?: number | undefined;
  children: ReactNode;
}) {
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
    <Box
      ref={place}
      sx={{ width, aspectRatio: '3 / 2', flex: 'none', overflow: 'hidden', bgcolor: surround.page }}
    >
      {seen && children}
    </Box>
  );
}
