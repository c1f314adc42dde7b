import Box from '@mui/material/Box';
import { frameUrl } from './frameUrl';

/** The small picture of a frame within a button that names it; one that was put aside is faint. */
export function FrameThumbnail({ id, faint = false }: { id: string; faint?: boolean }) {
  return (
    <Box
      component="img"
      src={frameUrl(id, 'small')}
      alt=""
      loading="lazy"
      sx={{
        display: 'block',
        width: '100%',
        aspectRatio: '3 / 2',
        objectFit: 'contain',
        bgcolor: 'action.hover',
        opacity: faint ? 0.35 : 1,
      }}
    />
  );
}
