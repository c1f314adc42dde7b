import { requireDomain } from '../../errors.js';

/** A picture of the day. Minutes count from its start. */
export interface DayPicture {
  id: string;
  /** To take it, once its set stands. */
  minutes: number;
  /** Not begun before, and ended by: the client's or courier's time, daylight, drying, what perishes. */
  notBefore?: number;
  endedBy?: number;
}

/** What the order of a day is made of. */
export interface DayPlan {
  pictures: readonly DayPicture[];
  /** Minutes from one set to another: [from][to]; the last row is from the empty table. */
  change: readonly (readonly number[])[];
  /** Pairs of which the first comes before the second, by their numbers. */
  before: readonly (readonly [number, number])[];
  /** Lunch: nothing is done from then on for so many minutes. */
  pause?: Pause | undefined;
}

export interface Pause {
  from: number;
  minutes: number;
}

const NO_PAUSE: Pause = { from: Number.POSITIVE_INFINITY, minutes: 0 };

/** When a set stands that is begun at a time: setting up is broken off for the pause. */
function setUpBy({ from, minutes }: Pause, begun: number, change: number): number {
  const to = from + minutes;
  if (begun >= from && begun < to) return to + change;
  return begun + change + (begun < from && begun + change > from ? minutes : 0);
}

/** When a picture begins whose set stands: one that would run into the pause waits until after it. */
const beginsAt = (pause: Pause, ready: number, takes: number, notBefore: number): number => {
  const start = Math.max(ready, notBefore);
  const to = pause.from + pause.minutes;
  return start < to && start + takes > pause.from ? to : start;
};

export interface DayOrder {
  /** Numbers of the pictures, in their order. */
  order: number[];
  /** When the day is over, minutes from its start. */
  endsAt: number;
  /** No order is over sooner than this; the same as `endsAt` where the order is proved to be the best. */
  bound: number;
}

/** Pictures up to which every order is weighed. */
export const EXACT_UP_TO = 16;
const NEVER = Number.POSITIVE_INFINITY;
/** Tries from other beginnings, where not every order can be weighed. */
const STARTS = 12;

/**
 * The order in which a day is over soonest: pictures, what lies between them, a pause, and waiting where something is not ready. Exact
 * up to 16 pictures, by the soonest end of each set of pictures and its last one; beyond, the best of many, with a bound.
 * @returns null where no order keeps all times
 * @throws {DomainError} a matrix that does not fit, or a number that is none
 */
export function bestOrder(plan: DayPlan): DayOrder | null {
  const n = plan.pictures.length;
  requireDomain(
    plan.change.length === n + 1 && plan.change.every((row) => row.length === n),
    'there is a price from each picture, and from the empty table, to each',
  );
  if (n === 0) return { order: [], endsAt: 0, bound: 0 };
  const order = n <= EXACT_UP_TO ? exactOrder(plan) : goodOrder(plan);
  if (!order) return null;
  const endsAt = endOf(plan, order);
  return { order, endsAt, bound: n <= EXACT_UP_TO ? endsAt : Math.min(endsAt, lowerBound(plan)) };
}

/** When each picture of an order begins to be set up, begins, and ends. */
export interface DayTime {
  picture: number;
  changeFrom: number;
  startsAt: number;
  endsAt: number;
  /** Minutes of waiting before it, for what is not ready. */
  waits: number;
  /** By how many minutes it ends too late; 0 where it does not. */
  late: number;
}

/** The clock of an order, whether it keeps its times or not. */
export function timesOf(
  { pictures, change, pause = NO_PAUSE }: DayPlan,
  order: readonly number[],
): DayTime[] {
  let clock = 0;
  let from = pictures.length;
  return order.map((picture) => {
    const { minutes, notBefore = 0, endedBy = NEVER } = pictures[picture] as DayPicture;
    const changeFrom = clock;
    const ready = setUpBy(pause, clock, change[from]?.[picture] ?? 0);
    const startsAt = beginsAt(pause, ready, minutes, notBefore);
    const endsAt = startsAt + minutes;
    clock = endsAt;
    from = picture;
    return {
      picture,
      changeFrom,
      startsAt,
      endsAt,
      waits: startsAt - ready,
      late: Math.max(0, endsAt - endedBy),
    };
  });
}

