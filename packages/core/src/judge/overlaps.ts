import type { Light, SetDocument, Sheet, Vector } from '@fendrix/contract';
import { RAY_TO } from '../engine/layouts.js';
import { uprightOf } from '../geometry/bystanders.js';
import { standsInRoom } from '../geometry/roomBounds.js';
import type { Thing } from '../geometry/scene.js';
import { cutOutSize } from '../geometry/sheets.js';
import { prepareTracing, type Tracing } from '../render/prepareTracing.js';
import { setRay } from '../trace/engineCalls.js';
import { aimFrame } from '../units/frame.js';
import { add, distance, normalise, scale, subtract } from '../units/vector.js';

/** A light, sheet or stand that stands in or through something else. */
export interface Overlap {
  kind: 'light' | 'sheet' | 'stand';
  key: string;
  /** What it goes through. */
  other: Thing;
  /** The least move of the light or sheet that clears it of everything, m; null where half a metre does not. */
  wayOutM: Vector | null;
}

/** What an overlap is called where it is allowed: both things, in the order of their names. */
export const overlapName = ({ kind, key, other }: Overlap): string =>
  [`${kind} ${key}`, other.kind === other.key ? other.kind : `${other.kind} ${other.key}`].sort().join(' | ');

/** A straight line within a thing. */
type Bone = readonly [Vector, Vector];

type Held = Exclude<Light, { kind: 'surround' }> | Sheet;

/** Lines end this far within the thing: what touches does not overlap, m. */
const TOUCH_M = 0.004;
/** From the face of a light back to the end of its head, m. */
const HEAD_M = 0.16;
/** Moves tried for a way out, m. */
const STEP_M = 0.02;
const MOST_M = 0.5;
/** Things of its own that a line may pass before it is given up. */
const MOST_PASSED = 12;

/**
 * Lights, sheets and their stands that go through bench, backdrop, walls, products, each other, camera or people: along the
 * edges and diagonals of each of them a ray asks what it meets. Those that the set allows are left out.
 * Limits: flat sheets, discs and lights; tents, cones, curves, folds and leaves are not asked about themselves; a thing that
 * fits between the lines is missed. Heads are taken 16 cm deep.
 */
export function overlaps(set: SetDocument): Overlap[] {
  const tracing = prepareTracing(set, 'plain');
  const found: Overlap[] = [];
  const ask = (kind: Overlap['kind'], key: string, held: Held, bones: readonly Bone[]) => {
    const others = through(tracing, kind, key, bones);
    if (others.length === 0) return;
    const wayOutM = kind === 'stand' ? null : wayOut(set, tracing, kind, held);
    for (const other of others) found.push({ kind, key, other, wayOutM });
  };
  for (const light of set.lights) if (light.kind !== 'surround') askHeld('light', light);
  for (const sheet of set.sheets) askHeld('sheet', sheet);
  return onceEach(found).filter((one) => !set.allowedOverlaps.includes(overlapName(one)));

  function askHeld(kind: 'light' | 'sheet', held: Held): void {
    ask(kind, held.tag, held, bonesOf(held));
    const pole = held.stand ? uprightOf(held, set) : null;
    // Its foot stands on the floor or the bench.
    if (pole) ask('stand', held.tag, held, [[pole.top, add(pole.foot, [0, 0, 0.02])]]);
  }
}

/** Of two things that go through each other one line is enough. */
function onceEach(found: readonly Overlap[]): Overlap[] {
  const names = found.map(overlapName);
  return found.filter((_, at) => names.indexOf(names[at] as string) === at);
}

function through(
  { engine, scene }: Tracing,
  kind: Overlap['kind'],
  key: string,
  bones: readonly Bone[],
): Thing[] {
  const met = new Map<number, Thing>();
  for (const [a, b] of bones) {
    const way = normalise(subtract(b, a));
    const length = distance(a, b) - 2 * TOUCH_M;
    let from = add(a, scale(way, TOUCH_M));
    let left = length;
    for (let i = 0; i < MOST_PASSED && left > 0; i++) {
      setRay(engine.ray, from, way, left);
      const primitive = engine.closestHit();
      if (primitive < 0) break;
      const index = scene.table.thing[primitive] as number;
      const thing = scene.things[index];
      const own = thing?.key === key && (thing.kind === kind || thing.kind === 'stand' || kind === 'stand');
      if (thing && !own) met.set(index, thing);
      const step = (engine.ray[RAY_TO] as number) + 1e-5;
      from = add(from, scale(way, step));
      left -= step;
    }
  }
  return [...met.values()];
}

