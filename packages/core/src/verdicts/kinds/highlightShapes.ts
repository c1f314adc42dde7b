import type { Product, SetDocument } from '@fendrix/contract';
import { poseOf } from '../../geometry/products/addProduct.js';
import type { Thing } from '../../geometry/scene.js';
import { profileFigures, profileStops } from '../../mirror/bandProfile.js';
import { bandHeightM } from '../../mirror/contour.js';
import { projectPoint, viewOf } from '../../render/view.js';
import { gradientCard } from '../../solve/cardMaterials.js';
import { movableOf } from '../../solve/movables.js';
import { placed } from '../../units/frame.js';
import { withFrost } from '../changes/addedSheets.js';
import { movedBy, switchedOff, those } from '../changes/changes.js';
import { atDistance, resized, withoutGrid } from '../changes/modifiers.js';
import { type Evidence, isSource, type JudgedBy, mirroredSources, seenProducts } from '../evidence.js';
import { beyond } from '../found.js';
import { FEWEST_ROWS, type Strip, stripsOf, wishesHighlight } from '../strips.js';
import type { Cause, Judge } from '../verdict.js';
import { from, half, less, over, type Working } from '../working.js';

/** Ends of a strip that are left out: they are round. */
const ENDS = 0.06;

/** Verdicts on the first strip of each product on which a highlight is wished. */
const ofStrips =
  <C extends 'highlight-bent' | 'highlight-broken'>(
    code: C,
    figureOf: (strip: Strip) => { value: number; working: Working } | null,
    wished?: keyof Pick<SetDocument['wishes'], 'highlightBendPart'>,
  ): Judge['judge'] =>
  (evidence) =>
    !wishesHighlight(evidence.set.wishes)
      ? []
      : seenProducts(evidence).flatMap(({ product, thing, index, places }) => {
          const [strip] = stripsOf(evidence, product, index);
          const figure = strip && figureOf(strip);
          if (!strip || !figure) return [];
          const source = evidence.things.indexOf(strip.thing);
          return beyond(
            evidence.limits,
            code,
            { value: figure.value },
            () => ({
              of: thing,
              places: places.filter((place) => evidence.view.mirrored[place] === source),
              causes: [{ thing: strip.thing, part: null }],
              working: figure.working,
            }),
            wished && evidence.set.wishes[wished],
          );
        });

/** Rows that show a strip, and all rows between the first and the last of them. */
function span({ rows }: Strip) {
  const shown = rows.flatMap(({ runs }, i) => (runs.length > 0 ? [i] : []));
  return shown.length === 0 ? [] : rows.slice(shown[0], (shown.at(-1) as number) + 1);
}

/**
 * How far the middle of a strip wanders along a straight side, part of the product's width, either way from its mean: one that
 * leans or bends. A strip that keeps its place in the width looks straight, on a tapered side too.
 */
function bend(strip: Strip): { value: number; working: Working } | null {
  const all = span(strip).filter(({ runs }) => runs.length === 1);
  const cut = Math.round(ENDS * all.length);
  const rows = all.slice(cut, all.length - cut);
  if (rows.length < FEWEST_ROWS) return null;
  const middles = rows.map(({ left, right, runs }) => {
    const [from, to] = runs[0] as [number, number];
    return ((from + to) / 2 - left) / (right - left);
  });
  const [rightmost, leftmost] = [Math.max(...middles), Math.min(...middles)];
  return {
    value: (rightmost - leftmost) / 2,
    working: half({ stripRightmost: rightmost, stripLeftmost: leftmost }),
  };
}

/** The part of a straight side, top to bottom, that its strip leaves out. */
function missing({ rows }: Strip): { value: number; working: Working } {
  const without = rows.filter(({ runs }) => runs.length === 0).length;
  return {
    value: without / rows.length,
    working: over({ missingRows: without, sideRows: rows.length }),
  };
}

/** Taller or shorter, higher or lower: what straightens and closes a strip. */
const longerSource: Judge['cures'] = ({ set }, { causes }) => {
  const source = causes[0]?.thing;
  if (source?.kind !== 'light' && source?.kind !== 'sheet') return [];
  const { kind, key } = source;
  return those(
    resized(set, kind, key, 1, 1.5),
    resized(set, kind, key, 1, 2.2),
    ...[0.1, -0.1, 0.2, -0.2, 0.35, -0.35].map((m) => movedBy(set, kind, key, [0, 0, m])),
    ...[0.15, -0.15, 0.3].map((m) => {
      const taller = resized(set, kind, key, 1, 1.6);
      return taller && movedBy(taller, kind, key, [0, 0, m]);
    }),
    resized(set, kind, key, 1, 3.2),
    kind === 'light' ? atDistance(set, key, 0.6) : null,
  );
};

