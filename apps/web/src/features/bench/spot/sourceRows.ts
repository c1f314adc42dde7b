import type { SetDocument } from '@fendrix/contract';
import { channelsOf, displayWeights, type LightSource, luminanceOf, MID_TONE } from '@fendrix/core';
import type { ThingRef } from '../state/edits';

/** One source of a spot's light. */
export interface SourceRow {
  key: string;
  how: LightSource['how'];
  words: string;
  tag: string | null;
  ref: ThingRef | null;
  /** Recorded linear value. */
  value: number;
  stops: number;
  explanation: string;
}

/** Parts below this share of a spot's light are left out. */
const LEAST_SHARE = 0.005;

/** Sources with the powers and settings of now, those of one thing together, largest first. */
export function sourceRows(set: SetDocument, sources: readonly LightSource[]): SourceRow[] {
  const weights = displayWeights(set);
  const channels = channelsOf(set);
  const merged = new Map<string, SourceRow>();
  for (const { how, thing, channel, unit } of sources) {
    const recorded = luminanceOf(
      ...(unit.map((value, c) => value * (weights[3 * channel + c] ?? 0)) as typeof unit),
    );
    const light = set.lights[channels[channel]?.light ?? -1];
    const key = how === 'own' ? `own ${light?.tag}` : `${how} ${thing?.kind} ${thing?.key}`;
    const row = merged.get(key) ?? { key, how, ...wordsOf(how, thing, light?.tag ?? ''), value: 0, stops: 0 };
    row.value += recorded;
    merged.set(key, row);
  }
  const rows = [...merged.values()];
  const whole = rows.reduce((sum, { value }) => sum + value, 0);
  return rows
    .filter(({ value }) => value > 0 && value >= LEAST_SHARE * whole)
    .map((row) => ({ ...row, stops: Math.log2(row.value / MID_TONE) }))
    .sort((a, b) => b.value - a.value);
}

/** The rows together. */
export function wholeOf(rows: readonly SourceRow[]): { value: number; stops: number } {
  const value = rows.reduce((sum, row) => sum + row.value, 0);
  return { value, stops: Math.log2(value / MID_TONE) };
}

function wordsOf(how: LightSource['how'], thing: LightSource['thing'], light: string) {
  if (how === 'own') {
    return {
      words: 'lit by',
      tag: light,
      ref: { kind: 'light', key: light } as ThingRef,
      explanation:
        'What the surface itself sends to the lens of this light, straight from it or by way of other things.',
    };
  }
  const tagged = thing?.kind === 'light' || thing?.kind === 'sheet';
  const selectable = tagged || thing?.kind === 'product';
  return {
    words: tagged ? (how === 'mirrored' ? 'mirrors' : 'shows') : (thing?.name ?? 'the dark'),
    tag: tagged ? (thing?.key ?? null) : null,
    ref: selectable && thing ? ({ kind: thing.kind, key: thing.key } as ThingRef) : null,
    explanation:
      how === 'mirrored'
        ? 'The luminance of what stands in the mirror direction, times the part that is mirrored at this angle (Fresnel).'
        : 'The luminance of what stands behind, times what each boundary and the glass or liquid let through (Fresnel, Beer-Lambert).',
  };
}
