import type { Spot } from '@fendrix/contract';
import { isSure, joinedTrace, type SpotTrace, spotReading } from '@fendrix/core';
import type { KeyedSet, WorkerPool } from '@fendrix/workers';
import {
  type Detail,
  type FigureName,
  type FigureValues,
  liveFigures,
  REFINED,
  type Seen,
} from './liveFigures';
import { NOTHING_SHOWN, type Shown } from './shown';

/** At rest a spot is traced again and again until its tone is sure, or with so many paths. */
const MOST_SPOT_SAMPLES = 16 * REFINED.spotSamples;

export type TellFigure = <Name extends FigureName>(name: Name, value: FigureValues[Name]) => void;

type LiveName = keyof typeof liveFigures;
const names = Object.keys(liveFigures) as LiveName[];

const wishOf = (name: LiveName, shown: Shown): string => JSON.stringify(liveFigures[name].wish(shown));

/** Reads the figures that are looked at, and tells them. */
export class LiveReader {
  private traced: TracedSpots | null = null;
  private shown: Shown = NOTHING_SHOWN;

  constructor(
    private readonly pool: WorkerPool,
    private readonly tell: TellFigure,
    private readonly priority: number,
  ) {}

  /** Reads all figures that are read at this time. */
  async read(keyed: KeyedSet, when: 'moving' | 'rest', seen: Seen, signal?: AbortSignal): Promise<void> {
    await this.readAll(
      names.filter((name) => liveFigures[name].readAt.includes(when)),
      keyed,
      seen,
      signal,
    );
  }

  /** Takes note of what is looked at; figures of which something else is wanted now are read at once. */
  async show(shown: Shown, keyed: KeyedSet | null, seen: Seen): Promise<void> {
    const before = this.shown;
    this.shown = shown;
    if (!keyed) return;
    const changed = names.filter((name) => wishOf(name, before) !== wishOf(name, shown));
    await this.readAll(
      changed.filter((name) => liveFigures[name].readAt.includes('moving')),
      keyed,
      seen,
    );
  }

  private async readAll(
    some: readonly LiveName[],
    keyed: KeyedSet,
    seen: Seen,
    signal?: AbortSignal,
  ): Promise<void> {
    await Promise.all(some.map((name) => this.readOne(name, keyed, seen, signal)));
  }

  private async readOne<Name extends LiveName>(
    name: Name,
    keyed: KeyedSet,
    seen: Seen,
    signal?: AbortSignal,
  ): Promise<void> {
    const reading = liveFigures[name].reading(this.shown, seen);
    if (!reading) return;
    const wished = wishOf(name, this.shown);
    const answer = await this.pool.run(keyed, reading.task, this.run(seen.detail, signal));
    // Something else may be looked at by now: then that is read, and this is of no use.
    if (wishOf(name, this.shown) === wished) this.tell(name, reading.value(answer) as FigureValues[Name]);
  }

  /** Traces the spots once; at rest traces of the same set at rest are kept. */
  async spots(keyed: KeyedSet, detail: Detail, signal?: AbortSignal): Promise<void> {
    const { traced } = this;
    const { atRest } = detail;
    const own: TracedSpots = { keyed, atRest, traces: [] };
    this.traced = own;
    own.traces =
      atRest && traced?.atRest && serves(traced, keyed)
        ? traced.traces
        : await Promise.all(keyed.set.spots.map((spot) => this.trace(keyed, spot, detail, 1, signal)));
    if (this.traced === own) this.tellSpots(own, atRest && unsureOf(own).length === 0);
  }

  /** Traces on, one spot after the other, until their tones are sure; ends when spots are asked for anew. */
  async makeSpotsSure(signal?: AbortSignal): Promise<void> {
    const own = this.traced;
    if (!own?.atRest) return;
    for (let unsure = unsureOf(own); unsure.length > 0; unsure = unsureOf(own)) {
      for (const { name } of unsure) {
        const spot = own.keyed.set.spots.find((one) => one.name === name) as Spot;
        const trace = own.traces.find((one) => one.name === name) as SpotTrace;
        const seed = 1 + trace.samples / REFINED.spotSamples;
        const also = await this.trace(own.keyed, spot, REFINED, seed, signal);
        if (this.traced !== own) return;
        own.traces = own.traces.map((one) => (one === trace ? joinedTrace(trace, also) : one));
      }
      this.tellSpots(own, unsureOf(own).length === 0);
    }
  }

  private tellSpots({ traces }: TracedSpots, settled: boolean): void {
    this.tell('spots', { traces, settled });
  }

  private async trace(keyed: KeyedSet, spot: Spot, detail: Detail, seed: number, signal?: AbortSignal) {
    const task = { kind: 'spots' as const, spots: [spot], samples: detail.spotSamples, seed };
    const [trace] = await this.pool.run(keyed, task, this.run(detail, signal));
    return trace as SpotTrace;
  }

  private run({ atRest }: Detail, signal: AbortSignal | undefined) {
    return { priority: this.priority, atRest, moving: !atRest, ...(signal ? { signal } : {}) };
  }
}

/** What the spots were last traced for, whether at rest, and the traces once they are there. */
interface TracedSpots {
  keyed: KeyedSet;
  atRest: boolean;
  traces: SpotTrace[];
}

/** Whether traces are those of all spots of this set. */
function serves({ keyed, traces }: TracedSpots, { key, set }: KeyedSet): boolean {
  const { spots } = keyed.set;
  const places = (some: readonly Spot[]) =>
    JSON.stringify(some.map(({ name, pointM, normal }) => [name, pointM, normal]));
  return keyed.key === key && traces.length === spots.length && places(spots) === places(set.spots);
}

/** Traces whose tone is not yet known to a tenth of a stop, and can be made surer. */
function unsureOf({ keyed, traces }: TracedSpots): SpotTrace[] {
  return traces.filter(
    (trace) => trace.samples < MOST_SPOT_SAMPLES && !isSure(spotReading(keyed.set, trace)),
  );
}
