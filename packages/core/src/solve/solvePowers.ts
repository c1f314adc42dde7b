import type { Light, SetDocument } from '@fendrix/contract';
import { onDial } from '../exposure/dials.js';
import { luminanceOf } from '../exposure/display.js';
import { exposureWeights, recordedMidToneCdSM2 } from '../exposure/recording.js';
import type { SpotTrace } from '../judge/readSpot.js';
import { channelsOf } from '../photometry/channels.js';
import { dialGives } from '../photometry/output.js';
import { solveLinear } from '../units/solveLinear.js';

/** Tones wanted at a pinned spot, stops from mid-tone: one, or any within a range. */
export interface ToneWish {
  spot: string;
  from: number;
  to: number;
  /** How much it counts against the others, 1 if left out. */
  weight?: number;
}

export interface SolvedLight {
  tag: string;
  /** Setting of its dial, stops from full. */
  powerStops: number;
  /** What it would take without limits, stops from full; above 0 it runs out by so much. */
  wantedStops: number;
  /** Stops it is short of at full power, or too strong by at its lowest (below 0); 0 within its range. */
  shortStops: number;
}

export interface SolvedTone {
  spot: string;
  from: number;
  to: number;
  /** With the powers as the dials can be set; null for black. */
  reachedStops: number | null;
}

export interface PowerSolution {
  lights: SolvedLight[];
  tones: SolvedTone[];
  /** Spots of the wish that the lens does not see: they cannot be solved for. */
  unseen: string[];
}

/** Unlimited solving looks this far above and below full power, stops. */
const ABOVE = 8;
const BELOW = -20;
const ROUNDS = 60;
/** Pull towards the powers of now, against the square of a stop of tone: keeps what no wish speaks of. */
const PULL = 1e-4;
/** Rounding to dials is tried for all lights together up to this many. */
const MOST_TOGETHER = 8;

/**
 * Powers of the lights that are on, so that spots are recorded at wanted tones: least squares in stops, within each
 * dial's range, then on its steps. Camera settings stay.
 * Recorded tones are linear in each light's output, so no ray is traced: the spots' traces are used.
 * @param solved tags of the lights to set; all that are on if left out
 */
export function solvePowers(
  set: SetDocument,
  traces: readonly SpotTrace[],
  wishes: readonly ToneWish[],
  solved: readonly string[] = set.lights.filter(({ on }) => on).map(({ tag }) => tag),
): PowerSolution {
  const lights = set.lights.filter(({ tag, on }) => on && solved.includes(tag));
  const seen = wishes.filter(({ spot }) => traces.some((trace) => trace.name === spot && trace.seen));
  const unseen = wishes.filter((wish) => !seen.includes(wish)).map(({ spot }) => spot);
  const system = responses(set, traces, seen, lights);
  // In stops of light; dials that give more or less of them are set accordingly.
  const gives = lights.map(dialGives);
  const now = lights.map(({ powerStops }, i) => powerStops * (gives[i] as number));
  const free = descend(
    system,
    now,
    lights.map(() => [BELOW, ABOVE]),
  );
  const bounds = lights.map(({ dial }, i): [number, number] => [
    (dial?.leastStops ?? BELOW) * (gives[i] as number),
    0,
  ]);
  const kept = descend(
    system,
    now.map((p, i) => within(p, bounds[i] as [number, number])),
    bounds,
  );
  const set2 = onDials(system, lights, kept);
  return {
    lights: lights.map(({ tag }, i) => {
      const wanted = free[i] as number;
      const [least, most] = bounds[i] as [number, number];
      const short = wanted > most + 0.02 ? wanted - most : wanted < least - 0.02 ? wanted - least : 0;
      const onItsDial = (stops: number) => stops / (gives[i] as number);
      return {
        tag,
        powerStops: onItsDial(set2[i] as number),
        wantedStops: onItsDial(wanted),
        shortStops: onItsDial(short),
      };
    }),
    tones: seen.map(({ spot, from, to }, row) => {
      const tone = toneOf(system, row, set2);
      return { spot, from, to, reachedStops: Number.isFinite(tone) ? tone : null };
    }),
    unseen,
  };
}

/** Recorded value of each spot over mid-tone: fixed part, and part of each light at full power. */
interface System {
  fixed: number[];
  full: number[][];
  wanted: (readonly [number, number])[];
  weight: number[];
}

function responses(
  set: SetDocument,
  traces: readonly SpotTrace[],
  wishes: readonly ToneWish[],
  lights: readonly Light[],
): System {
  const channels = channelsOf(set);
  const midTone = recordedMidToneCdSM2(set.camera);
  const at = (powerStops: number) =>
    exposureWeights({
      ...set,
      lights: set.lights.map((light) => (lights.includes(light) ? { ...light, powerStops } : light)),
    });
  // A modelling lamp does not follow the power: what is left at no power is fixed.
  const full = at(0);
  const least = at(BELOW * 3);
  const value = (trace: SpotTrace, channel: number, weights: Float64Array) => {
    const rgb = (trace.seen?.[channel] ?? [0, 0, 0]).map((v, c) => v * (weights[3 * channel + c] as number));
    return luminanceOf(...(rgb as [number, number, number])) / midTone;
  };
  const system: System = { fixed: [], full: [], wanted: [], weight: [] };
  for (const { spot, from, to, weight = 1 } of wishes) {
    const trace = traces.find(({ name }) => name === spot) as SpotTrace;
    const own = lights.map(() => 0);
    let fixed = 0;
    channels.forEach(({ light }, channel) => {
      const place = lights.indexOf(set.lights[light] as Light);
      const low = value(trace, channel, least);
      fixed += low;
      if (place >= 0) own[place] = (own[place] as number) + value(trace, channel, full) - low;
    });
    system.fixed.push(fixed);
    system.full.push(own);
    system.wanted.push([from, to]);
    system.weight.push(weight);
  }
  return system;
}

