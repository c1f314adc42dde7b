import type { SetDocument } from '@fendrix/contract';
import {
  firstBelow,
  formatLength,
  formatStops,
  mostBackM,
  type Placement,
  vector,
  withPlacement,
} from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useMemo, useState } from 'react';
import { Chart, type ChartOption } from '../../../../shared/Chart';
import { Choice } from '../../../../shared/Choice';
import { Section } from '../../../../shared/Section';
import { takeSolved } from '../../band/useBandPlacing';
import { useSession } from '../../picture/useSession';
import { useBenchDispatch, useSet } from '../../state/hooks';
import { edit } from '../../state/thunks';
import { TaggedChoice } from '../TaggedChoice';
import { levelsOf, readFrame } from './readGround';

type Vary = Placement['vary'];

const VARIES: Record<Vary, string> = {
  'light-bearing': 'the light turned round its aim',
  'light-distance': 'the light nearer and farther',
  'light-height': 'the light higher and lower',
  'backdrop-distance': 'the backdrop further back',
};

interface Point {
  value: number;
  goods: number;
  ground: number;
}

const LOWEST = -10;
const BLACK_STOPS = -5;

/** Runs a placement through its range and shows what falls on the ground and on the goods: spill, and distance for black. */
export function CurveSection() {
  const set = useSet();
  const { session } = useSession();
  const dispatch = useBenchDispatch();
  const lights = set.lights.filter((light) => 'aimM' in light && light.on);
  const [vary, setVary] = useState<Vary>('light-bearing');
  const [tag, setTag] = useState('');
  const [points, setPoints] = useState<{ placement: Placement; list: Point[] } | null>(null);
  const [done, setDone] = useState<number | null>(null);
  const light = lights.find((own) => own.tag === tag) ?? lights[0];
  const placement: Placement | null =
    vary === 'backdrop-distance'
      ? set.backdrop
        ? { vary }
        : null
      : light
        ? { vary, light: light.tag }
        : null;

  async function run(what: Placement) {
    if (!session) return;
    const values = rangeOf(
      what,
      set,
      light && 'aimM' in light ? vector.distance(light.positionM, light.aimM) : 1,
    );
    const list: Point[] = [];
    setDone(0);
    for (const [index, value] of values.entries()) {
      const moved = withPlacement({ ...set, takes: [] }, what, value);
      const field = moved ? await readFrame(session, moved).catch(() => null) : null;
      if (moved && field) {
        const { goods, ground } = levelsOf(moved, field);
        if (goods && ground) list.push({ value, goods: goods.meanStops, ground: ground.meanStops });
      }
      setDone((index + 1) / values.length);
    }
    setDone(null);
    setPoints({ placement: what, list });
  }

  return (
    <Section title="Spill, and distance for black">
      <Choice
        label="try"
        shown
        value={vary}
        options={(Object.keys(VARIES) as Vary[]).map((value) => ({ value, words: VARIES[value] }))}
        onChoose={setVary}
      />
      {vary !== 'backdrop-distance' && light && (
        <TaggedChoice label="light" things={lights} value={light.tag} onChoose={setTag} />
      )}
      <Button
        size="small"
        variant="outlined"
        sx={{ mt: 1 }}
        disabled={!placement || done !== null}
        onClick={() => placement && void run(placement)}
      >
        Work it out
      </Button>
      {done !== null && (
        <LinearProgress
          variant="determinate"
          value={100 * done}
          aria-label="Placements tried"
          sx={{ mt: 1 }}
        />
      )}
      {points && points.list.length > 1 && (
        <Curve
          points={points.list}
          vary={points.placement.vary}
          onTake={(value) => {
            const moved = withPlacement({ ...set, takes: [] }, points.placement, value);
            if (moved) dispatch(edit(takeSolved(moved)));
          }}
        />
      )}
      {points && points.list.length <= 1 && (
        <Box sx={{ fontSize: '0.8125rem', color: 'text.secondary' }}>
          Goods or ground are not in the frame: nothing to compare.
        </Box>
      )}
    </Section>
  );
}

function rangeOf({ vary }: Placement, set: SetDocument, distance: number): number[] {
  const steps = (from: number, to: number, count: number) =>
    Array.from({ length: count }, (_, i) => from + (i * (to - from)) / (count - 1));
  switch (vary) {
    case 'light-bearing':
      return steps(-90, 90, 13);
    case 'light-distance':
      return steps(0.5, 2, 9).map((factor) => factor * distance);
    case 'light-height':
      return steps(-0.4, 0.6, 9);
    case 'backdrop-distance':
      return steps(0, Math.max(0.01, mostBackM(set)), 8);
  }
}

function valueWords(vary: Vary, value: number): string {
  if (vary === 'light-bearing') return `${value < 0 ? '−' : '+'}${Math.abs(Math.round(value))}°`;
  const sign = vary === 'light-distance' ? '' : value < -1e-9 ? '−' : '+';
  return `${sign}${formatLength(Math.abs(value))}`;
}

function Curve({ points, vary, onTake }: { points: Point[]; vary: Vary; onTake(value: number): void }) {
  const option = useMemo(
    (): ChartOption => ({
      grid: { left: 40, right: 12, top: 34, bottom: 28 },
      legend: { top: 0 },
      tooltip: { trigger: 'axis', valueFormatter: (value) => formatStops(Number(value)) },
      xAxis: { type: 'category', data: points.map(({ value }) => valueWords(vary, value)) },
      yAxis: { type: 'value', name: 'stops', scale: true },
      series: [
        {
          name: 'goods',
          type: 'line',
          symbol: 'circle',
          data: points.map(({ goods }) => Math.max(LOWEST, goods)),
        },
        {
          name: 'ground',
          type: 'line',
          symbol: 'rect',
          lineStyle: { type: 'dashed' },
          data: points.map(({ ground }) => Math.max(LOWEST, ground)),
        },
      ],
    }),
    [points, vary],
  );
  const black =
    vary === 'backdrop-distance' || vary === 'light-distance'
      ? firstBelow(
          points.map(({ value, ground, goods }) => [value, ground - goods] as const),
          BLACK_STOPS,
        )
      : null;
  return (
    <Box sx={{ mt: 1 }} data-testid="curve">
      <Chart
        label={`Tones of goods and ground for ${VARIES[vary]}`}
        option={option}
        height={210}
        table={{
          heads: ['place', 'goods', 'ground', 'ground under goods'],
          rows: points.map(({ value, goods, ground }) => [
            valueWords(vary, value),
            formatStops(goods),
            formatStops(ground),
            formatStops(ground - goods),
          ]),
        }}
        onPick={{ words: 'Take', take: (index) => onTake(points[index]?.value ?? 0) }}
      />
      {vary === 'backdrop-distance' && (
        <Box sx={{ fontSize: '0.8125rem' }}>
          {black === null
            ? 'At none of these is the ground five stops under the goods: flag its light off as well, or take black velvet.'
            : `Five stops under the goods from ${formatLength(black)} further back on.`}
        </Box>
      )}
      <Box sx={{ fontSize: '0.75rem', color: 'text.secondary' }}>
        Means over the frame with the powers as they are, path-traced at each place; press a point to take it.
      </Box>
    </Box>
  );
}
