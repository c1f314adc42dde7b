import type { Spot } from '@fendrix/contract';
import {
  type BandProfile,
  type GlareZones,
  isSure,
  joinedTrace,
  type MirrorBand,
  type MirrorMap,
  type SpotTrace,
  spotReading,
  type Thing,
  type ZoneOptions,
} from '@fendrix/core';
import type { KeyedSet, WorkerPool } from '@fendrix/workers';
import type { ToneOverlay } from './developProtocol';
import { type FrameWindow, pictureOf } from './frameWindow';

export interface MirrorOverlay {
  map: MirrorMap;
  things: Thing[];
  window: FrameWindow;
}

/** Distance along the lens axis of what each pixel shows, m; NaN where nothing is. */
export interface DepthOverlay {
  width: number;
  height: number;
  depth: Float32Array;
  window: FrameWindow;
}

/** What else is worked out while the set moves. */
export interface Wants {
  mirrors: boolean;
  depth: boolean;
  tones: ToneOverlay;
  /** Product whose luminance across is followed. */
  profile: string | null;
  zones: ZoneOptions | null;
  /** Place of the frame pointed at, parts: read again once the set rests. */
  pick: readonly [number, number] | null;
}

export const NO_WANTS: Wants = {
  mirrors: false,
  depth: false,
  tones: 'none',
  profile: null,
  zones: null,
  pick: null,
};

/** Pixels across of maps, and the paths of profiles and spots. */
export interface Detail {
  mapWidth: number;
  profile: { columns: number; samples: number };
  spotSamples: number;
  /** Nothing moves: every core may help. */
  atRest: boolean;
}

export const FOLLOWING: Detail = {
  mapWidth: 240,
  profile: { columns: 48, samples: 6 },
  spotSamples: 64,
  atRest: false,
};
export const REFINED: Detail = {
  mapWidth: 520,
  profile: { columns: 120, samples: 96 },
  spotSamples: 2048,
  atRest: true,
};

/** At rest a spot is traced again and again until its tone is sure, or with so many paths. */
const MOST_SPOT_SAMPLES = 16 * REFINED.spotSamples;

/** How figures are asked for. */
export interface Seen {
  detail: Detail;
  window: FrameWindow;
  aspect: number;
  /** While a thing moves the light of the sheets is not baked anew for one line of it. */
  quick: boolean;
  ambient: readonly number[] | null;
}

export interface FigureEvents {
  mirrors(overlay: MirrorOverlay): void;
  bands(bands: MirrorBand[]): void;
  /** @param settled they will not be traced any finer */
  spots(traces: SpotTrace[], settled: boolean): void;
  depth(overlay: DepthOverlay): void;
  profile(profile: BandProfile | null): void;
  zones(zones: GlareZones): void;
}

/** What is told of a set besides its picture: bands, spots, maps, profile, zones. */
export class Figures {
  private traced: TracedSpots | null = null;

  constructor(
    private readonly pool: WorkerPool,
    private readonly events: FigureEvents,
    private readonly priority: number,
  ) {}

  async bands(keyed: KeyedSet, signal: AbortSignal): Promise<void> {
    this.events.bands(await this.pool.run(keyed, { kind: 'bands' }, this.run(FOLLOWING, signal)));
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
    if (this.traced === own) this.events.spots(own.traces, atRest && unsureOf(own).length === 0);
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
      this.events.spots(own.traces, unsureOf(own).length === 0);
    }
  }

  private async trace(keyed: KeyedSet, spot: Spot, detail: Detail, seed: number, signal?: AbortSignal) {
    const task = { kind: 'spots' as const, spots: [spot], samples: detail.spotSamples, seed };
    const [trace] = await this.pool.run(keyed, task, this.run(detail, signal));
    return trace as SpotTrace;
  }

  /** Maps, profile and zones, as far as they are wanted. */
  async wanted(keyed: KeyedSet, wants: Wants, seen: Seen, signal?: AbortSignal): Promise<void> {
    const { detail, window, aspect, quick, ambient } = seen;
    const { width, height, part: tile } = pictureOf(window, detail.mapWidth, aspect);
    const map = { width, height, tile };
    const run = this.run(detail, signal);
    const mirrors = async () => {
      const found = await this.pool.run(keyed, { kind: 'mirror', ...map }, run);
      this.events.mirrors({ ...found, window });
    };
    const depth = async () => {
      const found = await this.pool.run(keyed, { kind: 'depth', ...map }, run);
      this.events.depth({ width: tile.width, height: tile.height, depth: found, window });
    };
    const across = async (product: string) => {
      if (quick && !ambient) return;
      const light = quick && ambient ? { ambient } : {};
      const task = { kind: 'profile', product, ...detail.profile, ...light } as const;
      this.events.profile(await this.pool.run(keyed, task, run));
    };
    const zones = async (options: ZoneOptions) =>
      this.events.zones(await this.pool.run(keyed, { kind: 'zones', options }, run));
    await Promise.all([
      wants.mirrors ? mirrors() : undefined,
      wants.depth ? depth() : undefined,
      wants.profile ? across(wants.profile) : undefined,
      wants.zones ? zones(wants.zones) : undefined,
    ]);
  }

  private run({ atRest }: Detail, signal: AbortSignal | undefined) {
    return { priority: this.priority, atRest, ...(signal ? { signal } : {}) };
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