/** When an order is over; never, where it breaks a time or comes in a wrong order. */
export function endOf(plan: DayPlan, order: readonly number[]): number {
  const place = new Map(order.map((picture, at) => [picture, at]));
  const isBefore = ([first, second]: readonly [number, number]) =>
    (place.get(first) ?? -1) < (place.get(second) ?? NEVER);
  if (!plan.before.every(isBefore)) return NEVER;
  const times = timesOf(plan, order);
  return times.some(({ late }) => late > 0) ? NEVER : (times.at(-1)?.endsAt ?? 0);
}

/** By the soonest end of each set of pictures with each of them last: to be later is never better. */
function exactOrder({ pictures, change, before, pause = NO_PAUSE }: DayPlan): number[] | null {
  const n = pictures.length;
  const sets = 1 << n;
  const soonest = new Float64Array(sets * n).fill(NEVER);
  const came = new Int8Array(sets * n).fill(-1);
  const needs = pictures.map((_, i) => before.reduce((set, [a, b]) => (b === i ? set | (1 << a) : set), 0));
  const end = (from: number, clock: number, to: number): number => {
    const { minutes, notBefore = 0, endedBy = NEVER } = pictures[to] as DayPicture;
    const ready = setUpBy(pause, clock, change[from]?.[to] ?? 0);
    const endsAt = beginsAt(pause, ready, minutes, notBefore) + minutes;
    return endsAt > endedBy ? NEVER : endsAt;
  };
  for (let i = 0; i < n; i++) if (needs[i] === 0) soonest[(1 << i) * n + i] = end(n, 0, i);
  for (let set = 1; set < sets; set++)
    for (let last = 0; last < n; last++) {
      const clock = soonest[set * n + last] as number;
      if (clock === NEVER) continue;
      for (let next = 0; next < n; next++) {
        if (set & (1 << next) || ((needs[next] as number) & set) !== needs[next]) continue;
        const at = (set | (1 << next)) * n + next;
        const endsAt = end(last, clock, next);
        if (endsAt >= (soonest[at] as number)) continue;
        soonest[at] = endsAt;
        came[at] = last;
      }
    }
  const all = sets - 1;
  let last = -1;
  for (let i = 0; i < n; i++)
    if ((soonest[all * n + i] as number) < (last < 0 ? NEVER : (soonest[all * n + last] as number))) last = i;
  if (last < 0) return null;
  const order = [];
  for (let set = all; last >= 0; ) {
    order.unshift(last);
    const previous = came[set * n + last] as number;
    set &= ~(1 << last);
    last = previous;
  }
  return order;
}

/** The nearest next from many beginnings, each bettered by moving and turning pieces until nothing helps. */
function goodOrder(plan: DayPlan): number[] | null {
  const n = plan.pictures.length;
  let best: { order: number[]; endsAt: number } | null = null;
  for (let start = 0; start < Math.min(STARTS, n); start++) {
    const begun = nearestNext(plan, Math.floor((start * n) / Math.min(STARTS, n)));
    if (!begun) continue;
    const order = bettered(plan, begun);
    const endsAt = endOf(plan, order);
    if (endsAt < (best?.endsAt ?? NEVER)) best = { order, endsAt };
  }
  return best?.order ?? null;
}

/** From a first picture always on to the nearest that may come; what has to end soon goes before. */
function nearestNext(
  { pictures, change, before, pause = NO_PAUSE }: DayPlan,
  first: number,
): number[] | null {
  const order: number[] = [];
  const left = new Set(pictures.keys());
  const mayCome = (picture: number) => before.every(([a, b]) => b !== picture || !left.has(a));
  let clock = 0;
  let from = pictures.length;
  while (left.size > 0) {
    const able = [...left].filter(mayCome);
    if (able.length === 0) return null;
    const urgency = (picture: number) => {
      const { endedBy = NEVER, minutes, notBefore = 0 } = pictures[picture] as DayPicture;
      const ready = beginsAt(pause, setUpBy(pause, clock, change[from]?.[picture] ?? 0), minutes, notBefore);
      const slack = endedBy - (ready + minutes);
      return ready - clock + (slack < HURRY ? slack - HURRY : 0);
    };
    const next =
      order.length === 0 && able.includes(first)
        ? first
        : (able.reduce((a, b) => (urgency(b) < urgency(a) ? b : a)) as number);
    const { minutes, notBefore = 0 } = pictures[next] as DayPicture;
    clock = beginsAt(pause, setUpBy(pause, clock, change[from]?.[next] ?? 0), minutes, notBefore) + minutes;
    left.delete(next);
    order.push(next);
    from = next;
  }
  return order;
}