/** Up, down, to the sides, towards the camera and away: the shortest of them that clears it, within the room. It turns to its aim. */
function wayOut(set: SetDocument, tracing: Tracing, kind: 'light' | 'sheet', held: Held): Vector | null {
  const ways: readonly Vector[] = [
    [0, 0, 1],
    [-1, 0, 0],
    [1, 0, 0],
    [0, -1, 0],
    [0, 1, 0],
    [0, 0, -1],
  ];
  for (let size = STEP_M; size <= MOST_M + 1e-9; size += STEP_M) {
    for (const way of ways) {
      const move = scale(way, Math.round(size * 100) / 100);
      const positionM = add(held.positionM, move);
      if (!standsInRoom(set, positionM)) continue;
      if (through(tracing, kind, held.tag, bonesOf({ ...held, positionM })).length === 0) return move;
    }
  }
  return null;
}

function bonesOf(held: Held): Bone[] {
  if (!('aimM' in held)) {
    const radius = 'radiusM' in held ? held.radiusM : 0.02;
    return crossed(held.positionM, [radius, 0, 0], [0, radius, 0], [[0, 0, radius]]);
  }
  const { right, up, forward } = aimFrame(held.positionM, held.aimM, held.rollDeg);
  const head: Vector[] = hasHead(held) ? [scale(forward, -HEAD_M)] : [];
  const size = faceOf(held);
  return size ? crossed(held.positionM, scale(right, size[0] / 2), scale(up, size[1] / 2), head) : [];
}

/** Which lights have a flash head or lamp behind their face. */
const HAS_HEAD: Record<Exclude<Held['kind'], Sheet['kind']>, boolean> = {
  softbox: true,
  octa: true,
  dish: true,
  umbrella: true,
  snoot: true,
  projector: true,
  ring: false,
  tube: false,
  panel: false,
  ies: false,
  'bare-lamp': false,
  'table-lamp': false,
  window: false,
};

const hasHead = ({ kind }: Held): boolean => kind in HAS_HEAD && HAS_HEAD[kind as keyof typeof HAS_HEAD];

/** Across and up of a flat face, m; null for what has none. */
function faceOf(held: Held): [number, number] | null {
  switch (held.kind) {
    case 'tent':
    case 'cone':
    case 'curve':
    case 'fold':
    case 'leaves':
    case 'window':
      return null;
    case 'cut-out': {
      const { widthM, heightM } = cutOutSize(held);
      return [widthM * 0.7, heightM];
    }
    case 'ring':
      return [held.outerDiameterM, held.outerDiameterM];
    case 'tube':
      return [held.lengthM, held.diameterM];
    case 'projector':
      return [held.lensDiameterM, held.lensDiameterM];
    case 'ies':
      return [held.openingWidthM, held.openingLengthM];
    default:
      if ('diameterM' in held) return [held.diameterM * 0.96, held.diameterM * 0.96];
      return 'widthM' in held ? [held.widthM, held.heightM] : null;
  }
}

/** Edges and diagonals of a rectangle round a point, and lines from its middle. */
function crossed(middle: Vector, u: Vector, v: Vector, more: readonly Vector[]): Bone[] {
  const at = (a: number, b: number) => add(middle, add(scale(u, a), scale(v, b)));
  const [one, two, three, four] = [at(-1, -1), at(1, -1), at(1, 1), at(-1, 1)] as const;
  return [
    [one, two],
    [two, three],
    [three, four],
    [four, one],
    [one, three],
    [two, four],
    [at(-1, 0), at(1, 0)],
    [at(0, -1), at(0, 1)],
    ...more.map((way): Bone => [middle, add(middle, way)]),
  ];
}
