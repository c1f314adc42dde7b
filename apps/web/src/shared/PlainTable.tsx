import Box from '@mui/material/Box';
import type { ReactNode } from 'react';

/** Rows of figures and words that are read, with a line under each. */
export function PlainTable({ name, children }: { name: string; children: ReactNode }) {
  return (
    <Box
      component="table"
      data-testid={name}
      sx={{
        borderCollapse: 'collapse',
        width: '100%',
        fontSize: '0.8125rem',
        '& th, & td': {
          textAlign: 'left',
          py: 0.5,
          pr: 1.5,
          verticalAlign: 'top',
          borderBottom: 1,
          borderColor: 'divider',
        },
      }}
    >
      {children}
    </Box>
  );
}
