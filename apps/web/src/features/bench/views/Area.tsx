import Box from '@mui/material/Box';
import type { ReactNode } from 'react';
import { surround } from '../../../shared/theme';

/** A named part of the bench. */
export function Area({ label, sx, children }: { label: string; sx: object; children: ReactNode }) {
  return (
    <Box component="section" aria-label={label} sx={{ minWidth: 0, minHeight: 0, ...sx }}>
      {children}
    </Box>
  );
}

export function Heading({ children }: { children: string }) {
  return (
    <Box
      component="h2"
      sx={{ m: 0, fontSize: '0.8125rem', fontWeight: 650, color: surround.text, whiteSpace: 'nowrap' }}
    >
      {children}
    </Box>
  );
}
