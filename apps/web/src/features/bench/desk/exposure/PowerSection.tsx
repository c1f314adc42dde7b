import type { SetDocument } from '@fendrix/contract';
import {
  fStopsOf,
  nearestStep,
  type PowerSolution,
  solvePowers,
  solveSetting,
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
import { useFigure } from '../../figures/figureStore';
import type { FigureValues } from '../../figures/liveFigures';
import { parseTones, rangeWords } from '../../spot/toneWords';
import { changeCamera } from '../../state/edits';
import { useBenchDispatch, useReadings, useSet } from '../../state/hooks';
import { edit } from '../../state/thunks';
import { useDeskFigure } from '../useDeskFigure';
import { SolvedPowers } from './SolvedPowers';
import { SolvedSetting } from './SolvedSetting';

type SolveBy = 'powers' | 'shutter' | 'iso';

const SOLVE_BY: Record<SolveBy, { words: string; press: string }> = {
  powers: { words: 'the powers', press: 'Solve the powers' },
  shutter: { words: 'the shutter (window, lamps)', press: 'Solve the shutter' },
  iso: { words: 'the ISO', press: 'Solve the ISO' },
};

/** What was asked for, and for which paths of light. */
interface Asking {
  by: SolveBy;
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

const NOT_READ: FigureValues['spots'] = { traces: [], settled: false };

/** Solves the powers of the lights for tones at the pinned spots, and says which light runs out and what helps. */
export function PowerSection() {
  const set = useSet();
  const { traces, settled } = useFigure('spots') ?? NOT_READ;
  const readings = useReadings();
  const dispatch = useBenchDispatch();
  const [wishes, setWishes] = useDeskFigure<Record<string, Partial<Wish>>>('powers wishes', {});
  const [fStop, setFStop] = useDeskFigure<string | null>('powers f stop', null);
  const [by, setBy] = useDeskFigure<SolveBy>('powers by', 'powers');
  const [asking, setAsking] = useState<Asking | null>(null);
  const key = useMemo(() => (asking ? traceKey(set) : ''), [asking, set]);
  /** Solved anew as the spots are read finer, and for switches and settings as they are by now; nothing once the set has moved. */
  const solved = useMemo(() => {
    if (!asking || asking.key !== key) return null;
    const at = { ...set, camera: { ...set.camera, fNumber: asking.fNumber } };
    if (asking.by !== 'powers')
      return { set: at, setting: solveSetting(at, traces, asking.wishes, asking.by) };
    return { set: at, solution: solvePowers(at, traces, asking.wishes) };
  }, [asking, key, traces, set]);
  const ofLens = fStopsOf(set.camera.lens);
  const fPrinted = fStop ?? ofLens[nearestStep(ofLens, set.camera.fNumber)]?.printed ?? '8';
  const fNumber = ofLens.find(({ printed }) => printed === fPrinted)?.value ?? set.camera.fNumber;

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
      by,
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
    <Section title="Exposure for the tones you want">
      {set.spots.length === 0 && (
        <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
          Pin the spots that matter first: P, then point. Label, background, shadow, the edge of the products.
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
                parse={parseTones}
                example="+0.3, or +0.5 to +1.3"
                onCommit={(tones) => put(name, { on: true, ...tones })}
              />
            </Box>
          </Box>
        );
      })}
      <Choice
        label="at f-stop"
        shown
        value={fPrinted}
        options={ofLens.map(({ printed }) => ({ value: printed, words: `f/${printed}` }))}
        onChoose={setFStop}
      />
      <Choice
        label="solve"
        shown
        value={by}
        options={(Object.keys(SOLVE_BY) as SolveBy[]).map((value) => ({
          value,
          words: SOLVE_BY[value].words,
        }))}
        onChoose={setBy}
      />
      <Button sx={{ mt: 1 }} variant="contained" size="small" disabled={asked.length === 0} onClick={solve}>
        {SOLVE_BY[by].press}
      </Button>
      {asking && !solved && (
        <Box role="status" sx={{ mt: 1, fontSize: '0.8125rem' }}>
          The set has moved since: solve again.
        </Box>
      )}
      {solved?.solution && (
        <SolvedPowers
          set={solved.set}
          solution={solved.solution}
          settled={settled}
          onTake={() => take({ solution: solved.solution, set: solved.set })}
        />
      )}
      {solved && 'setting' in solved && (
        <SolvedSetting
          solution={solved.setting}
          settled={settled}
          onTake={({ by: what, value }) =>
            dispatch(
              edit(
                changeCamera({
                  fNumber: solved.set.camera.fNumber,
                  ...(what === 'shutter' ? { shutterS: value } : { iso: value }),
                }),
              ),
            )
          }
        />
      )}
    </Section>
  );
}
