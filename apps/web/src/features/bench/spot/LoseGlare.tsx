import { formatLength, type WayOut } from '@fendrix/core';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import LinearProgress from '@mui/material/LinearProgress';
import { useSession } from '../picture/useSession';
import { useBench, useBenchDispatch } from '../state/hooks';
import { takeChange, useAnswer } from '../state/useAnswer';

/** Ways to take what the spot mirrors away from it, each measured before it is offered. */
export function LoseGlare() {
  const pick = useBench((bench) => bench.pick);
  const at = useBench((bench) => bench.pickAt);
  const session = useSession();
  const { answer, busy, ask, drop } = useAnswer<WayOut[]>();
  const thing = pick?.mirrored;
  if (!at || !thing || (thing.kind !== 'light' && thing.kind !== 'sheet')) return null;
  const find = ([across, down]: [number, number]) =>
    ask(async (_set, signal) => session?.ask({ kind: 'loseGlare', across, down }, undefined, signal) ?? null);
  return (
    <>
      <Button size="small" variant="outlined" onClick={() => void find(at)}>
        Lose this
      </Button>
      {(busy || answer) && (
        <WaysDialog
          thing={thing.key}
          ways={answer?.found ?? null}
          old={answer?.old ?? false}
          onClose={drop}
        />
      )}
    </>
  );
}

function WaysDialog({
  thing,
  ways,
  old,
  onClose,
}: {
  thing: string;
  /** null while they are being tried. */
  ways: WayOut[] | null;
  /** The set has moved since they were tried. */
  old: boolean;
  onClose(): void;
}) {
  const dispatch = useBenchDispatch();
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth aria-labelledby="lose-title">
      <DialogTitle id="lose-title">Lose the image of {thing} here</DialogTitle>
      <DialogContent>
        {!ways && (
          <Box role="status">
            Trying turns, lifts, a black card and films
            <LinearProgress aria-label="Ways being tried" sx={{ mt: 1 }} />
          </Box>
        )}
        {old && <Alert severity="info">The set has moved since these were tried: close and ask again.</Alert>}
        {ways?.length === 0 && (
          <Alert severity="info">
            No small move clears this spot. Turn the product or move the camera, and ask again. A polariser
            may help on glass, lacquer or water; without a film on the lamp its help is not worked out here.
          </Alert>
        )}
        <Box component="ul" sx={{ m: 0, p: 0, listStyle: 'none' }}>
          {ways?.map((way) => (
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
                disabled={old}
                onClick={() => {
                  dispatch(takeChange(way.change));
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
        <Button onClick={onClose}>{ways ? 'Close' : 'Stop'}</Button>
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

function afterInWords({ how, amount, mirrors, inFrame, losesStops }: WayOut, thing: string): string {
  if (how === 'off') return 'Its light goes from everything else too.';
  if (how === 'polarise') {
    const left = Math.round(1000 * Number(amount)) / 10;
    return `${left} % of its image stays, wherever it is mirrored but in metal. ${thing} loses ${losesStops.light.toFixed(1)} stops, all other light ${losesStops.others.toFixed(1)}.`;
  }
  const then = `The spot then mirrors ${mirrors ? mirrors.name : 'the dark'}.`;
  return inFrame ? `${then} It comes into the picture itself.` : then;
}
