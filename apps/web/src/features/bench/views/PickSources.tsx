import type { SetDocument } from '@fendrix/contract';
import {
  channelsOf,
  displayWeights,
  formatStops,
  type LightSource,
  luminanceOf,
  MID_TONE,
} from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { memo } from 'react';
import { Explained } from '../../../shared/Explained';
import { Tag } from '../../../shared/Tag';
import { benchActions } from '../state/benchSlice';
import type { ThingRef } from '../state/edits';
import { useBench, useBenchDispatch, useSet } from '../state/hooks';

/** Parts below this share of a spot's light are left out. */
const LEAST_SHARE = 0.01;

/** Where the light of the spot pointed at comes from, largest part first. */
export const PickSources = memo(function PickSources() {
  const set = useSet();
  const pick = useBench((bench) => bench.pick);
  const dispatch = useBenchDispatch();
  if (!pick) return null;
  const rows = rowsOf(set, pick.sources);
  return (
    <Box component="section" aria-label="This spot">
      <Box component="h2" sx={{ m: 0, mb: 0.5, fontSize: '0.8125rem', fontWeight: 650 }}>
        Light of this spot
      </Box>
      {rows.length === 0 && (
        <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>No light comes from here.</Box>
      )}
      {rows.map((row) => (
        <Explained
          key={row.key}
          label={
            <>
              {row.words} {row.tag && <Tag>{row.tag}</Tag>}
            </>
          }
          value={`${Math.round(100 * row.share)} %`}
        >
          {row.explanation} Recorded {formatStops(row.stops)} from mid-tone by itself.
          {row.ref && (
            <Button size="small" onClick={() => dispatch(benchActions.selected(row.ref))} sx={{ mt: 0.5 }}>
              Select it
            </Button>
          )}
        </Explained>
      ))}
    </Box>
  );
});

interface Row {
  key: string;
  words: string;
  tag: string | null;
  ref: ThingRef | null;
  share: number;
  stops: number;
  explanation: string;
}

function rowsOf(set: SetDocument, sources: readonly LightSource[]): Row[] {
  const weights = displayWeights(set);
  const channels = channelsOf(set);
  const merged = new Map<string, Row>();
  let whole = 0;
  for (const { how, thing, channel, unit } of sources) {
    const recorded = luminanceOf(
      ...(unit.map((value, c) => value * (weights[3 * channel + c] ?? 0)) as typeof unit),
    );
    whole += recorded;
    const light = set.lights[channels[channel]?.light ?? -1];
    const key = how === 'own' ? `own ${light?.tag}` : `${how} ${thing?.kind} ${thing?.key}`;
    const row = merged.get(key) ?? { key, ...wordsOf(how, thing, light?.tag ?? ''), share: 0, stops: 0 };
    row.share += recorded;
    merged.set(key, row);
  }
  return [...merged.values()]
    .map((row) => ({ ...row, share: row.share / whole, stops: Math.log2(row.share / MID_TONE) }))
    .filter(({ share }) => share >= LEAST_SHARE)
    .sort((a, b) => b.share - a.share);
}

function wordsOf(how: LightSource['how'], thing: LightSource['thing'], light: string) {
  if (how === 'own') {
    return {
      words: 'its surface, lit by',
      tag: light,
      ref: { kind: 'light', key: light } as ThingRef,
      explanation:
        'What the surface itself sends to the lens of this light, straight from it or by way of other things.',
    };
  }
  const words = how === 'mirrored' ? 'mirrors' : 'shows through';
  const tagged = thing?.kind === 'light' || thing?.kind === 'sheet';
  const selectable = tagged || thing?.kind === 'product';
  return {
    words: `${words}${tagged ? '' : ` ${thing?.name ?? 'the dark'}`}`,
    tag: tagged ? (thing?.key ?? null) : null,
    ref: selectable && thing ? ({ kind: thing.kind, key: thing.key } as ThingRef) : null,
    explanation:
      how === 'mirrored'
        ? 'The luminance of what stands in the mirror direction, times the part that is mirrored at this angle (Fresnel).'
        : 'The luminance of what stands behind, times what each boundary and the glass or liquid let through (Fresnel, Beer-Lambert).',
  };
}
