import { movableOf, widened, withMovable } from '../../solve/movables.js';
import { those } from '../changes/changes.js';
import { atDistance } from '../changes/modifiers.js';
import { seenProducts } from '../evidence.js';
import { beyond } from '../found.js';
import { FEWEST_ROWS, type Strip, stripsOf } from '../strips.js';
import type { Judge } from '../verdict.js';
import { ratio } from '../working.js';

/** Middle width of a strip over the rows that show it, part of the product's; null where it is too short to have one. */
function widthOf({ rows }: Strip): number | null {
  const widths = rows
    .flatMap(({ left, right, runs }) => {
      const widest = Math.max(0, ...runs.map(([from, to]) => to - from + 1));
      return widest > 0 ? [widest / (right - left + 1)] : [];
    })
    .sort((a, b) => a - b);
  return widths.length < FEWEST_ROWS ? null : (widths[widths.length >> 1] as number);
}

/** Strips that are narrower or wider than is wished; a broad highlight is judged by its tones. */
export const highlightWidth: Judge<'highlight-width'> = {
  code: 'highlight-width',
  byMaps: true,
  judge(evidence) {
    const { highlight, highlightPart } = evidence.set.wishes;
    if (highlightPart === undefined || (highlight !== 'one-strip' && highlight !== 'two-strips')) return [];
    return seenProducts(evidence).flatMap(({ product, thing, index, places }) =>
      stripsOf(evidence, product, index)
        .slice(0, highlight === 'one-strip' ? 1 : 2)
        .flatMap((strip) => {
          const width = widthOf(strip);
          if (width === null) return [];
          const source = evidence.things.indexOf(strip.thing);
          const working = ratio({ stripWidth: width, stripWished: highlightPart });
          return beyond(
            evidence.limits,
            'highlight-width',
            { value: Math.abs(width / highlightPart - 1) },
            () => ({
              of: thing,
              places: places.filter((place) => evidence.view.mirrored[place] === source),
              causes: [{ thing: strip.thing, part: null }],
              working,
            }),
          );
        }),
    );
  },
  /** The image grows with the face and shrinks with the distance. */
  cures({ set }, { causes, working }) {
    const source = causes[0]?.thing;
    const { stripWidth, stripWished } = working.of;
    if ((source?.kind !== 'light' && source?.kind !== 'sheet') || !stripWidth || !stripWished) return [];
    const ref = { kind: source.kind, key: source.key };
    const own = movableOf(set, ref);
    const by = stripWished / stripWidth;
    const faces = [by, by ** 0.8, by ** 1.25].map((factor) => {
      const changed = own && widened(own, factor);
      return changed ? withMovable(set, ref, changed) : null;
    });
    const away = source.kind === 'light' ? [1 / by, by ** -0.7].map((m) => atDistance(set, ref.key, m)) : [];
    return those(...faces, ...away);
  },
};