/** A strip that bends along a straight side. */
export const highlightBent: Judge<'highlight-bent'> = {
  code: 'highlight-bent',
  byMaps: true,
  judge: ofStrips('highlight-bent', bend, 'highlightBendPart'),
  cures: longerSource,
};

/** A strip that does not run from top to bottom of a straight side. */
export const highlightBroken: Judge<'highlight-broken'> = {
  code: 'highlight-broken',
  byMaps: true,
  judge: ofStrips('highlight-broken', missing),
  cures: longerSource,
};

/** Sources that make so little of the highlights are not told as a second one. */
const SECOND_PART = 0.15;

/** Two highlights where one strip is wished. */
export const highlightDoubled: Judge<'highlight-doubled'> = {
  code: 'highlight-doubled',
  byMaps: true,
  judge: (evidence) =>
    evidence.set.wishes.highlight !== 'one-strip'
      ? []
      : seenProducts(evidence).flatMap(({ product, thing, index, places }) => {
          const strips = stripsOf(evidence, product, index);
          const sizes = strips.map(({ rows }) =>
            rows.reduce((sum, { runs }) => sum + runs.reduce((all, [from, to]) => all + to - from + 1, 0), 0),
          );
          const most = Math.max(0, ...sizes);
          const seen = strips.filter((_, i) => (sizes[i] as number) >= SECOND_PART * most);
          return beyond(evidence.limits, 'highlight-doubled', { value: seen.length }, () => {
            const others = new Set(seen.slice(1).map((strip) => evidence.things.indexOf(strip.thing)));
            const all = sizes.reduce((sum, size) => sum + size, 0);
            const causes: Cause[] = seen.map((strip) => ({
              thing: strip.thing,
              part: (sizes[strips.indexOf(strip)] as number) / all,
            }));
            return {
              of: thing,
              places: places.filter((place) => others.has(evidence.view.mirrored[place] as number)),
              causes,
              working: from({ sources: seen.length }, { partOfLargest: SECOND_PART }),
            };
          });
        }),
  /** The lesser one off, away, or round to where the product does not show it. */
  cures({ set }, { causes }) {
    const second = causes[1]?.thing;
    if (!second) return [];
    if (second.kind === 'sheet')
      return [
        { ...set, sheets: set.sheets.filter(({ tag }) => tag !== second.key) },
        ...those(movedBy(set, 'sheet', second.key, [0, 0.4, 0])),
      ];
    const own = movableOf(set, { kind: 'light', key: second.key });
    return those(
      switchedOff(set, second.key),
      own && movedBy(set, 'light', second.key, [0, 0, 0.6]),
      own && movedBy(set, 'light', second.key, [0, 0.9, 0]),
    );
  },
};

/** An image of fewer columns of the profile has no middle and no edge. */
const LEAST_COLUMNS = 4;

/** The largest image of one light or sheet across a product at its band, parts of its visible width; null where it mirrors none. */
function imageAtBand({ set, view, things }: Evidence, product: Product, index: number) {
  const { width, height, thing, mirrored } = view.fine;
  const at = projectPoint(viewOf(set.camera), placed(poseOf(product), [0, 0, bandHeightM(product)]));
  const row = at ? Math.floor(at[1] * height) : -1;
  if (row < 0 || row >= height) return null;
  const own = Array.from({ length: width }, (_, x) => x).filter((x) => thing[row * width + x] === index);
  const [left, right] = [own.at(0) ?? 0, own.at(-1) ?? 0];
  let best: { thing: Thing; from: number; to: number } | null = null;
  for (let k = 0; k < own.length; ) {
    const source = mirrored[row * width + (own[k] as number)] as number;
    let end = k;
    while (end + 1 < own.length && mirrored[row * width + (own[end + 1] as number)] === source) end++;
    const image = things[source];
    const [from, to] = [own[k] as number, own[end] as number].map(
      (x) => (x - left) / Math.max(1, right - left),
    );
    if (isSource(set, image) && (!best || (to as number) - (from as number) > best.to - best.from))
      best = { thing: image, from: from as number, to: to as number };
    k = end + 1;
  }
  return best;
}

