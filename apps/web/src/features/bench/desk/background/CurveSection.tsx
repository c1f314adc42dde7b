import {
  BLACK_STOPS,
  changeBetween,
  firstBelow,
  formatLength,
  formatStops,
  frameLevels,
  type Placement,
  placementStands,
  placementSteps,
  placementWay,
  withPlacement,
} from '@fendrix/core';
import { placementWords } from '@fendrix/words';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useMemo, useState } from 'react';
import { Chart, type ChartOption } from '../../../../shared/Chart';
import { Choice } from '../../../../shared/Choice';
import { Section } from '../../../../shared/Section';
import { useSession } from '../../picture/useSession';
import { useBenchDispatch, useSet } from '../../state/hooks';
import { takeChange, useAnswer } from '../../state/useAnswer';
import { TaggedChoice } from '../TaggedChoice';
import { useDeskFigure } from '../useDeskFigure';
import { readFrame } from './readFrame';

type Vary = Placement['vary'];

const VARIES: Record<Vary, string> = {
  'light-bearing': 'the light turned round its aim',
  'light-distance': 'the light nearer and farther',
  'light-height': 'the light higher and lower',
  'backdrop-distance': 'the background further back',
};

interface Point {
  value: number;
  /** Which way it goes: short for the curve, whole for the table. */
  place: string;
  words: string;
  products: number;
  ground: number;
}

const LOWEST = -10;

/** Runs a placement through its range and shows what falls on the ground and on the products: spill, and distance for black. */
export function CurveSection() {
  const set = useSet();
  const session = useSession();
  const dispatch = useBenchDispatch();
  const lights = set.lights.filter((light) => 'aimM' in light && light.on);
  const [vary, setVary] = useDeskFigure<Vary>('curve vary', 'light-bearing');
  const [tag, setTag] = useDeskFigure('curve tag', '');
  const { answer, ask, drop } = useAnswer<{ placement: Placement; list: Point[] }>();
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

  const run = (what: Placement) =>
    ask(async (asked, signal) => {
      if (!session) return null;
      const values = placementSteps(asked, what);
      const list: Point[] = [];
      setDone(0);
      try {
        for (const [index, value] of values.entries()) {
          const moved = withPlacement(asked, what, value);
          const field =
            moved && placementStands(moved, what) ? await readFrame(session, moved, signal) : null;
          const { products, ground } =
            moved && field ? frameLevels(moved, field) : { products: null, ground: null };
          if (moved && products && ground) {
            const { short, whole } = placementWords(placementWay(asked, what, value));
            list.push({
              value,
              place: short,
              words: whole,
              products: products.meanStops,
              ground: ground.meanStops,
            });
          }
          setDone((index + 1) / values.length);
        }
      } finally {
        setDone(null);
      }
      return { placement: what, list };
    });
  const points = answer?.found;

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
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, mt: 1 }}>
          <LinearProgress
            variant="determinate"
            value={100 * done}
            aria-label="Placements tried"
            sx={{ flex: 1 }}
          />
          <Button size="small" onClick={drop}>
            Stop
          </Button>
        </Box>
      )}
      {answer?.old && (
        <Box role="status" sx={{ mt: 1, fontSize: '0.8125rem' }}>
          The set has moved since: work it out again.
        </Box>
      )}
      {answer && !answer.old && points && points.list.length > 1 && (
        <Curve
          points={points.list}
          vary={points.placement.vary}
          onTake={(value) => {
            const moved = withPlacement(answer.set, points.placement, value);
            if (moved) dispatch(takeChange(changeBetween(answer.set, moved)));
          }}
        />
      )}
      {points && points.list.length <= 1 && (
        <Box sx={{ fontSize: '0.8125rem', color: 'text.secondary' }}>
          Products or background are not in the frame: nothing to compare.
        </Box>
      )}
    </Section>
  );
}

function Curve({ points, vary, onTake }: { points: Point[]; vary: Vary; onTake(value: number): void }) {
  const option = useMemo(
    (): ChartOption => ({
      grid: { left: 40, right: 12, top: 34, bottom: 28 },
      legend: { top: 0 },
      tooltip: { trigger: 'axis', valueFormatter: (value) => formatStops(Number(value)) },
      xAxis: { type: 'category', data: points.map(({ place }) => place) },
      yAxis: { type: 'value', name: 'stops', scale: true },
      series: [
        {
          name: 'products',
          type: 'line',
          symbol: 'circle',
          data: points.map(({ products }) => Math.max(LOWEST, products)),
        },
        {
          name: 'background',
          type: 'line',
          symbol: 'rect',
          lineStyle: { type: 'dashed' },
          data: points.map(({ ground }) => Math.max(LOWEST, ground)),
        },
      ],
    }),
    [points],
  );
  const black =
    vary === 'backdrop-distance' || vary === 'light-distance'
      ? firstBelow(
          points.map(({ value, ground, products }) => [value, ground - products] as const),
          BLACK_STOPS,
        )
      : null;
  return (
    <Box sx={{ mt: 1 }} data-testid="curve">
      <Chart
        label={`Tones of products and background for ${VARIES[vary]}`}
        option={option}
        height={210}
        table={{
          heads: ['place', 'products', 'background', 'background over products'],
          rows: points.map(({ words, products, ground }) => [
            words,
            formatStops(products),
            formatStops(ground),
            overOrUnder(ground - products),
          ]),
        }}
        onPick={{ words: 'Take', take: (index) => onTake(points[index]?.value ?? 0) }}
      />
      {vary === 'backdrop-distance' && (
        <Box sx={{ fontSize: '0.8125rem' }}>
          {black === null
            ? 'At none of these is the background five stops under the products: flag its light off as well, or take black velvet.'
            : `Five stops under the products from ${formatLength(black)} further back on.`}
        </Box>
      )}
      <Box sx={{ fontSize: '0.75rem', color: 'text.secondary' }}>
        Means over the frame with the powers as they are, path-traced at each place; press a point to take it.
      </Box>
    </Box>
  );
}

const overOrUnder = (stops: number): string =>
  Math.abs(stops) < 0.05 ? 'the same' : `${Math.abs(stops).toFixed(1)} ${stops > 0 ? 'over' : 'under'}`;
