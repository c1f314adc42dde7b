import { requireDomain } from '../errors.js';
import type { FrameRect } from '../render/view.js';

/** What is seen at each place of a grid over the frame, by its number; -1 nothing. */
export interface SeenGrid {
  width: number;
  height: number;
  thing: Int32Array;
}

/** A picture as judged: outlines by the pixel, tones by places that are few and sure. */
export interface JudgedFrame extends SeenGrid {
  /** Width of a pixel where the hero stands, m. */
  pixelM: number;
  /** Luminance of each place, any unit. */
  tones: SeenGrid & { luminance: ArrayLike<number> };
}

export interface CompositionWish {
  hero: number;
  /** Things that are arranged: products, props, cards in the picture. */
  things: readonly number[];
  /** Ground: bench and backdrop. */
  ground: readonly number[];
  /** Whether the other things should lie scattered. */
  scattered: boolean;
  copy: FrameRect | null;
}

export type CompositionFinding =
  | { what: 'tangent'; a: number; b: number; gapPart: number }
  | { what: 'edge'; thing: number; side: 'left' | 'right' | 'top' | 'bottom'; gapPart: number }
  | { what: 'row'; things: number[]; offPart: number }
  | { what: 'tone'; stops: number }
  | { what: 'horizon'; atPart: number }
  | { what: 'symmetry'; offMm: number; unlikePart: number }
  | { what: 'copy'; freePart: number };

/** An edge that differs less from what is behind it hardly stands out, stops. */
const SEPARATES_STOPS = 0.5;
/** A hero this far off the middle is seen to be off it, mm. */
const OFF_MIDDLE_MM = 2;
/** Of the place for words, this much is to be quiet. */
const QUIET_PART = 0.9;

/** Whether a finding is something to look at, not only a figure. Thresholds are usual practice. */
export function isCaution(finding: CompositionFinding): boolean {
  switch (finding.what) {
    case 'tone':
      return Math.abs(finding.stops) < SEPARATES_STOPS;
    case 'symmetry':
      return Math.abs(finding.offMm) > OFF_MIDDLE_MM;
    case 'copy':
      return finding.freePart < QUIET_PART;
    default:
      return true;
  }
}

/** Outlines nearer than this part of the frame's width seem to touch; a contact shorter than three times as much too. */
const TOUCH_PART = 0.008;
/** Things whose middles leave a line by less than this part of the frame's width seem to stand in a row. */
const ROW_PART = 0.015;

/**
 * Judges how a picture is arranged: outlines that just touch each other or the frame, near-straight rows, tone of the
 * hero against what is round it, a horizon through it, its symmetry, and how quiet the place for words is.
 * Limits: by what is seen in the picture as rendered, a pixel fine, tones a place fine; thresholds are usual practice.
 * @throws {DomainError} arrays that do not fit the size
 */
export function judgeComposition(frame: JudgedFrame, wish: CompositionWish): CompositionFinding[] {
  const { tones } = frame;
  const places = tones.width * tones.height;
  requireDomain(
    frame.thing.length === frame.width * frame.height &&
      tones.thing.length === places &&
      tones.luminance.length === places,
    'arrays have a number for each pixel, and for each place',
  );
  const boxes = new Map(wish.things.map((thing) => [thing, boxOf(frame, thing)] as const));
  const seen = wish.things.filter((thing) => boxes.get(thing) !== null);
  return [
    ...tangents(frame, seen),
    ...edges(frame, seen, boxes),
    ...(wish.scattered
      ? rows(
          frame,
          seen.filter((thing) => thing !== wish.hero),
        )
      : []),
    ...tone(tones, wish),
    ...horizon(frame, wish, boxes.get(wish.hero) ?? null),
    ...symmetry(frame, wish.hero),
    ...(wish.copy ? quietness(frame, wish, wish.copy) : []),
  ];
}

interface Box {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

function boxOf({ thing, width }: SeenGrid, which: number): Box | null {
  let box: Box | null = null;
  for (let i = 0; i < thing.length; i++) {
    if (thing[i] !== which) continue;
    const x = i % width;
    const y = (i - x) / width;
    if (!box) box = { left: x, right: x, top: y, bottom: y };
    else {
      box.left = Math.min(box.left, x);
      box.right = Math.max(box.right, x);
      box.bottom = y;
    }
  }
  return box;
}

/** Pairs that are close without covering each other, or touch along a short line only. */
function tangents({ width, height, thing }: SeenGrid, seen: readonly number[]): CompositionFinding[] {
  const reach = Math.max(1, Math.round(TOUCH_PART * width));
  const index = new Map(seen.map((which, i) => [which, i]));
  const n = seen.length;
  const nearest = new Float64Array(n * n).fill(Infinity);
  const contact = new Float64Array(n * n);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const a = index.get(thing[y * width + x] as number);
      if (a === undefined) continue;
      for (let d = 1; d <= reach; d++) {
        for (const [dx, dy] of [
          [d, 0],
          [0, d],
        ] as const) {
          if (x + dx >= width || y + dy >= height) continue;
          const b = index.get(thing[(y + dy) * width + x + dx] as number);
          if (b === undefined || b === a) continue;
          const at = Math.min(a, b) * n + Math.max(a, b);
          nearest[at] = Math.min(nearest[at] as number, d - 1);
          if (d === 1) contact[at] = (contact[at] as number) + 1;
        }
      }
    }
  }
  const findings: CompositionFinding[] = [];
  for (let a = 0; a < n; a++) {
    for (let b = a + 1; b < n; b++) {
      const gap = nearest[a * n + b] as number;
      const overlaps = gap === 0 && (contact[a * n + b] as number) > 3 * reach;
      if (Number.isFinite(gap) && !overlaps) {
        findings.push({ what: 'tangent', a: seen[a] as number, b: seen[b] as number, gapPart: gap / width });
      }
    }
  }
  return findings;
}

