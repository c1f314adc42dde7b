import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';
import { Link, NavLink } from 'react-router';
import { SchemeSwitch } from './SchemeSwitch';

const PLACES = [
  ['/jobs', 'Jobs'],
  ['/sets', 'Sets'],
  ['/kit', 'Kit'],
  ['/kit-tables', 'Kit tables'],
  ['/room', 'Room'],
  ['/log', 'Log'],
  ['/backups', 'Backups'],
] as const;

/** A paper-like page for lists and texts. */
export function Page({
  title,
  wide = false,
  places,
  file,
  children,
}: {
  title: string;
  wide?: boolean;
  /** Places within this one, under the header. */
  places?: ReactNode;
  /** Undo and save state of what is open. */
  file?: ReactNode;
  children: ReactNode;
}) {
  return (
    <Box sx={{ minHeight: '100vh', bgcolor: 'background.default' }}>
      <Box
        component="header"
        sx={{
          '@media print': { display: 'none' },
          display: 'flex',
          alignItems: 'center',
          flexWrap: { xs: 'wrap', md: 'nowrap' },
          px: 3,
          minHeight: 44,
          borderBottom: 1,
          borderColor: 'divider',
        }}
      >
        <Box
          component={Link}
          to="/jobs"
          sx={{ color: 'text.primary', fontWeight: 650, textDecoration: 'none', mr: { xs: 'auto', md: 0 } }}
        >
          Fendrix
        </Box>
        <Box
          component="nav"
          aria-label="Places"
          sx={{
            display: 'flex',
            flexWrap: 'wrap',
            columnGap: 2,
            ml: { md: 4 },
            // On a narrow page the places have a row of their own.
            order: { xs: 1, md: 0 },
            flex: { xs: '1 0 100%', md: 1 },
            minWidth: 0,
            whiteSpace: 'nowrap',
          }}
        >
          {PLACES.map(([to, name]) => (
            <Box
              key={to}
              component={NavLink}
              to={to}
              sx={{
                color: 'text.secondary',
                textDecoration: 'none',
                fontSize: '0.875rem',
                py: 0.25,
                '&.active': { color: 'text.primary', fontWeight: 650 },
              }}
            >
              {name}
            </Box>
          ))}
        </Box>
        {file}
        <SchemeSwitch />
      </Box>
      {places}
      <Box component="main" sx={{ maxWidth: wide ? 1200 : 880, mx: 'auto', px: 3, py: places ? 2 : 4 }}>
        <Typography variant="h1" sx={{ mb: 2 }}>
          {title}
        </Typography>
        {children}
      </Box>
    </Box>
  );
}
