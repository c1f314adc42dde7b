import { luminanceOf } from '../../exposure/display.js';
import { exposureWeights, recordedMidToneCdSM2 } from '../../exposure/recording.js';
import { channelsOf } from '../../photometry/channels.js';
import { withPlacement } from '../../solve/placements.js';
import { withLensFlag } from '../changes/addedSheets.js';
import { byStops, those } from '../changes/changes.js';
import { withGrid } from '../changes/modifiers.js';
import type { Evidence } from '../evidence.js';
import { beyond } from '../found.js';
import type { Judge } from '../verdict.js';
import { less } from '../working.js';

/** Part of the light on the front of a lens that spreads over the picture: a coated lens without a hood. ISO 9358 measures it. */
const VEIL_PART = 0.01;

/** Veil of each light over the whole picture, stops from mid-tone; lights that are in the frame are the picture. */
function veils({ set, view, things, thing }: Evidence): { tag: string; name: string; stops: number }[] {
  const weights = exposureWeights(set);
  const midTone = recordedMidToneCdSM2(set.camera);
  const inFrame = new Set<string>();
  for (const index of thing) {
    const own = things[index];
    if (own?.kind === 'light') inFrame.add(own.key);
  }
  const sums = set.lights.map(() => 0);
  channelsOf(set).forEach(({ light }, channel) => {
    const rgb = [0, 1, 2].map((c) => weights[3 * channel + c] as number) as [number, number, number];
    const lux = view.intoLens[channel] ?? 0;
    sums[light] = (sums[light] ?? 0) + (VEIL_PART * luminanceOf(...rgb) * lux) / Math.PI / midTone;
  });
  return set.lights.flatMap(({ tag, name, kind }, i) =>
    kind === 'surround' || inFrame.has(tag) || !((sums[i] as number) > 0)
      ? []
      : [{ tag, name, stops: Math.log2(sums[i] as number) }],
  );
}

/** A light that shines into the lens and veils the dark of the picture. */
export const lightInLens: Judge<'light-in-lens'> = {
  code: 'light-in-lens',
  judge: (evidence) =>
    veils(evidence).flatMap(({ tag, name, stops }) => {
      const thing = { kind: 'light' as const, key: tag, name };
      const causes = [{ thing, part: 1 }];
      return beyond(evidence.limits, 'light-in-lens', { value: stops }, () => ({
        of: thing,
        places: [],
        causes,
        working: less({ lensTone: stops - Math.log2(VEIL_PART), veilLoss: -Math.log2(VEIL_PART) }),
      }));
    }),
  /** A card by the lens, a grid, further round, weaker. */
  cures({ set }, { of, figure }) {
    const tag = of?.key ?? '';
    return those(
      withLensFlag(set, tag),
      withGrid(set, tag),
      ...[15, -15, 30, -30].map((deg) => withPlacement(set, { vary: 'light-bearing', light: tag }, deg)),
      byStops(set, tag, figure.limit - figure.value - 0.1),
    );
  },
};
