import type { SetDocument, Vector } from '@fendrix/contract';
import { type CompositionFinding, judgeComposition } from '../../judge/composition.js';
import { cropRect } from '../../plan/frameFit.js';
import { type FrameRect, viewOf } from '../../render/view.js';
import { add, distance, scale } from '../../units/vector.js';
import { those, withCamera } from '../changes/changes.js';
import { type Evidence, heroOf, placesOf, seenProducts } from '../evidence.js';
import { beyond } from '../found.js';
import type { Judge } from '../verdict.js';
import { apart, from, over, type Working } from '../working.js';

/** Kinds of product that are many things in one. */
const STREWN: ReadonlySet<string> = new Set(['pieces', 'cloth', 'water', 'chain']);

type FindingOf<K extends CompositionFinding['what']> = Extract<CompositionFinding, { what: K }>;

/** Where words are to stand in the first crop that keeps room for them, parts of the frame; null without one. */
function wordsRoom({
  camera,
}: SetDocument): { rect: FrameRect; side: 'left' | 'right' | 'top' | 'bottom' } | null {
  for (const crop of camera.crops) {
    const { copySide: side, copyPart } = crop;
    if (side === 'none' || !(copyPart > 0)) continue;
    const { left, top, right, bottom } = cropRect(camera, crop);
    const [wide, high] = [(right - left) * copyPart, (bottom - top) * copyPart];
    const rect = {
      left: side === 'right' ? right - wide : left,
      right: side === 'left' ? left + wide : right,
      top: side === 'bottom' ? bottom - high : top,
      bottom: side === 'top' ? top + high : bottom,
    };
    return { rect, side };
  }
  return null;
}

/** What was found of a view: all verdicts here ask for it. */
const found = new WeakMap<Evidence, CompositionFinding[]>();

function findings(evidence: Evidence): CompositionFinding[] {
  const kept = found.get(evidence) ?? arranged(evidence);
  found.set(evidence, kept);
  return kept;
}

/** How the picture is arranged, by the fine map; tones by the coarse places. */
function arranged(evidence: Evidence): CompositionFinding[] {
  const { set, view, things, stops, across, down } = evidence;
  const products = seenProducts(evidence);
  const hero = heroOf(evidence);
  if (!hero) return [];
  const ground = [...things.keys()].filter((index) =>
    ['bench', 'backdrop', 'room'].includes(things[index]?.kind ?? ''),
  );
  const { width, height, thing } = view.fine;
  const tones = {
    width: across,
    height: down,
    thing: evidence.thing,
    luminance: stops.map((own) => 2 ** own),
  };
  const copy = wordsRoom(set)?.rect ?? null;
  return judgeComposition(
    { width, height, thing, pixelM: 1, tones },
    {
      hero: hero.index,
      // What is strewn is cut by the frame on purpose.
      things: products.filter(({ product }) => !STREWN.has(product.kind)).map(({ index }) => index),
      ground,
      scattered: false,
      copy,
    },
  );
}

const only = <K extends CompositionFinding['what']>(evidence: Evidence, what: K): FindingOf<K>[] =>
  findings(evidence).filter((finding): finding is FindingOf<K> => finding.what === what);

/** A product pushed across the picture, or back; its name by its number among the things. */
function pushed(set: SetDocument, key: string, by: Vector): SetDocument {
  return {
    ...set,
    products: set.products.map((product) =>
      product.id === key ? { ...product, positionM: add(product.positionM, by) } : product,
    ),
  };
}

/** A gap of the fine map over the width of it. */
const gapWorking = ({ view: { fine } }: Evidence, gapPart: number): Working =>
  over({ gap: gapPart * fine.width, frameWidth: fine.width });

