import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { SchemeSwitch } from './SchemeSwitch';

/** A paper-like page for lists and texts. */
export function Page({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box sx={{ minHeight: '100vh', bgcolor: 'background.default' }}>
      <Box
        component="header"
        sx={{
          display: 'flex',
          alignItems: 'center',
          px: 3,
          height: 44,
          borderBottom: 1,
          borderColor: 'divider',
        }}
      >
        <Box
          component={Link}
          to="/sets"
          sx={{ color: 'text.primary', fontWeight: 650, textDecoration: 'none' }}
        >
          Fendrix
        </Box>
        <Box sx={{ flex: 1 }} />
        <SchemeSwitch />
      </Box>
      <Box component="main" sx={{ maxWidth: 880, mx: 'auto', px: 3, py: 4 }}>
        <Typography variant="h1" sx={{ mb: 2 }}>
          {title}
        </Typography>
        {children}
      </Box>
    </Box>
  );
}