/** Things that just reach, or just miss, an edge of the frame. */
function edges(
  { width, height, thing }: SeenGrid,
  seen: readonly number[],
  boxes: ReadonlyMap<number, Box | null>,
): CompositionFinding[] {
  const reach = Math.max(1, Math.round(TOUCH_PART * width));
  return seen.flatMap((which) => {
    const box = boxes.get(which) as Box;
    const gaps = [
      ['left', box.left, countOn(which, 0, 1, height)],
      ['right', width - 1 - box.right, countOn(which, width - 1, 1, height)],
      ['top', box.top, countOn(which, 0, 0, width)],
      ['bottom', height - 1 - box.bottom, countOn(which, height - 1, 0, width)],
    ] as const;
    return gaps.flatMap(([side, gap, cut]) =>
      gap <= reach && cut <= 3 * reach
        ? [{ what: 'edge' as const, thing: which, side, gapPart: gap / width }]
        : [],
    );
  });

  /** Pixels of a thing along a column (upright 1) or row of the frame. */
  function countOn(which: number, line: number, upright: 0 | 1, length: number): number {
    let count = 0;
    for (let i = 0; i < length; i++) {
      if (thing[upright ? i * width + line : line * width + i] === which) count++;
    }
    return count;
  }
}

/** Three or more things whose middles lie on one line. */
function rows(frame: SeenGrid, seen: readonly number[]): CompositionFinding[] {
  const middles = seen.map((which) => ({ which, ...middleOf(frame, which) }));
  let best: { things: number[]; offPart: number } | null = null;
  for (let a = 0; a < middles.length; a++) {
    for (let b = a + 1; b < middles.length; b++) {
      const p = middles[a] as (typeof middles)[number];
      const q = middles[b] as (typeof middles)[number];
      const length = Math.hypot(q.x - p.x, q.y - p.y);
      if (!(length > 0)) continue;
      const offs = middles.map((m) => ({
        which: m.which,
        off: Math.abs((q.x - p.x) * (m.y - p.y) - (q.y - p.y) * (m.x - p.x)) / length / frame.width,
      }));
      const near = offs.filter(({ off }) => off < ROW_PART);
      if (near.length < 3 || near.length <= (best?.things.length ?? 2)) continue;
      best = { things: near.map(({ which }) => which), offPart: Math.max(...near.map(({ off }) => off)) };
    }
  }
  return best ? [{ what: 'row', ...best }] : [];
}

function middleOf({ thing, width }: SeenGrid, which: number): { x: number; y: number } {
  let [x, y, count] = [0, 0, 0];
  for (let i = 0; i < thing.length; i++) {
    if (thing[i] !== which) continue;
    x += i % width;
    y += Math.floor(i / width);
    count++;
  }
  return { x: x / count, y: y / count };
}

/**
 * Mean luminance just inside the hero's outline over that just outside of it, stops: a place away from the outline on either
 * side, since the one that it crosses has light of both; where the hero is too thin for that, of those it crosses.
 */
function tone(tones: JudgedFrame['tones'], wish: CompositionWish): CompositionFinding[] {
  const sums = across(tones, wish, 1) ?? across(tones, wish, 0);
  return sums && sums.inside > 0 && sums.outside > 0
    ? [{ what: 'tone', stops: Math.log2(sums.inside / sums.outside) }]
    : [];
}

/** Light of pairs of places inside and outside the hero's outline, each so many from it; null where there is none. */
function across(
  { width, height, thing, luminance }: JudgedFrame['tones'],
  { hero, ground }: CompositionWish,
  away: number,
): { inside: number; outside: number } | null {
  const isGround = new Set(ground);
  const isAll = (is: (seen: number) => boolean, from: number, step: number) => {
    for (let k = 0; k <= away; k++) if (!is(thing[from + k * step] as number)) return false;
    return true;
  };
  const isHero = (seen: number) => seen === hero;
  const isOfGround = (seen: number) => isGround.has(seen);
  let [inside, outside, pairs] = [0, 0, 0];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      for (const [step, place, length] of [
        [1, x, width],
        [width, y, height],
      ] as const) {
        if (place < away || place + 1 + away >= length) continue;
        const before = y * width + x;
        const after = before + step;
        const heroFirst = isAll(isHero, before, -step) && isAll(isOfGround, after, step);
        if (!heroFirst && !(isAll(isOfGround, before, -step) && isAll(isHero, after, step))) continue;
        const [first, last] = [before - away * step, after + away * step].map((i) => luminance[i] as number);
        inside += (heroFirst ? first : last) as number;
        outside += (heroFirst ? last : first) as number;
        pairs++;
      }
    }
  }
  return pairs > 0 ? { inside, outside } : null;
}