/** Outlines of two products that just touch. */
export const touching: Judge<'touching'> = {
  code: 'touching',
  byMaps: true,
  judge: (evidence) =>
    only(evidence, 'tangent').flatMap(({ a, b, gapPart }) => {
      const [one, other] = [evidence.things[a], evidence.things[b]];
      if (!one || !other) return [];
      return beyond(evidence.limits, 'touching', { value: gapPart }, () => ({
        of: one,
        places: [...placesOf(evidence, a), ...placesOf(evidence, b)],
        working: gapWorking(evidence, gapPart),
        causes: [one, other].map((thing) => ({ thing, part: 0.5 })),
      }));
    }),
  /** Either of the two outwards, clear of the other or well behind it. */
  cures({ set, view, things }, { causes }) {
    const middle = (key: string) => {
      const { width, thing } = view.fine;
      const index = things.findIndex((own) => own.kind === 'product' && own.key === key);
      let [sum, count] = [0, 0];
      for (let i = 0; i < thing.length; i++)
        if (thing[i] === index) {
          sum += i % width;
          count++;
        }
      return sum / Math.max(1, count);
    };
    const [one, other] = causes.map(({ thing }) => thing.key);
    if (one === undefined || other === undefined) return [];
    const side = middle(one) < middle(other) ? -1 : 1;
    const { right } = viewOf(set.camera);
    const way = (to: number) => [to * side * right[0], to * side * right[1], 0] as Vector;
    return [0.015, 0.03, 0.05].flatMap((m) => [
      pushed(set, one, way(m)),
      pushed(set, other, way(-m)),
      pushed(pushed(set, one, way(m / 2)), other, way(-m / 2)),
      // Well one behind the other.
      pushed(set, one, way(-1.5 * m)),
    ]);
  },
};

/** A product that just reaches, or just misses, an edge of the frame. */
export const atTheEdge: Judge<'at-the-edge'> = {
  code: 'at-the-edge',
  byMaps: true,
  judge: (evidence) =>
    only(evidence, 'edge').flatMap(({ thing, gapPart }) => {
      const own = evidence.things[thing];
      if (!own) return [];
      return beyond(evidence.limits, 'at-the-edge', { value: gapPart }, () => ({
        of: own,
        places: placesOf(evidence, thing),
        working: gapWorking(evidence, gapPart),
        causes: [{ thing: own, part: 1 }],
      }));
    }),
  cures: (evidence) => reframed(evidence.set),
};

/** Farther back with the same lens, or aimed a little aside: more room round the products. */
function reframed(set: SetDocument): SetDocument[] {
  const { camera } = set;
  const { right, up } = viewOf(camera);
  const whole = distance(camera.positionM, camera.aimM);
  const back = (by: number) => {
    const from = scale(
      [0, 1, 2].map((a) => (camera.positionM[a] as number) - (camera.aimM[a] as number)) as Vector,
      by,
    );
    return withCamera(set, { positionM: add(camera.aimM, from), focusM: camera.focusM + (by - 1) * whole });
  };
  const aside = (way: Vector, part: number) =>
    withCamera(set, { aimM: add(camera.aimM, scale(way, part * whole)) });
  return [back(1.12), back(1.25), ...[0.03, -0.03].flatMap((part) => [aside(right, part), aside(up, part)])];
}

/** Room for words that is not free and even. */
export const noRoomForWords: Judge<'no-room-for-words'> = {
  code: 'no-room-for-words',
  judge(evidence) {
    const room = wordsRoom(evidence.set);
    if (!room) return [];
    const { rect } = room;
    const { across, down, things, thing } = evidence;
    return only(evidence, 'copy').flatMap(({ freePart }) =>
      beyond(evidence.limits, 'no-room-for-words', { value: freePart }, () => {
        const places = [...thing.keys()].filter((place) => {
          const [x, y] = [((place % across) + 0.5) / across, (Math.floor(place / across) + 0.5) / down];
          const inside = x > rect.left && x < rect.right && y > rect.top && y < rect.bottom;
          const kind = things[thing[place] as number]?.kind ?? 'room';
          return inside && !['bench', 'backdrop', 'room'].includes(kind);
        });
        const keys = [...new Set(places.map((place) => thing[place] as number))];
        return {
          of: null,
          places,
          working: from({ freePart }),
          causes: keys.flatMap((index) => {
            const own = things[index];
            return own
              ? [{ thing: own, part: placesIn(thing, places, index) / Math.max(1, places.length) }]
              : [];
          }),
        };
      }),
    );
  },
  /** Aimed to the side where the words are, so that the products go to the other; from farther back. */
  cures({ set }) {
    const room = wordsRoom(set);
    if (!room) return [];
    const { camera } = set;
    const { right, up } = viewOf(camera);
    const whole = distance(camera.positionM, camera.aimM);
    const ways: Record<typeof room.side, Vector> = {
      left: scale(right, -1),
      right,
      top: up,
      bottom: scale(up, -1),
    };
    const aimed = (of: SetDocument, part: number) =>
      withCamera(of, { aimM: add(camera.aimM, scale(ways[room.side], part * whole)) });
    const backed = reframed(set)[0] as SetDocument;
    return [
      ...[0.02, 0.04, 0.07, 0.1].map((part) => aimed(set, part)),
      ...[0.04, 0.08].map((part) => aimed(backed, part)),
      ...reframed(set).slice(0, 2),
    ];
  },
};

