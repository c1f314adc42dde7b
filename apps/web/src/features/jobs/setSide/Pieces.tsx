import type { JobProduct, Shot } from '@fendrix/contract';
import { minutesLeft } from '@fendrix/core';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect, useState } from 'react';
import { useDayAtHand } from '../day/dayAtHand';

/** A clock of minutes is looked at so often, ms. */
const LOOK_MS = 5000;
/** With so little left a fresh piece is got ready, minutes. */
const SOON_MIN = 2;

/** Clocks of what does not last under the lights, of one picture. */
export function Pieces({ shot }: { shot: Shot }) {
  const { job } = useDayAtHand();
  const lasting = job.products.filter(
    ({ id, minutesOnSet }) => minutesOnSet !== undefined && shot.products.includes(id),
  );
  if (lasting.length === 0) return null;
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1, mt: 1 }}>
      {lasting.map((product) => (
        <Piece key={product.id} product={product} />
      ))}
    </Box>
  );
}

function Piece({ product }: { product: JobProduct }) {
  const { act } = useDayAtHand();
  const left = minutesLeft(product, useNow());
  const { id, name, spares, usedUp, freshAt } = product;
  const others = spares - usedUp;
  const fresh = () =>
    act({
      kind: 'piece',
      product: id,
      // What stood there is used up.
      usedUp: usedUp + (freshAt === undefined ? 0 : 1),
      freshAt: new Date().toISOString(),
    });
  return (
    <Alert
      icon={false}
      role={left !== null && left <= 0 ? 'alert' : 'note'}
      severity={left !== null && left <= 0 ? 'error' : left !== null && left <= SOON_MIN ? 'warning' : 'info'}
      sx={{ fontSize: 'clamp(18px, 3.2vmin, 28px)', alignItems: 'center' }}
      action={
        <Button
          variant="outlined"
          color="inherit"
          size="large"
          disabled={freshAt !== undefined && others <= 0}
          onClick={fresh}
        >
          {freshAt === undefined ? 'Under lights now' : 'A fresh one'}
        </Button>
      }
    >
      {name}: {clockWords(left, product.minutesOnSet as number)}{' '}
      {others > 0 ? `${others} more at hand.` : 'No other is at hand.'}
    </Alert>
  );
}

function clockWords(left: number | null, lasts: number): string {
  if (left === null) return `lasts ${lasts} min.`;
  if (left <= 0) return `over since ${Math.floor(-left)} min.`;
  return left < 1 ? 'less than a minute left.' : `${Math.floor(left)} min left.`;
}

/** The time, looked at again and again, ms since 1970. */
function useNow(): number {
  const [now, setNow] = useState(Date.now);
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), LOOK_MS);
    return () => clearInterval(timer);
  }, []);
  return now;
}
