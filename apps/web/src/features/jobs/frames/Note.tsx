import Box from '@mui/material/Box';
import type { ReactNode } from 'react';

/** How figures above it came about. */
export const Note = ({ children }: { children: ReactNode }) => (
  <Box sx={{ color: 'text.secondary', fontSize: '0.75rem', my: 0.5 }}>{children}</Box>
);
