import type { SetDocument } from '@fendrix/contract';
import { exposureWeights } from '../../exposure/recording.js';
import {
  type BandProfile,
  type ProfileFigures,
  profileFigures,
  profileStops,
} from '../../mirror/bandProfile.js';
import { channelsOf } from '../../photometry/channels.js';
import { movableOf, widened, withMovable } from '../../solve/movables.js';
import { add, scale, subtract } from '../../units/vector.js';
import { byStops, those } from '../changes/changes.js';
import { type Evidence, mirroredSources, seenProducts } from '../evidence.js';
import { beyond } from '../found.js';
import type { Judge } from '../verdict.js';
import { from, type Working } from '../working.js';

function profiled(evidence: Evidence) {
  return seenProducts(evidence).flatMap((seen) => {
    const profile = evidence.view.profiles.find(({ product }) => product === seen.product.id);
    const stops = profile && profileStops(evidence.set, profile);
    return stops ? [{ ...seen, profile, figures: profileFigures(profile.part, stops), stops }] : [];
  });
}

/** A verdict on the profile of each product, where a highlight of a kind is wished. */
const ofProfiles =
  (
    code: 'highlight-narrow' | 'highlight-uneven',
    wished: SetDocument['wishes']['highlight'],
    figureOf: (figures: ProfileFigures) => number,
    workingOf: (figures: ProfileFigures, columns: number) => Working,
  ): Judge['judge'] =>
  (evidence) =>
    evidence.set.wishes.highlight !== wished
      ? []
      : profiled(evidence).flatMap(({ thing, index, places, figures, profile }) =>
          beyond(
            evidence.limits,
            code,
            { value: figureOf(figures) },
            () => ({
              of: thing,
              places,
              causes: mirroredSources(evidence, index),
              working: workingOf(figures, profile.part.length),
            }),
            code === 'highlight-narrow' ? evidence.set.wishes.highlightPart : undefined,
          ),
        );

/** A highlight that is to be broad and is a strip or a hairline. */
export const highlightNarrow: Judge<'highlight-narrow'> = {
  code: 'highlight-narrow',
  judge: ofProfiles(
    'highlight-narrow',
    'broad',
    ({ brightPart }) => brightPart,
    ({ brightPart, mostStops }, columns) => from({ brightPart, brightestColumn: mostStops, columns }),
  ),
  cures({ set }, { causes, figure }) {
    // The image grows with the face: so much wider it fills what is wished.
    const wanted = Math.min(8, figure.limit / Math.max(0.01, figure.value));
    return those(
      ...causes.slice(0, 2).flatMap(({ thing }) => {
        if (thing.kind !== 'light' && thing.kind !== 'sheet') return [];
        const ref = { kind: thing.kind, key: thing.key };
        const own = movableOf(set, ref);
        if (!own) return [];
        const wider = [wanted, 1.4 * wanted].map((factor) => widened(own, factor));
        const nearer = [0.7, 0.5].map((factor) =>
          'aimM' in own
            ? { ...own, positionM: add(own.aimM, scale(subtract(own.positionM, own.aimM), factor)) }
            : null,
        );
        return [...wider, ...nearer].map((changed) =>
          changed ? withMovable(set, ref, changed as typeof own) : null,
        );
      }),
    );
  },
};

/** Two strips that are not alike. */
export const highlightUneven: Judge<'highlight-uneven'> = {
  code: 'highlight-uneven',
  judge: ofProfiles(
    'highlight-uneven',
    'two-strips',
    ({ symmetry }) => symmetry,
    ({ symmetry }, columns) => from({ leftRightApart: 1 - symmetry, columns }),
  ),
  cures(evidence, { of }) {
    const { set } = evidence;
    const own = profiled(evidence).find(({ thing }) => thing === of);
    if (!own) return [];
    const half = own.stops.length >> 1;
    const sides = [own.stops.slice(0, half), own.stops.slice(half)].map((stops, side) => {
      const most = Math.max(...stops);
      return { most, light: brightestAt(evidence, own.profile, side * half + stops.indexOf(most)) };
    }) as [Side, Side];
    const [weak, strong] = sides[0].most < sides[1].most ? sides : [sides[1], sides[0]];
    if (!weak.light || !strong.light || weak.light === strong.light) return [];
    const apart = strong.most - weak.most;
    const raised = byStops(set, weak.light, apart);
    const lowered = byStops(set, strong.light, -apart);
    const halfway = byStops(set, weak.light, apart / 2);
    return those(raised, lowered, halfway && byStops(halfway, strong.light, -apart / 2));
  },
};

/** The brightest column of one side, and the light that makes it. */
interface Side {
  most: number;
  light: string | null;
}

function brightestAt({ set }: Evidence, { unit, part }: BandProfile, column: number): string | null {
  const weights = exposureWeights(set);
  const sums = set.lights.map(() => 0);
  channelsOf(set).forEach(({ light }, channel) => {
    for (let c = 0; c < 3; c++) {
      const k = 3 * channel + c;
      sums[light] =
        (sums[light] ?? 0) + (weights[k] as number) * (unit[column * (unit.length / part.length) + k] ?? 0);
    }
  });
  const most = Math.max(...sums);
  return most > 0 ? (set.lights[sums.indexOf(most)]?.tag ?? null) : null;
}
