import type { Product, Vector } from '@fendrix/contract';
import { formatStops, pieceAt } from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { memo, useMemo } from 'react';
import { Explained } from '../../../shared/Explained';
import { Tag } from '../../../shared/Tag';
import { benchActions } from '../state/benchSlice';
import { focusOn } from '../state/edits';
import { useBench, useBenchDispatch, useSet } from '../state/hooks';
import { edit } from '../state/thunks';
import { PieceMaterial } from '../views/thing/PieceMaterial';
import { LoseGlare } from './LoseGlare';
import { Loupe } from './Loupe';
import { sourceRows, wholeOf } from './sourceRows';
import { WidenHighlight } from './WidenHighlight';

/** Where the light of the spot pointed at comes from: matte and mirror part apart, largest source first, and what to do. */
export const PickSources = memo(function PickSources() {
  const set = useSet();
  const pick = useBench((bench) => bench.pick);
  const at = useBench((bench) => bench.pickAt);
  const stale = useBench((bench) => bench.pickStale);
  const zones = useBench((bench) => bench.zones);
  const dispatch = useBenchDispatch();
  const rows = useMemo(() => (pick ? sourceRows(set, pick.sources) : []), [set, pick]);
  if (!pick) return null;
  const whole = wholeOf(rows);
  const product = set.products.find(({ id }) => pick.thing.kind === 'product' && id === pick.thing.key);
  const parts = (['mirrored', 'through', 'own'] as const).map((how) => ({
    how,
    ...wholeOf(rows.filter((row) => row.how === how)),
  }));
  return (
    <Box component="section" aria-label="This spot" data-at={at?.join(' ')}>
      <Box sx={{ display: 'flex', alignItems: 'baseline', mb: 0.5 }}>
        <Box component="h2" sx={{ m: 0, flex: 1, fontSize: '0.8125rem', fontWeight: 650 }}>
          Light of this spot
        </Box>
        {!stale && (
          <Box className="number" data-testid="pick-stops">
            {formatStops(whole.stops)}
          </Box>
        )}
      </Box>
      <PickLine />
      {!stale && rows.length === 0 && (
        <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>No light comes from here.</Box>
      )}
      {parts
        .filter(({ value }) => value > 0 && !stale)
        .map(({ how, stops, value }) => (
          <Box key={how} sx={{ mt: 0.75 }} data-testid={`part ${how}`}>
            <Box sx={{ display: 'flex', fontSize: '0.75rem', color: 'text.secondary' }}>
              <Box sx={{ flex: 1 }}>{PARTS[how]}</Box>
              <span className="number">
                {formatStops(stops)} · {Math.round((100 * value) / whole.value)} %
              </span>
            </Box>
            {rows
              .filter((row) => row.how === how)
              .map((row) => (
                <Explained
                  key={row.key}
                  label={
                    <>
                      {row.words} {row.tag && <Tag>{row.tag}</Tag>}
                    </>
                  }
                  value={`${formatStops(row.stops)} · ${Math.round((100 * row.value) / whole.value)} %`}
                >
                  {row.explanation} Recorded {formatStops(row.stops)} from mid-tone by itself.
                  {row.ref && (
                    <Button
                      size="small"
                      onClick={() => dispatch(benchActions.selected(row.ref))}
                      sx={{ mt: 0.5 }}
                    >
                      Select it
                    </Button>
                  )}
                </Explained>
              ))}
          </Box>
        ))}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5, mt: 1 }}>
        <WidenHighlight />
        <LoseGlare />
        <Button
          size="small"
          variant="outlined"
          onClick={() =>
            dispatch(edit(focusOn(pick.pointM, pick.thing.kind === 'product' ? pick.thing.key : null)))
          }
        >
          Focus here
        </Button>
        {pick.thing.kind === 'product' && (
          <Button
            size="small"
            variant="outlined"
            aria-pressed={zones === 'spot'}
            onClick={() => dispatch(benchActions.zonesChosen(zones === 'spot' ? 'off' : 'spot'))}
          >
            {zones === 'spot' ? 'Hide its zone' : 'Where would it glare'}
          </Button>
        )}
      </Box>
      {!stale && product && <PointedPiece product={product} pointM={pick.pointM} />}
      <Loupe />
    </Box>
  );
});

/** The piece of a product that was pointed at, and what it is of. */
function PointedPiece({ product, pointM }: { product: Product; pointM: Vector }) {
  const piece = useMemo(() => pieceAt(product, pointM), [product, pointM]);
  return <PieceMaterial product={product.id} piece={piece} />;
}

const PARTS = {
  mirrored: 'mirror part',
  through: 'seen through it',
  own: 'matte part: its own surface',
} as const;

function PickLine() {
  const pick = useBench((bench) => bench.pick);
  const stale = useBench((bench) => bench.pickStale);
  if (!pick) return null;
  if (stale) {
    return (
      <Box role="status" sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
        Read again once the set rests
      </Box>
    );
  }
  const mirror =
    pick.weight === 0
      ? 'is matte there and mirrors nothing.'
      : `mirrors ${pick.mirrored ? pick.mirrored.name : 'the dark'} there, ${(100 * pick.weight).toFixed(1)} % of it.`;
  return (
    <Box role="status" sx={{ fontSize: '0.8125rem', borderLeft: 3, borderColor: 'warning.main', pl: 1 }}>
      {pick.thing.name} {mirror}
    </Box>
  );
}
