import type { Sheet } from '@fendrix/contract';
import {
  type FrameLevels,
  flagGap,
  formatLength,
  formatStops,
  frameLevels,
  parseLengthM,
} from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useMemo } from 'react';
import { Choice } from '../../../../shared/Choice';
import { QuantityField } from '../../../../shared/QuantityField';
import { Section } from '../../../../shared/Section';
import { useSession } from '../../picture/useSession';
import { useBenchDispatch, useSet } from '../../state/hooks';
import { edit } from '../../state/thunks';
import { useAnswer } from '../../state/useAnswer';
import { TaggedChoice } from '../TaggedChoice';
import { useDeskFigure } from '../useDeskFigure';
import { readFrame } from './readFrame';

const PARTS = ['0.3', '0.4', '0.5', '0.6', '0.7'];

/** What flags change, as it is called. */
const LEVELS = [
  ['products', 'products'],
  ['ground', 'background'],
  ['table', 'table'],
] as const;

/** Two flags with a gap: the product keeps its whole light, wall and table lose theirs. */
export function FlagSection() {
  const set = useSet();
  const session = useSession();
  const dispatch = useBenchDispatch();
  const lights = set.lights.filter(({ kind, on }) => kind !== 'surround' && on);
  const [tag, setTag] = useDeskFigure('flags tag', '');
  const [id, setId] = useDeskFigure('flags id', '');
  const [part, setPart] = useDeskFigure('flags part', '0.5');
  const [fromHeightM, setFromHeightM] = useDeskFigure('flags from height', 0.02);
  const { answer, busy, ask, drop } = useAnswer<{ before: FrameLevels; after: FrameLevels }>();
  const light = lights.find((own) => own.tag === tag) ?? lights[0];
  const product = set.products.find((own) => own.id === id) ?? set.products[0];
  const gap = useMemo(
    () =>
      light && product
        ? flagGap(set, { light: light.tag, product: product.id, part: Number(part), fromHeightM })
        : null,
    [set, light, product, part, fromHeightM],
  );
  if (!light || !product || !gap) return null;

  const measure = (flags: Sheet[]) =>
    ask(async (bare, signal) => {
      if (!session) return null;
      const flagged = { ...bare, sheets: [...bare.sheets, ...flags] };
      const one = await readFrame(session, bare, signal);
      const other = await readFrame(session, flagged, signal);
      return one && other ? { before: frameLevels(bare, one), after: frameLevels(flagged, other) } : null;
    });
  const levels = answer?.old ? null : answer?.found;

  return (
    <Section title="Flags for a dark wall and table">
      <TaggedChoice label="light" things={lights} value={light.tag} onChoose={setTag} />
      <Choice
        label="products"
        shown
        value={product.id}
        options={set.products.map((own) => ({ value: own.id, words: own.name }))}
        onChoose={setId}
      />
      <Choice
        label="flags stand"
        shown
        value={part}
        options={PARTS.map((value) => ({
          value,
          words: `${Math.round(100 * Number(value))} % of the way from the light`,
        }))}
        onChoose={setPart}
      />
      <QuantityField
        label="fully lit from"
        shown={formatLength(fromHeightM)}
        parse={(text) => {
          const value = parseLengthM(text);
          return value !== null && value >= 0 ? value : null;
        }}
        example="2 cm"
        onCommit={setFromHeightM}
      />
      <Box sx={{ fontSize: '0.8125rem', my: 0.5 }} data-testid="gap">
        A gap of {formatLength(gap.gapM)}, {formatLength(gap.distanceM)} from the products: lower flag up to{' '}
        {formatLength(gap.lowerEdgeM)}, upper flag down to {formatLength(gap.upperEdgeM)} above the table.
        Nearer to the products the gap gets narrower and cuts more.
      </Box>
      <Button size="small" variant="outlined" onClick={() => void measure(gap.flags)}>
        Measure what they change
      </Button>
      <Button
        size="small"
        onClick={() => dispatch(edit((old) => ({ ...old, sheets: [...old.sheets, ...gap.flags] })))}
      >
        Put the flags there
      </Button>
      {busy && (
        <Box role="status" sx={{ fontSize: '0.8125rem' }}>
          Being traced
          <LinearProgress aria-label="Flags being traced" sx={{ my: 0.5 }} />
          <Button size="small" onClick={drop}>
            Stop
          </Button>
        </Box>
      )}
      {answer?.old && (
        <Box role="status" sx={{ fontSize: '0.8125rem' }}>
          The set has moved since: measure again.
        </Box>
      )}
      {levels && (
        <Box sx={{ fontSize: '0.8125rem' }} role="status" data-testid="flag-levels">
          {LEVELS.map(([what, words]) => {
            const [one, other] = [levels.before[what], levels.after[what]];
            return (
              one &&
              other && (
                <div key={what}>
                  {words}: {formatStops(one.meanStops)} → {formatStops(other.meanStops)}
                </div>
              )
            );
          })}
        </Box>
      )}
      <Box sx={{ color: 'text.secondary', fontSize: '0.75rem', mt: 0.5 }}>
        Light through the gap still reaches what stands right behind the products: move the wall back, or
        bring the light round to the side. Black cloth on the far side takes what bounces.
      </Box>
    </Section>
  );
}