/** What has to end within so much goes before what is nearer, minutes. */
const HURRY = 60;
/** Pieces that are moved as one hold at most so many pictures. */
const LONGEST_PIECE = 3;

/** Weighs orders of one plan, many of them: when each is over, and how much it breaks. */
function weigher({ pictures, change, before, pause = NO_PAUSE }: DayPlan) {
  const n = pictures.length;
  const minutes = Float64Array.from(pictures, (picture) => picture.minutes);
  const notBefore = Float64Array.from(pictures, (picture) => picture.notBefore ?? 0);
  const endedBy = Float64Array.from(pictures, (picture) => picture.endedBy ?? NEVER);
  const price = Float64Array.from(change.flat());
  const place = new Int32Array(n);
  return (order: readonly number[]): { endsAt: number; broken: number } => {
    let [clock, broken, from] = [0, 0, n];
    for (let at = 0; at < n; at++) {
      const own = order[at] as number;
      place[own] = at;
      const takes = minutes[own] as number;
      const ready = setUpBy(pause, clock, price[from * n + own] as number);
      clock = beginsAt(pause, ready, takes, notBefore[own] as number) + takes;
      broken += Math.max(0, clock - (endedBy[own] as number));
      from = own;
    }
    for (const [a, b] of before) if ((place[a] as number) > (place[b] as number)) broken += WRONG;
    return { endsAt: clock, broken };
  };
}

/** A pair the wrong way round is worse than any delay, minutes. */
const WRONG = 1e4;

function bettered(plan: DayPlan, begun: readonly number[]): number[] {
  const weigh = weigher(plan);
  let order = [...begun];
  let best = weigh(order);
  for (let changed = true; changed; ) {
    changed = false;
    for (const other of neighbours(order)) {
      const own = weigh(other);
      const isBetter =
        own.broken < best.broken - SAME ||
        (own.broken < best.broken + SAME && own.endsAt < best.endsAt - SAME);
      if (!isBetter) continue;
      [order, best, changed] = [other, own, true];
      break;
    }
  }
  return order;
}

/** Minutes that are no difference. */
const SAME = 1e-9;

/** Orders with one piece moved elsewhere, or turned round. */
function* neighbours(order: readonly number[]): Generator<number[]> {
  const n = order.length;
  for (let size = 1; size <= Math.min(LONGEST_PIECE, n - 1); size++)
    for (let at = 0; at + size <= n; at++) {
      const piece = order.slice(at, at + size);
      const rest = [...order.slice(0, at), ...order.slice(at + size)];
      for (let to = 0; to <= rest.length; to++)
        if (to !== at) yield [...rest.slice(0, to), ...piece, ...rest.slice(to)];
    }
  for (let from = 0; from < n - 1; from++)
    for (let to = from + 2; to <= n; to++)
      yield [...order.slice(0, from), ...order.slice(from, to).reverse(), ...order.slice(to)];
}

/** No day is over sooner: all pictures, each with the cheapest way to it; and no picture ends before it can. */
function lowerBound({ pictures, change, pause = NO_PAUSE }: DayPlan): number {
  const n = pictures.length;
  const cheapest = (to: number) =>
    Math.min(...change.flatMap((row, from) => (from === to ? [] : [row[to] ?? 0])));
  const all = pictures.reduce((sum, { minutes }, i) => sum + minutes + cheapest(i), 0);
  const first = Math.min(...Array.from({ length: n }, (_, i) => (change[n]?.[i] ?? 0) - cheapest(i)));
  const ready = Math.max(...pictures.map(({ minutes, notBefore = 0 }) => notBefore + minutes));
  const work = all + Math.max(0, first);
  // Work that is not over when the pause begins goes on after it.
  return Math.max(work + (work > pause.from ? pause.minutes : 0), ready);
}
