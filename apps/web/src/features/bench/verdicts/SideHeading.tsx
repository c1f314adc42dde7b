import Box from '@mui/material/Box';
import type { ReactNode } from 'react';

/** Heading of a part of the side. */
export const SideHeading = ({ children }: { children: ReactNode }) => (
  <Box component="h2" sx={{ m: 0, mb: 0.25, fontSize: '0.8125rem', fontWeight: 650 }}>
    {children}
  </Box>
);
