import { formatStops, type SettingSolution, type SolvedTone } from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { rangeWords } from '../../spot/toneWords';

/** How an answer with its tables stands under what was asked. */
export const SOLVED = {
  mt: 1,
  fontSize: '0.8125rem',
  '& td, & th': { textAlign: 'left', py: 0.25, pr: 1.5, fontWeight: 400 },
} as const;

/** A shutter or ISO that brings the spots to their tones, with what each comes to. */
export function SolvedSetting({
  solution,
  settled,
  onTake,
}: {
  solution: SettingSolution | null;
  settled: boolean;
  onTake(solution: SettingSolution): void;
}) {
  if (!solution) {
    return (
      <Box role="status" sx={{ mt: 1, fontSize: '0.8125rem' }}>
        The lens sees none of these spots: nothing to solve for.
      </Box>
    );
  }
  const words = solution.by === 'shutter' ? `${solution.printed} s` : `ISO ${solution.printed}`;
  return (
    <Box data-testid="solved" sx={SOLVED}>
      <Box sx={{ fontWeight: 600 }}>{words}</Box>
      <ToneTable tones={solution.tones} />
      {solution.unseen.length > 0 && (
        <Box role="status">Not seen by the lens, so not solved for: {solution.unseen.join(', ')}.</Box>
      )}
      {solution.overSync && (
        <Box role="status">Faster than this body's flash sync: the frame would be cut.</Box>
      )}
      <Button
        sx={{ mt: 1 }}
        variant="outlined"
        size="small"
        disabled={!settled}
        onClick={() => onTake(solution)}
      >
        Set {words}
      </Button>
      <Box sx={{ color: 'text.secondary', mt: 0.5 }}>
        Every step of the dial tried on the traced spots: the least sum of squares in stops counts. Flash does
        not follow the shutter.
      </Box>
    </Box>
  );
}

/** What each spot was to be, and what it comes to. */
export function ToneTable({ tones }: { tones: readonly SolvedTone[] }) {
  return (
    <table>
      <thead>
        <tr>
          <th>spot</th>
          <th>wanted</th>
          <th>reached</th>
        </tr>
      </thead>
      <tbody>
        {tones.map(({ spot, from, to, reachedStops }) => (
          <tr key={spot}>
            <td>{spot}</td>
            <td className="number">{rangeWords({ from, to })}</td>
            <td className="number">{reachedStops === null ? 'black' : formatStops(reachedStops)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
