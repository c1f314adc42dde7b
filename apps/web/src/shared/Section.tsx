import Box from '@mui/material/Box';
import type { ReactNode } from 'react';

/** A titled part of a page, with what can be done to it at the right. */
export function Section({
  title,
  action,
  children,
}: {
  title: string;
  action?: ReactNode;
  children: ReactNode;
}) {
  return (
    <Box component="section" aria-label={title} sx={{ mb: 3, breakInside: 'avoid' }}>
      <Box sx={{ display: 'flex', alignItems: 'center', minHeight: 32, mb: 0.5 }}>
        <Box component="h2" sx={{ m: 0, flex: 1, fontSize: '0.9375rem', fontWeight: 650 }}>
          {title}
        </Box>
        <Box sx={{ '@media print': { display: 'none' } }}>{action}</Box>
      </Box>
      {children}
    </Box>
  );
}