function toneOf({ fixed, full }: System, row: number, powers: readonly number[]): number {
  const own = full[row] as number[];
  return Math.log2(
    own.reduce((sum, part, i) => sum + part * 2 ** (powers[i] as number), fixed[row] as number),
  );
}

/** Stops to go to the nearest wanted tone; 0 within the range. */
const missing = (tone: number, [from, to]: readonly [number, number]) =>
  tone < from ? from - tone : tone > to ? to - tone : 0;

function missOf(system: System, powers: readonly number[]): number {
  return system.wanted.reduce((sum, wanted, row) => {
    const miss = missing(Math.max(-60, toneOf(system, row, powers)), wanted);
    return sum + (system.weight[row] as number) * miss * miss;
  }, 0);
}

const within = (value: number, [low, high]: readonly [number, number]) =>
  Math.max(low, Math.min(high, value));

/** Damped Gauss-Newton within bounds, from several starts; the best end counts. */
function descend(
  system: System,
  start: readonly number[],
  bounds: readonly (readonly [number, number])[],
): number[] {
  const starts = [start, start.map(() => 0), start.map(() => -4)];
  let best = [...start];
  let least = Number.POSITIVE_INFINITY;
  for (const from of starts) {
    const end = descendFrom(
      system,
      from.map((p, i) => within(p, bounds[i] as [number, number])),
      start,
      bounds,
    );
    const miss = missOf(system, end) + PULL * pullOf(end, start);
    if (miss < least - 1e-12) {
      least = miss;
      best = end;
    }
  }
  return best;
}

const pullOf = (powers: readonly number[], start: readonly number[]) =>
  powers.reduce((sum, p, i) => sum + (p - (start[i] as number)) ** 2, 0);

function descendFrom(
  system: System,
  from: readonly number[],
  pull: readonly number[],
  bounds: readonly (readonly [number, number])[],
): number[] {
  const n = from.length;
  let powers = [...from];
  let cost = missOf(system, powers) + PULL * pullOf(powers, pull);
  let damping = 1e-3;
  for (let round = 0; round < ROUNDS; round++) {
    const normal = Array.from({ length: n }, () => new Float64Array(n + 1));
    system.wanted.forEach((wanted, row) => {
      const own = system.full[row] as number[];
      const parts = own.map((part, i) => part * 2 ** (powers[i] as number));
      const whole = parts.reduce((sum, part) => sum + part, system.fixed[row] as number);
      if (!(whole > 0)) return;
      const weight = system.weight[row] as number;
      const miss = missing(Math.log2(whole), wanted);
      for (let i = 0; i < n; i++) {
        const gi = (parts[i] as number) / whole;
        const line = normal[i] as Float64Array;
        for (let j = 0; j < n; j++)
          line[j] = (line[j] as number) + (weight * gi * (parts[j] as number)) / whole;
        line[n] = (line[n] as number) + weight * gi * miss;
      }
    });
    for (let i = 0; i < n; i++) {
      const line = normal[i] as Float64Array;
      line[i] = (line[i] as number) * (1 + damping) + PULL + 1e-12;
      line[n] = (line[n] as number) - PULL * ((powers[i] as number) - (pull[i] as number));
    }
    const step = solveLinear(normal);
    const next = powers.map((p, i) =>
      within(p + Math.max(-3, Math.min(3, step[i] ?? 0)), bounds[i] as [number, number]),
    );
    const nextCost = missOf(system, next) + PULL * pullOf(next, pull);
    if (nextCost < cost) {
      const gain = cost - nextCost;
      powers = next;
      cost = nextCost;
      damping = Math.max(1e-9, damping / 4);
      if (gain < 1e-14) break;
    } else {
      damping *= 6;
      if (damping > 1e9) break;
    }
  }
  return powers;
}

/** The settings of the dials next to the exact powers that miss least together. */
function onDials(system: System, lights: readonly Light[], powers: readonly number[]): number[] {
  const choices = powers.map((power, i) => {
    const light = lights[i] as Light;
    const gives = dialGives(light);
    const step = (light.dial?.stepStops ?? 0.01) * gives;
    return [
      ...new Set([power, power - step / 2, power + step / 2].map((p) => onDial(light, p / gives) * gives)),
    ];
  });
  let best = choices.map((list) => list[0] as number);
  if (lights.length > MOST_TOGETHER) return best;
  let least = missOf(system, best);
  const tryFrom = (place: number, tried: number[]) => {
    if (place === choices.length) {
      const miss = missOf(system, tried);
      if (miss < least) {
        least = miss;
        best = [...tried];
      }
      return;
    }
    for (const choice of choices[place] as number[]) tryFrom(place + 1, [...tried, choice]);
  };
  tryFrom(0, []);
  return best;
}
