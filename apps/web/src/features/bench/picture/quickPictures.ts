import { COARSEST_STEP, displayWeights, type Tile } from '@fendrix/core';
import type { KeyedSet, WorkerPool } from '@fendrix/workers';
import type { ToDeveloper } from './developProtocol';
import { type FrameWindow, pictureOf } from './frameWindow';
import type { PictureMaker } from './pictureMaker';

/** Pixels across; adapted to the machine within these. */
const NARROWEST = 200;
const WIDEST = 480;
/** Time one should take, ms. */
const WANTED_MS = 85;
/** Rows that parts of one have in common, so that pixels at their ends are averaged with those beyond. */
const SHARED_ROWS = 3 * COARSEST_STEP;

/** What one is made with. */
interface QuickOptions {
  window: FrameWindow;
  aspect: number;
  /** See `TileJob.ambient`. */
  ambient: readonly number[];
  priority: number;
  /** See `QuickPicture`. */
  beside: boolean;
}

/**
 * Makes pictures that follow what moves. Their films are weighed as they are traced: sets of many films are followed as
 * quickly as those of one, and lights that are off cost nothing; other powers need another picture.
 */
export class QuickPictures {
  private width = 240;
  /** What films were weighed by in the last one. */
  private mixedBy = '';

  /** @param besides how films are weighed besides as the set is, for its plates */
  constructor(
    private readonly pool: WorkerPool,
    private readonly maker: PictureMaker,
    private readonly tell: (message: ToDeveloper) => void,
    private readonly besides: () => Float64Array[],
  ) {}

  /** Whether the last one is of a set with these powers. */
  isOf(keyed: KeyedSet): boolean {
    return this.mixedBy === this.mixesOf(keyed).join(' ');
  }

  async make(keyed: KeyedSet, { window, aspect, ambient, priority, beside }: QuickOptions): Promise<void> {
    const { width, height, part } = pictureOf(window, this.width, aspect);
    const picture = this.maker.begin();
    const mixes = this.mixesOf(keyed);
    this.mixedBy = mixes.join(' ');
    const size = 3 * part.width * part.height;
    const linear = new Float32Array(mixes.length * size);
    const how = { width, height, firstSample: 0, samples: 1, seed: 1, ambient, sparse: true, mixes };
    await Promise.all(
      partsOf(part.height, this.pool.size).map(async ({ from, to }) => {
        const top = Math.max(0, from - SHARED_ROWS);
        const high = Math.min(part.height, to + SHARED_ROWS) - top;
        const tile: Tile = { x: part.x, y: part.y + top, width: part.width, height: high };
        const run = { priority, moving: true };
        const sums = await this.pool.run(keyed, { kind: 'tile', job: { ...how, tile } }, run);
        const row = 3 * part.width;
        for (let mix = 0; mix < mixes.length; mix++) {
          const start = (mix * high + from - top) * row;
          linear.set(sums.subarray(start, start + (to - from) * row), mix * size + from * row);
        }
      }),
    );
    const { width: wide, height: high } = part;
    this.tell({ type: 'quick', picture, width: wide, height: high, window, mixes, linear, beside });
  }

  /** Fits the width of the next one to how long one took. */
  adapt(tookMs: number): void {
    const fitting = this.width * Math.sqrt(WANTED_MS / tookMs);
    const eased = this.width + 0.5 * (fitting - this.width);
    this.width = Math.round(Math.max(NARROWEST, Math.min(WIDEST, eased)));
  }

  private mixesOf({ set }: KeyedSet): Float64Array[] {
    const own = displayWeights(set);
    // Plates may be of a newer set already, of other films.
    const all = [own, ...this.besides().filter(({ length }) => length === own.length)];
    return [...new Map(all.map((weights) => [weights.join(), weights])).values()];
  }
}

/** Rows cut into so many parts, one for each worker. Each begins at a row of the coarsest grid. */
function partsOf(rows: number, count: number): { from: number; to: number }[] {
  const high = COARSEST_STEP * Math.ceil(rows / (COARSEST_STEP * count));
  return Array.from({ length: Math.ceil(rows / high) }, (_, i) => ({
    from: i * high,
    to: Math.min(rows, (i + 1) * high),
  }));
}
