import Box from '@mui/material/Box';
import Popover from '@mui/material/Popover';
import { type ReactNode, useId, useState } from 'react';
import { Row } from './Row';

interface ExplainedProps {
  label: ReactNode;
  value: string;
  /** The formula with the numbers in it, and what would change it. */
  children: ReactNode;
}

/** A computed number that explains itself when it is pressed. */
export function Explained({ label, value, children }: ExplainedProps) {
  const id = useId();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <Row label={label} labelId={`${id}-label`}>
      <button
        type="button"
        id={id}
        aria-labelledby={`${id}-label ${id}`}
        className="number"
        onClick={(event) => setAnchor(event.currentTarget)}
        aria-haspopup="dialog"
      >
        {value}
      </button>
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
    </Row>
  );
}
