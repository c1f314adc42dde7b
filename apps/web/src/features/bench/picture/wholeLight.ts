import type { SetDocument } from '@fendrix/contract';
import { bakeSpread, type KeyedSet, type WorkerPool } from '@fendrix/workers';
import type { FrameWindow } from './frameWindow';
import type { PictureMaker } from './pictureMaker';

/** The refined picture: shown when its noise is bearable. */
const WHOLE = { samples: 128, fewest: 2 };
/** Before it the same light at a part of its width, a moment after things rest: as soon as it can be filtered, then once more. */
const FIRST = { samples: 4, fewest: 2, passing: true };
const FIRST_PART = 0.36;
const NARROWEST_FIRST = 200;
/** It is not waited for longer than this until it is seen, ms. */
const PATIENCE_MS = 2000;

/** The frame as it is looked at. */
export interface Frame {
  width: number;
  window: FrameWindow;
  aspect: number;
  /** Without lightmaps. */
  wholePaths: boolean;
}

/** What is left to trace after the first picture. */
export interface Rest {
  frame: Frame;
  /** Films to trace where the others are those of the last finished picture; all if left out. */
  channels?: readonly number[];
}

/**
 * Makes the pictures of the whole light at rest: a small one at once, then that at full size, of which only the films that have
 * changed are traced.
 */
export class WholeLight {
  /** The set of the last picture that was finished, and what was seen of it. */
  private finished: { set: SetDocument; frame: Frame } | null = null;
  private baking: { key: string; done: Promise<void>; controller: AbortController } | null = null;
  private developed: (picture: number) => void = () => undefined;

  constructor(
    private readonly pool: WorkerPool,
    private readonly maker: PictureMaker,
    private readonly priority: number,
  ) {}

  /** Has the light of the lightmaps baked; a picture of another size of the same set waits for the same. */
  bake(keyed: KeyedSet): Promise<void> {
    if (this.baking?.key !== keyed.key) {
      const controller = new AbortController();
      const run = { priority: this.priority, atRest: true, signal: controller.signal };
      const done = bakeSpread(this.pool, keyed, run).catch((error) => {
        this.baking = null;
        throw error;
      });
      this.baking = { key: keyed.key, done, controller };
    }
    return this.baking.done;
  }

  /** The set has moved: what is being baked is of no use. */
  giveUp(): void {
    this.baking?.controller.abort(new Error('the set moved'));
    this.baking = null;
  }

  /** To be told of each picture that was developed. */
  onDeveloped(picture: number): void {
    this.developed(picture);
  }

  /**
   * The whole light in a picture that is soon there; resolves when it is seen: until then the cores are its own. Where only some
   * films have changed since a finished picture there is none: that at full size is as soon there.
   */
  async first(keyed: KeyedSet, frame: Frame, signal: AbortSignal): Promise<Rest> {
    signal.throwIfAborted();
    const channels = await this.touchedSince(keyed, frame, signal);
    if (channels) return { frame, channels };
    const width = Math.max(NARROWEST_FIRST, Math.round(FIRST_PART * frame.width));
    const options = { ...FIRST, width, priority: this.priority / 2 };
    const picture = await this.make(keyed, frame, options, signal);
    await new Promise<void>((resolve) => {
      this.developed = (developed) => developed >= picture && resolve();
      signal.addEventListener('abort', () => resolve(), { once: true });
      setTimeout(resolve, PATIENCE_MS);
    });
    signal.throwIfAborted();
    return { frame };
  }

  /** The same at full size, growing. */
  async whole(keyed: KeyedSet, { frame, channels }: Rest, signal: AbortSignal): Promise<void> {
    this.finished = null;
    const options = { ...WHOLE, width: frame.width, ...(channels ? { channels } : {}) };
    await this.make(keyed, frame, options, signal);
    this.finished = { set: keyed.set, frame };
  }

  private make(
    keyed: KeyedSet,
    { window, aspect, wholePaths }: Frame,
    options: { samples: number; fewest: number; width: number; priority?: number },
    signal: AbortSignal,
  ): Promise<number> {
    const how = { wholePaths, atRest: true, signal };
    return this.maker.make(keyed, window, aspect, { ...options, ...how });
  }

  /** Films to trace after lights have moved since the last finished picture; null where it must be all. */
  private async touchedSince(keyed: KeyedSet, frame: Frame, signal: AbortSignal): Promise<number[] | null> {
    const { finished } = this;
    if (!finished || JSON.stringify(finished.frame) !== JSON.stringify(frame)) return null;
    const task = { kind: 'touched', before: finished.set } as const;
    return this.pool.run(keyed, task, { priority: this.priority, signal });
  }
}