/** Where the line between two grounds meets the hero from both sides, part of its height from the foot. */
function horizon(
  { width, thing }: SeenGrid,
  { hero, ground }: CompositionWish,
  box: Box | null,
): CompositionFinding[] {
  if (!box || ground.length < 2) return [];
  const isGround = new Set(ground);
  const lineAt = (x: number): number | null => {
    for (let y = box.top + 1; y <= box.bottom; y++) {
      const [above, below] = [thing[(y - 1) * width + x] as number, thing[y * width + x] as number];
      if (above !== below && isGround.has(above) && isGround.has(below)) return y;
    }
    return null;
  };
  const sides = [box.left - 2, box.right + 2].filter((x) => x >= 0 && x < width).map(lineAt);
  const found = sides.filter((y) => y !== null);
  if (found.length === 0) return [];
  const y = found.reduce((sum, each) => sum + each, 0) / found.length;
  const atPart = (box.bottom - y) / Math.max(1, box.bottom - box.top);
  return thing.includes(hero) && atPart > 0.02 && atPart < 0.98 ? [{ what: 'horizon', atPart }] : [];
}

/** How far the hero stands from the middle of the frame, and how unlike its halves are. */
function symmetry({ width, height, thing, pixelM }: JudgedFrame, hero: number): CompositionFinding[] {
  let [sum, count] = [0, 0];
  for (let i = 0; i < thing.length; i++) {
    if (thing[i] !== hero) continue;
    sum += i % width;
    count++;
  }
  if (count === 0) return [];
  const middle = sum / count;
  let unlike = 0;
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      if (thing[y * width + x] !== hero) continue;
      const mirrored = Math.round(2 * middle - x);
      if (mirrored < 0 || mirrored >= width || thing[y * width + mirrored] !== hero) unlike++;
    }
  }
  const offMm = (middle - (width - 1) / 2) * pixelM * 1000;
  return [{ what: 'symmetry', offMm, unlikePart: unlike / count }];
}

/** Part of the place for words that is ground and even in tone, within a third of a stop of what is beside and below it. */
function quietness(
  { width, height, thing, tones }: JudgedFrame,
  { ground }: CompositionWish,
  copy: FrameRect,
): CompositionFinding[] {
  const isGround = new Set(ground);
  const even = evenGround(tones, isGround);
  const [x0, x1] = [Math.ceil(copy.left * width), Math.floor(copy.right * width)];
  const [y0, y1] = [Math.ceil(copy.top * height), Math.floor(copy.bottom * height)];
  let [free, count] = [0, 0];
  for (let y = y0; y < y1; y++) {
    const row = Math.floor((y * tones.height) / height) * tones.width;
    for (let x = x0; x < x1; x++) {
      count++;
      const isFree = isGround.has(thing[y * width + x] as number);
      if (isFree && even[row + Math.floor((x * tones.width) / width)]) free++;
    }
  }
  return count > 0 ? [{ what: 'copy', freePart: free / count }] : [];
}

/** Places of a block, each way, whose mean is held against the next: single ones differ by their noise alone. */
const BLOCK = 2;

/** By place, whether its block of ground is as bright as the next to the right and below, as far as those are ground. */
function evenGround(
  { width, height, thing, luminance }: JudgedFrame['tones'],
  isGround: ReadonlySet<number>,
): boolean[] {
  const columns = Math.ceil(width / BLOCK);
  const rows = Math.ceil(height / BLOCK);
  const blockOf = (place: number) =>
    Math.floor(Math.floor(place / width) / BLOCK) * columns + Math.floor((place % width) / BLOCK);
  const sums = new Float64Array(columns * rows);
  const counts = new Float64Array(columns * rows);
  for (let place = 0; place < thing.length; place++) {
    if (!isGround.has(thing[place] as number)) continue;
    const block = blockOf(place);
    sums[block] = (sums[block] as number) + (luminance[place] as number);
    counts[block] = (counts[block] as number) + 1;
  }
  const isLike = (one: number, other: number) => {
    if (counts[one] === 0 || counts[other] === 0) return true;
    const [own, beside] = [one, other].map((i) => (sums[i] as number) / (counts[i] as number));
    return own === beside || Math.abs(Math.log2((own as number) / (beside as number))) < 1 / 3;
  };
  const isEven = Array.from(sums, (_, block) => {
    const right = block % columns < columns - 1 ? block + 1 : block;
    const below = block + columns < sums.length ? block + columns : block;
    return isLike(block, right) && isLike(block, below);
  });
  return Array.from(thing, (_, place) => isEven[blockOf(place)] === true);
}
