import type { SetDocument } from '@fendrix/contract';
import {
  formatLength,
  formatPower,
  type LightGain,
  moreLight,
  type PowerSolution,
  printedGain,
} from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { Tag } from '../../../../shared/Tag';
import { kitApi } from '../../../kit';
import { SOLVED, ToneTable } from './SolvedSetting';

interface SolvedPowersProps {
  solution: PowerSolution;
  set: SetDocument;
  /** The spots are read as finely as they will be. */
  settled: boolean;
  onTake(): void;
}

/** Powers that bring the spots to their tones, what runs out, and what helps. */
export function SolvedPowers({ solution, set, settled, onTake }: SolvedPowersProps) {
  const { lights, tones, unseen } = solution;
  const { data } = kitApi.useReadKitQuery();
  const kitLights = (data?.document.entries ?? []).flatMap((entry) =>
    entry.what === 'light' ? [entry.thing] : [],
  );
  return (
    <Box data-testid="solved" sx={SOLVED}>
      <table>
        <thead>
          <tr>
            <th>light</th>
            <th>power</th>
            <th>short by</th>
          </tr>
        </thead>
        <tbody>
          {lights.map(({ tag, powerStops, shortStops }) => (
            <tr key={tag}>
              <td>
                <Tag>{tag}</Tag>
              </td>
              <td className="number">{formatPower(powerStops)}</td>
              <td className="number">
                {shortStops === 0
                  ? 'in range'
                  : shortStops > 0
                    ? `${shortStops.toFixed(1)} stops`
                    : `${(-shortStops).toFixed(1)} too strong at its lowest`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <ToneTable tones={tones} />
      {unseen.length > 0 && (
        <Box role="status">Not seen by the lens, so not solved for: {unseen.join(', ')}.</Box>
      )}
      {lights
        .filter(({ shortStops }) => shortStops > 0)
        .map(({ tag, shortStops }) => {
          const light = set.lights.find((own) => own.tag === tag);
          const gains = light ? moreLight(light, set.camera, shortStops, kitLights) : [];
          return (
            <Box key={tag} sx={{ mt: 1 }}>
              <Box sx={{ fontWeight: 600 }}>More from {tag}, the cheapest first</Box>
              <Box component="ul" sx={{ m: 0, pl: 2 }}>
                {gains.map((gain) => (
                  <li key={gain.how}>{gainInWords(gain)}</li>
                ))}
              </Box>
            </Box>
          );
        })}
      {lights
        .filter(({ shortStops }) => shortStops < 0)
        .map(({ tag }) => (
          <Box key={tag} sx={{ mt: 1 }}>
            {tag} is too strong at its lowest: take it further away, put frost or a grid on it, or close the
            f-stop and turn the others up.
          </Box>
        ))}
      <Button sx={{ mt: 1 }} variant="outlined" size="small" disabled={!settled} onClick={onTake}>
        Set these powers
      </Button>
      {!settled && (
        <Box role="status" sx={{ mt: 0.5 }}>
          The spots are still being read more finely; the powers follow.
        </Box>
      )}
      <Box sx={{ color: 'text.secondary', mt: 0.5 }}>
        Least squares in stops over the spots, within each dial's range and steps. Tones are linear in each
        light, so no ray is traced.
      </Box>
    </Box>
  );
}

function gainInWords(gain: LightGain): string {
  const { how, amount, gainStops, enough, all, name } = gain;
  const stops = `+${gainStops.toFixed(1)} stops${enough ? '' : ', not enough alone'}`;
  switch (how) {
    case 'closer':
      return `Closer: ${formatLength(amount)} from its aim (${stops}); ${sideEffects(gain)}`;
    case 'modifier':
      return `Another of the kit for the same work: ${name} (${stops}); ${sideEffects(gain)}`;
    case 'pops':
      return `${amount} flashes on one frame in a dark room (${stops}); nothing may move, ambient adds up too; every spot it lights gains alike`;
    case 'grid':
      return `Take its grid off (${stops}); the beam opens: it spills on what the grid kept dark`;
    case 'film':
      return `Take its polarising film off (${stops}); the glare comes back; every spot it lights gains alike`;
    case 'gels':
      return `Take its gels off (${stops}); the colour changes; every spot it lights gains alike`;
    default:
      return `${printedGain(gain)} (${stops})${all ? '; everything gets brighter, turn the others down by as much' : ''}`;
  }
}

/** What it does to the size that the light looks of, and to the spots behind the one it is aimed at. */
function sideEffects({ looksWider, fallsOffStops }: LightGain): string {
  const percent = Math.round(100 * Math.abs(looksWider - 1));
  const size =
    percent < 3
      ? 'it looks as large as now'
      : `it looks ${percent} % ${looksWider > 1 ? 'larger, so softer' : 'smaller, so harder'}`;
  const behind =
    Math.abs(fallsOffStops) < 0.05
      ? 'other spots of it gain alike'
      : `what stands 20 cm behind falls ${Math.abs(fallsOffStops).toFixed(1)} stop ${fallsOffStops > 0 ? 'further' : 'less'} behind its aim`;
  return `${size}; ${behind}`;
}
