import { channelsOf, stokesOf, type Thing } from '@fendrix/core';
import {
  type FeaturePart,
  featureParts,
  type KeyedSet,
  type RunOptions,
  renderProgressively,
  type WorkerPool,
} from '@fendrix/workers';
import type { PictureStatus } from '../state/benchSlice';
import type { ToDeveloper } from './developProtocol';
import { type FrameWindow, pictureOf } from './frameWindow';

/** Time between two developed states of the refining, ms. */
const SHOW_EVERY_MS = 250;

export interface PictureOptions {
  width: number;
  samples: number;
  fewest: number;
  /** It comes and goes: the films of the whole picture before it are kept for the next, and borders are not made finer. */
  passing?: boolean;
  /** Only these films are traced; the others are those of the finished picture before. */
  channels?: readonly number[];
  /** Without lightmaps. */
  wholePaths?: boolean;
  signal?: AbortSignal;
  priority?: number;
  atRest?: boolean;
  /** It is of plates, see `LaidPlate.films`; of the set as it stands if left out. */
  ofPlates?: string;
}

/** Has the films of one picture after the other traced, and sends them to the developer as they grow. */
export class PictureMaker {
  /** The features made last: the quick and the whole picture of one rest share them. */
  private features: { key: string; things: Thing[]; parts: FeaturePart[] } | null = null;
  private nextPicture = 1;
  private traced = 0;

  constructor(
    private readonly pool: WorkerPool,
    private readonly tell: (message: ToDeveloper) => void,
    private readonly events: { status(changes: Partial<PictureStatus>): void },
  ) {}

  /** @returns the number of a picture that is begun */
  begin(): number {
    this.events.status({ traced: ++this.traced });
    return this.nextPicture++;
  }

  /** Makes a picture of a part of the frame; resolves with its number when it is whole. */
  async make(keyed: KeyedSet, window: FrameWindow, aspect: number, options: PictureOptions): Promise<number> {
    const {
      width,
      samples,
      fewest,
      passing = false,
      wholePaths = false,
      signal,
      channels: wanted,
      priority,
      atRest,
      ofPlates = null,
    } = options;
    const { width: wide, height: high, part } = pictureOf(window, width, aspect);
    const picture = this.begin();
    const channels = channelsOf(keyed.set).length;
    const kept = wanted
      ? Array.from({ length: channels }, (_, i) => i).filter((i) => !wanted.includes(i))
      : [];
    const size = { width: part.width, height: part.height };
    this.tell({
      type: 'begin',
      picture,
      ...size,
      channels,
      stokes: stokesOf(keyed.set.camera).length,
      fewest,
      passing,
      kept,
      window,
      ofPlates,
    });
    const features = this.featuresInto(
      keyed,
      picture,
      { width: wide, height: high, part },
      // Before the tiles: the first that is shown is filtered by them.
      { priority: (priority ?? 0) + 1, atRest: true, ...(signal ? { signal } : {}) },
    );
    let last = performance.now();
    let isBegun = false;
    const traced = renderProgressively(this.pool, keyed, {
      width: wide,
      height: high,
      window: part,
      samples,
      seed: 1,
      ...(passing ? { firstPass: fewest, fineBorders: false } : { together: fewest }),
      ...(signal ? { signal } : {}),
      ...(priority === undefined ? {} : { priority }),
      ...(atRest ? { atRest } : {}),
      ...(wholePaths ? { wholePaths } : {}),
      ...(wanted ? { channels: wanted } : {}),
      onTile: (tile, sums, count) => this.tell({ type: 'tile', picture, tile, sums, samples: count }),
      onProgress: ({ samples: sampled, done, total }) => {
        const now = performance.now();
        const begins = !isBegun && sampled >= fewest;
        if (!begins && now - last < SHOW_EVERY_MS) return;
        isBegun ||= begins;
        last = now;
        this.tell({ type: 'show', picture, last: false });
        this.events.status({ progress: done / total, rays: this.pool.rays });
      },
    });
    await Promise.all([traced, features]);
    this.tell({ type: 'show', picture, last: true });
    return picture;
  }

  private async featuresInto(
    keyed: KeyedSet,
    picture: number,
    { width, height, part }: ReturnType<typeof pictureOf>,
    run: RunOptions,
  ): Promise<void> {
    const key = `${keyed.key} ${width} ${JSON.stringify(part)}`;
    if (this.features?.key !== key) {
      const [things, parts] = await Promise.all([
        this.pool.run(keyed, { kind: 'things' }, run),
        featureParts(this.pool, keyed, { width, height }, part, run),
      ]);
      this.features = { key, things, parts };
    }
    this.tell({ type: 'things', picture, things: this.features.things });
    for (const { tile, features } of this.features.parts)
      this.tell({ type: 'features', picture, tile, features });
  }
}