/** A strip that is much brighter in its middle than beside it: a lamp too near behind its frost. */
export const highlightHot: Judge<'highlight-hot'> = {
  code: 'highlight-hot',
  judge: (evidence) =>
    !wishesHighlight(evidence.set.wishes)
      ? []
      : seenProducts(evidence).flatMap(({ product, thing, index, places }) => {
          const profile = evidence.view.profiles.find((own) => own.product === product.id);
          const image = profile && imageAtBand(evidence, product, index);
          if (!profile || !image) return [];
          const tones = profileStops(evidence.set, profile)
            .filter(
              (_, i) => (profile.part[i] as number) >= image.from && (profile.part[i] as number) <= image.to,
            )
            .sort((a, b) => a - b);
          if (tones.length < LEAST_COLUMNS) return [];
          const columns = {
            brightestColumn: tones.at(-1) as number,
            middleColumn: tones[tones.length >> 1] as number,
          };
          const value = columns.brightestColumn - columns.middleColumn;
          const source = evidence.things.indexOf(image.thing);
          return beyond(evidence.limits, 'highlight-hot', { value }, () => ({
            of: thing,
            places: places.filter((place) => evidence.view.mirrored[place] === source),
            causes: [{ thing: image.thing, part: 1 }],
            working: less(columns),
          }));
        }),
  /** Frost between, or the lamp further behind the one that is there. */
  cures: ({ set }, { causes }) =>
    those(
      ...causes.slice(0, 2).flatMap(({ thing }) => {
        if (thing.kind === 'sheet') {
          const behind = lightBehind(set, thing.key);
          return behind === null ? [] : [1.5, 2].map((by) => atDistance(set, behind, by));
        }
        return [
          withFrost(set, thing.key, 0.3),
          withFrost(set, thing.key, 0.5),
          withoutGrid(set, thing.key),
          resized(set, 'light', thing.key, 1.5, 1.5),
        ];
      }),
    ),
};

/** The light that shines through a sheet: the nearest that is aimed past it. */
function lightBehind({ lights, sheets }: SetDocument, tag: string): string | null {
  const sheet = sheets.find((own) => own.tag === tag);
  if (!sheet) return null;
  const away = (position: readonly number[]) =>
    Math.hypot(...position.map((value, a) => value - (sheet.positionM[a] as number)));
  const near = lights
    .flatMap((light) => (light.on && 'aimM' in light ? [{ tag: light.tag, m: away(light.positionM) }] : []))
    .sort((a, b) => a.m - b.m)[0];
  return near?.tag ?? null;
}

/** A highlight that ends in an edge where it is to fade. */
export const highlightHard: Judge<'highlight-hard'> = {
  code: 'highlight-hard',
  judge(evidence) {
    const { highlight } = evidence.set.wishes;
    if (highlight !== 'bright-front' && highlight !== 'bright-back') return [];
    return seenProducts(evidence).flatMap(({ product, thing, index, places }) => {
      const profile = evidence.view.profiles.find((own) => own.product === product.id);
      const causes = mirroredSources(evidence, index);
      if (!profile || causes.length === 0) return [];
      // The outermost columns are the outline itself.
      const inner = profileStops(evidence.set, profile).slice(2, -2);
      const { steepest } = profileFigures([...profile.part].slice(2, -2), inner);
      return beyond(evidence.limits, 'highlight-hard', { value: steepest }, () => ({
        of: thing,
        places,
        causes,
        working: from({ columns: inner.length }),
      }));
    });
  },
  cures: ({ set, kit }, { causes }) =>
    those(
      ...causes.slice(0, 2).flatMap(({ thing }) => {
        if (thing.kind === 'light') return [0.35, 0.5, 0.65].map((part) => withFrost(set, thing.key, part));
        return (['across', 'out'] as const).map((way) => withGradient(set, kit, thing.key, way));
      }),
    ),
};

/** A white or grey card printed with a gradient from paper to solid ink, in place of its one tone. */
function withGradient(
  set: SetDocument,
  kit: JudgedBy['kit'],
  tag: string,
  direction: 'across' | 'out',
): SetDocument | null {
  const sheet = set.sheets.find((own) => own.tag === tag);
  if (sheet?.front.kind !== 'matte' || sheet.front.tone) return null;
  const front = { ...sheet.front, ...gradientCard(direction, kit) };
  return { ...set, sheets: set.sheets.map((own) => (own === sheet ? { ...sheet, front } : own)) };
}
