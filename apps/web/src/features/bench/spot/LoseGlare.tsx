import { formatLength, type WayOut } from '@fendrix/core';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useState } from 'react';
import { takeSolved } from '../band/useBandPlacing';
import { useSession } from '../picture/useSession';
import { useBench, useBenchDispatch } from '../state/hooks';
import { edit } from '../state/thunks';

/** Ways to take what the spot mirrors away from it, each measured before it is offered. */
export function LoseGlare() {
  const pick = useBench((bench) => bench.pick);
  const at = useBench((bench) => bench.pickAt);
  const { session } = useSession();
  const [ways, setWays] = useState<WayOut[] | 'working' | null>(null);
  const thing = pick?.mirrored;
  if (!at || !thing || (thing.kind !== 'light' && thing.kind !== 'sheet')) return null;
  async function find([across, down]: [number, number]) {
    setWays('working');
    const found = await session?.ask({ kind: 'loseGlare', across, down }).catch(() => null);
    setWays(found ?? []);
  }
  return (
    <>
      <Button size="small" variant="outlined" onClick={() => void find(at)}>
        Lose this
      </Button>
      {ways && <WaysDialog thing={thing.key} ways={ways} onClose={() => setWays(null)} />}
    </>
  );
}

function WaysDialog({
  thing,
  ways,
  onClose,
}: {
  thing: string;
  ways: WayOut[] | 'working';
  onClose(): void;
}) {
  const dispatch = useBenchDispatch();
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth aria-labelledby="lose-title">
      <DialogTitle id="lose-title">Lose the image of {thing} here</DialogTitle>
      <DialogContent>
        {ways === 'working' && <Box role="status">Trying turns, lifts, a black card and films</Box>}
        {ways !== 'working' && ways.length === 0 && (
          <Alert severity="info">
            No small move clears this spot. Turn the product, move the camera, or use a polariser where it is
            glass, lacquer or water.
          </Alert>
        )}
        <Box component="ul" sx={{ m: 0, p: 0, listStyle: 'none' }}>
          {ways !== 'working' &&
            ways.map((way) => (
              <Box
                component="li"
                key={`${way.how} ${way.amount}`}
                sx={{
                  display: 'flex',
                  alignItems: 'center',
                  gap: 2,
                  py: 0.75,
                  borderBottom: 1,
                  borderColor: 'divider',
                }}
              >
                <Box sx={{ flex: 1, fontSize: '0.875rem' }}>
                  <Box sx={{ fontWeight: 600 }}>{wayInWords(way, thing)}</Box>
                  <Box sx={{ color: 'text.secondary' }}>{afterInWords(way, thing)}</Box>
                </Box>
                <Button
                  variant="outlined"
                  size="small"
                  onClick={() => {
                    dispatch(edit(takeSolved(way.set)));
                    onClose();
                  }}
                >
                  Do it
                </Button>
              </Box>
            ))}
        </Box>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}

function wayInWords({ how, amount }: WayOut, thing: string): string {
  switch (how) {
    case 'turn':
      return `Turn ${thing} ${Math.abs(Number(amount)).toFixed(1)}° round the product, towards camera ${Number(amount) > 0 ? 'right' : 'left'} at its front`;
    case 'lift':
      return `${Number(amount) > 0 ? 'Lift' : 'Lower'} ${thing} by ${formatLength(Math.abs(Number(amount)))}`;
    case 'flag':
      return `Put a small black card (${amount}) in the way of the mirrored light`;
    case 'polarise':
      return `Polarising film on ${thing}, and the filter on the lens turned across it`;
    case 'off':
      return `Switch ${thing} off`;
  }
}

function afterInWords({ how, amount, mirrors, inFrame, set }: WayOut, thing: string): string {
  if (how === 'off') return 'Its light goes from everything else too.';
  if (how === 'polarise') {
    const light = set.lights.find(({ tag }) => tag === thing);
    const film = (light && 'polarised' in light && light.polarised?.lossStops) || 0;
    const filter = set.camera.polariser?.lossStops ?? 0;
    const left = Math.round(1000 * Number(amount)) / 10;
    return `${left} % of its image stays, wherever it is mirrored but in metal. ${thing} loses ${(film + filter).toFixed(1)} stops, all other light ${filter.toFixed(1)}.`;
  }
  const then = `The spot then mirrors ${mirrors ? mirrors.name : 'the dark'}.`;
  return inFrame ? `${then} It comes into the picture itself.` : then;
}
