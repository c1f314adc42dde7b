import type { SetDocument } from '@fendrix/contract';
import {
  F_NUMBERS,
  formatLength,
  formatPower,
  formatStops,
  type LightGain,
  moreLight,
  nearestStep,
  type PowerSolution,
  printedGain,
  solvePowers,
  type ToneWish,
  traceKey,
} from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import { useMemo, useState } from 'react';
import { Choice } from '../../../../shared/Choice';
import { QuantityField } from '../../../../shared/QuantityField';
import { Section } from '../../../../shared/Section';
import { Tag } from '../../../../shared/Tag';
import { kitApi } from '../../../kit';
import { rangeWords } from '../../spot/toneWords';
import { useBench, useBenchDispatch, useReadings, useSet } from '../../state/hooks';
import { edit } from '../../state/thunks';
import { stopsQuantity } from '../stopsQuantity';

/** What was asked for, and for which paths of light. */
interface Asking {
  key: string;
  fNumber: number;
  wishes: ToneWish[];
}

interface Wish {
  on: boolean;
  from: number;
  to: number;
}

const rounded = (stops: number) => Math.round(10 * stops) / 10;

/** Solves the powers of the lights for tones at the pinned spots, and says which light runs out and what helps. */
export function PowerSection() {
  const set = useSet();
  const traces = useBench((bench) => bench.traces);
  const settled = useBench((bench) => bench.tracesSettled);
  const readings = useReadings();
  const dispatch = useBenchDispatch();
  const [wishes, setWishes] = useState<Record<string, Partial<Wish>>>({});
  const [fStop, setFStop] = useState<string | null>(null);
  const [asking, setAsking] = useState<Asking | null>(null);
  const key = useMemo(() => (asking ? traceKey(set) : ''), [asking, set]);
  /** Solved anew as the spots are read finer, and for switches and settings as they are by now; nothing once the set has moved. */
  const solved = useMemo(() => {
    if (!asking || asking.key !== key) return null;
    const at = { ...set, camera: { ...set.camera, fNumber: asking.fNumber } };
    return { set: at, solution: solvePowers(at, traces, asking.wishes) };
  }, [asking, key, traces, set]);
  const fPrinted = fStop ?? F_NUMBERS[nearestStep(F_NUMBERS, set.camera.fNumber)]?.printed ?? '8';
  const fNumber = F_NUMBERS.find(({ printed }) => printed === fPrinted)?.value ?? set.camera.fNumber;

  const toneNow = (name: string) => readings.find((reading) => reading.name === name)?.stopsFromMidTone;

  /** What is typed, or the target of the spot, or its tone of now. */
  const wishOf = (name: string): Wish => {
    const typed = wishes[name];
    const target = set.spots.find((spot) => spot.name === name)?.target;
    const now = rounded(toneNow(name) ?? 0);
    const base = target?.against ? (toneNow(target.against) ?? 0) : 0;
    const wished = target ? { from: base + target.from, to: base + target.to } : { from: now, to: now };
    return { on: target !== undefined, ...wished, ...typed };
  };
  const asked = set.spots.filter(({ name }) => wishOf(name).on);
  const put = (name: string, changes: Partial<Wish>) =>
    setWishes({ ...wishes, [name]: { ...wishes[name], ...changes } });

  function solve() {
    setAsking({
      key: traceKey(set),
      fNumber,
      wishes: asked.map(({ name }) => ({ spot: name, from: wishOf(name).from, to: wishOf(name).to })),
    });
  }

  function take({ solution, set: { camera } }: { solution: PowerSolution; set: SetDocument }) {
    dispatch(
      edit((old) => ({
        ...old,
        camera: { ...old.camera, fNumber: camera.fNumber },
        lights: old.lights.map((light) => {
          const own = solution.lights.find(({ tag }) => tag === light.tag);
          return own ? { ...light, powerStops: own.powerStops } : light;
        }),
      })),
    );
  }

  return (
    <Section title="Powers for the tones you want">
      {set.spots.length === 0 && (
        <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
          Pin the spots that matter first: P, then point. Label, ground, shadow, the edge of the goods.
        </Box>
      )}
      {set.spots.map(({ name }) => {
        const wish = wishOf(name);
        return (
          <Box key={name} sx={{ display: 'flex', alignItems: 'center' }}>
            <Checkbox
              size="small"
              sx={{ p: 0.25, mr: 0.5 }}
              checked={wish.on}
              onChange={(_, on) => put(name, { on })}
              slotProps={{ input: { 'aria-label': `Solve for ${name}` } }}
            />
            <Box sx={{ flex: 1 }}>
              <QuantityField
                label={`${name}, wanted`}
                shown={rangeWords(wish)}
                parse={stopsQuantity.parse}
                example={stopsQuantity.example}
                onCommit={(stops) => put(name, { on: true, from: stops, to: stops })}
              />
            </Box>
          </Box>
        );
      })}
      <Choice
        label="at f-stop"
        shown
        value={fPrinted}
        options={F_NUMBERS.map(({ printed }) => ({ value: printed, words: `f/${printed}` }))}
        onChoose={setFStop}
      />
      <Button sx={{ mt: 1 }} variant="contained" size="small" disabled={asked.length === 0} onClick={solve}>
        Solve the powers
      </Button>
      {asking && !solved && (
        <Box role="status" sx={{ mt: 1, fontSize: '0.8125rem' }}>
          The set has moved since: solve again.
        </Box>
      )}
      {solved && <Solved {...solved} settled={settled} onTake={() => take(solved)} />}
    </Section>
  );
}

interface SolvedProps {
  solution: PowerSolution;
  set: SetDocument;
  /** The spots are read as finely as they will be. */
  settled: boolean;
  onTake(): void;
}

function Solved({ solution, set, settled, onTake }: SolvedProps) {
  const { lights, tones, unseen } = solution;
  const { data } = kitApi.useReadKitQuery();
  const kitLights = (data?.document.entries ?? []).flatMap((entry) =>
    entry.what === 'light' ? [entry.thing] : [],
  );
  return (
    <Box
      data-testid="solved"
      sx={{
        mt: 1,
        fontSize: '0.8125rem',
        '& td, & th': { textAlign: 'left', py: 0.25, pr: 1.5, fontWeight: 400 },
      }}
    >
      <table>
        <thead>
          <tr>
            <th>light</th>
            <th>power</th>
            <th>runs out by</th>
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
      return `Closer: ${formatLength(amount)} from its aim (${stops}); it looks larger and softer then`;
    case 'modifier':
      return `Another of the kit in its place: ${name} (${stops}); it looks of another size, so harder or softer`;
    case 'pops':
      return `${amount} flashes on one frame in a dark room (${stops}); nothing may move, ambient adds up too`;
    case 'grid':
      return `Take its grid off (${stops}); the beam opens`;
    case 'film':
      return `Take its polarising film off (${stops}); the glare comes back`;
    case 'gels':
      return `Take its gels off (${stops}); the colour changes`;
    default:
      return `${printedGain(gain)} (${stops})${all ? '; everything gets brighter, turn the others down by as much' : ''}`;
  }
}
