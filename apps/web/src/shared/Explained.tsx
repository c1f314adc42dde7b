import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import Popover from '@mui/material/Popover';
import { type ReactNode, useState } from 'react';

interface ExplainedProps {
  label: ReactNode;
  value: string;
  /** The formula with the numbers in it, and what would change it. */
  children: ReactNode;
}

/** A computed number that explains itself when it is pressed. */
export function Explained({ label, value, children }: ExplainedProps) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <Box
      sx={{ display: 'flex', alignItems: 'center', minHeight: 27, borderBottom: 1, borderColor: 'divider' }}
    >
      <Box sx={{ flex: 1, color: 'text.secondary', fontSize: '0.8125rem' }}>{label}</Box>
      <ButtonBase
        onClick={(event) => setAnchor(event.currentTarget)}
        aria-haspopup="dialog"
        className="number"
        sx={{ textDecoration: 'underline dotted', textUnderlineOffset: 3 }}
      >
        {value}
      </ButtonBase>
      {/* Only where it is open: a closed one costs as much at every step of a drag. */}
      {anchor && (
        <Popover
          open
          anchorEl={anchor}
          onClose={() => setAnchor(null)}
          anchorOrigin={{ vertical: 'bottom', horizontal: 'right' }}
          transformOrigin={{ vertical: 'top', horizontal: 'right' }}
        >
          <Box sx={{ p: 1.5, maxWidth: 300, fontSize: '0.8125rem', lineHeight: 1.45 }}>{children}</Box>
        </Popover>
      )}
    </Box>
  );
}