const placesIn = (thing: Int32Array, places: readonly number[], index: number): number =>
  places.filter((place) => thing[place] === index).length;

/** A line between two grounds that runs through the product near its middle. */
export const horizonThrough: Judge<'horizon-through'> = {
  code: 'horizon-through',
  byMaps: true,
  judge: (evidence) =>
    only(evidence, 'horizon').flatMap(({ atPart }) => {
      const hero = heroOf(evidence);
      if (!hero) return [];
      const ground = evidence.things.find(({ kind }) => kind === 'bench' || kind === 'backdrop');
      // Near the foot or over the top a line does not cut it: a quarter from its middle is where it does.
      return beyond(evidence.limits, 'horizon-through', { value: Math.abs(atPart - 0.5) }, () => ({
        of: hero.thing,
        places: [],
        causes: ground ? [{ thing: ground, part: null }] : [],
        working: apart({ lineAt: atPart, productMiddle: 0.5 }),
      }));
    }),
  /** The camera higher or lower, aimed as before. */
  cures: ({ set }) =>
    those(
      ...[0.06, 0.12, 0.2, -0.04].map((m) =>
        withCamera(set, { positionM: add(set.camera.positionM, [0, 0, m]) }),
      ),
    ),
};

/** Farther off the middle than this it is placed aside on purpose, of the width of the frame. */
const ASIDE_PART = 0.08;

/** A product alone that stands nearly, and not quite, in the middle. */
export const offCentre: Judge<'off-centre'> = {
  code: 'off-centre',
  byMaps: true,
  judge(evidence) {
    const { set } = evidence;
    const seen = seenProducts(evidence);
    const [hero] = seen;
    // Words, things beside it and a flat lay are reasons to stand elsewhere.
    if (!hero || seen.length > 1 || wordsRoom(set) !== null || hero.product.kind === 'pieces') return [];
    const off = offMiddle(evidence, hero.index);
    const value = Math.abs(off);
    if (value > ASIDE_PART) return [];
    return beyond(evidence.limits, 'off-centre', { value }, () => ({
      of: hero.thing,
      places: hero.places,
      causes: [{ thing: hero.thing, part: 1 }],
      working: apart({ productMiddle: off + 0.5, frameMiddle: 0.5 }),
    }));
  },
  /** Aimed, or the product moved, by just so much. */
  cures(evidence, { of }) {
    const { set, things } = evidence;
    const index = things.findIndex((own) => own.kind === 'product' && own.key === of?.key);
    const { camera } = set;
    const { right, halfWidth } = viewOf(camera);
    const by = 2 * offMiddle(evidence, index) * halfWidth * distance(camera.positionM, camera.aimM);
    const aside = scale(right, by);
    return [
      withCamera(set, { aimM: add(camera.aimM, aside), positionM: add(camera.positionM, aside) }),
      pushed(set, of?.key ?? '', [-aside[0], -aside[1], 0]),
    ];
  },
};

/** From the middle of the frame to that of a thing, parts of the width, right above 0. */
function offMiddle({ view }: Evidence, index: number): number {
  const { width, thing } = view.fine;
  let [left, right] = [width, -1];
  for (let i = 0; i < thing.length; i++) {
    if (thing[i] !== index) continue;
    left = Math.min(left, i % width);
    right = Math.max(right, i % width);
  }
  return right < 0 ? 0 : (left + right + 1) / 2 / width - 0.5;
}

/** More than this is tilted on purpose, degrees. */
const ON_PURPOSE_DEG = 6;

/** A camera that is held a little askew. */
export const tilted: Judge<'tilted'> = {
  code: 'tilted',
  byMaps: true,
  judge({ set, limits }) {
    const { rollDeg } = set.camera;
    const levelRoll = 90 * Math.round(rollDeg / 90);
    const value = Math.abs(rollDeg - levelRoll);
    if (value > ON_PURPOSE_DEG) return [];
    return beyond(limits, 'tilted', { value }, () => ({
      of: null,
      places: [],
      causes: [],
      working: apart({ rollOf: rollDeg, levelRoll }),
    }));
  },
  cures: ({ set }) => [withCamera(set, { rollDeg: 90 * Math.round(set.camera.rollDeg / 90) })],
};
