import type { SetDocument } from '@fendrix/contract';
import { channelsOf, displayWeights, lightLayers, traceKey } from '@fendrix/core';
import type { KeyedSet, RunOptions, Task, TaskResult, WorkerPool } from '@fendrix/workers';
import { messageOf } from '@fendrix/workers';
import { createBrowserPool } from '@fendrix/workers/browser';
import {
  type Detail,
  type FigureName,
  type FigureValues,
  FOLLOWING,
  REFINED,
  type Seen,
} from '../figures/liveFigures';
import { LiveReader } from '../figures/liveReader';
import type { Shown } from '../figures/shown';
import type { PictureStatus } from '../state/benchSlice';
import { BesideFigures } from './besideFigures';
import type { FromDeveloper, ToDeveloper, ToneOverlay } from './developProtocol';
import { type FrameWindow, pictureOf, WHOLE_FRAME } from './frameWindow';
import type { PictureFormat } from './pictureFile';
import { PictureMaker } from './pictureMaker';
import { PlateTracer } from './plateTracer';
import { QuickPictures } from './quickPictures';
import type { PlatesShown } from './sessionProtocol';
import { StandIns } from './standIns';
import { WholeLight } from './wholeLight';

/** Priority of what must be there before the rest. */
const AT_ONCE = 1e5;
/** Of what a core does that is left free by what is being baked, part by part. */
const BESIDE_BAKING = AT_ONCE - 1;
/** Rest after a change before the refining starts, ms. */
const REST_MS = 100;
/** Rest before a set with large meshes is prepared whole: seconds in which no worker can follow, ms. */
const STILL_MS = 600;

export interface SessionEvents {
  picture(picture: FromDeveloper): void;
  /** A figure that is looked at has been read, see `liveFigures`. */
  figure<Name extends FigureName>(name: Name, value: FigureValues[Name]): void;
  status(changes: Partial<PictureStatus>): void;
  /** A worker died and was started again. */
  crash(reason: string): void;
  /** The picture cannot be made; the reason in words. */
  failure(reason: string): void;
}

/** The worker that develops films, as far as the session needs it. */
export type Developer = Pick<Worker, 'postMessage' | 'terminate'> & {
  addEventListener(type: 'message', listener: (event: MessageEvent<FromDeveloper>) => void): void;
};

function createDeveloper(): Developer {
  return new Worker(new URL('./developWorker.ts', import.meta.url), { type: 'module' });
}

/**
 * Keeps the picture in step with the set; lives in a worker of its own (sessionWorker.ts). A change that moves light
 * paths is followed by a small picture at once and refined after a rest; a change of power, switch or exposure only
 * develops the films anew, or has that small picture made anew while it is on show.
 */
export class PictureSession {
  private keyed: KeyedSet | null = null;
  private spotsKey = '';
  private fullWidth = 560;
  private aspect = 1.5;
  private following = false;
  /** Whether the picture on show is a quick one, and whether one is made beside the refining. */
  private showsQuick = false;
  private mixing = false;
  /** Asked for files with layers, which a quick picture has not: those of the next that is none. */
  private readonly layersAwaited: MessagePort[] = [];
  /** Whether the whole light of the set as it is has been seen. */
  private resting = false;
  private refining: AbortController | null = null;
  /** Whether the light for the picture at rest is being baked: the picture is not begun yet. */
  private baking = false;
  private restTimer: ReturnType<typeof setTimeout> | undefined;
  private ambient: readonly number[] | null = null;
  private pictures = 0;
  private tones: ToneOverlay = 'none';
  private wholePaths = false;
  private window: FrameWindow = WHOLE_FRAME;
  private readonly beside = new BesideFigures((error) => this.tellFailure(error));
  private closed = false;
  private readonly figures: LiveReader;
  private readonly maker: PictureMaker;
  private readonly wholeLight: WholeLight;
  private readonly plates: PlateTracer;
  private readonly quick: QuickPictures;
  private readonly standIns = new StandIns();

  constructor(
    private readonly events: SessionEvents,
    private readonly pool: WorkerPool = createBrowserPool({
      onCrash: (reason) => events.crash(reason),
      spare: 1,
    }),
    private readonly developer: Developer = createDeveloper(),
  ) {
    this.figures = new LiveReader(pool, (name, value) => events.figure(name, value), AT_ONCE);
    this.maker = new PictureMaker(pool, (message) => this.tell(message), events);
    this.wholeLight = new WholeLight(pool, this.maker, AT_ONCE);
    this.plates = new PlateTracer(pool, this.maker, (message) => this.tell(message));
    const besides = () => this.plates.weighings();
    this.quick = new QuickPictures(pool, this.maker, (message) => this.tell(message), besides);
    this.developer.addEventListener('message', ({ data }: MessageEvent<FromDeveloper>) => {
      this.pictures++;
      this.showsQuick = data.quick;
      if (!data.quick) for (const port of this.layersAwaited.splice(0)) this.sendFile('exr', port);
      this.wholeLight.onDeveloped(data.picture);
      this.events.picture(data);
      const { part } = pictureOf(this.window, this.fullWidth, this.aspect);
      const awaited = this.following || data.quick || !data.whole || data.width !== part.width;
      this.events.status({ samples: data.samples, shown: this.pictures, awaited, rays: this.pool.rays });
    });
  }

  /** Takes the set as it is now. */
  update(set: SetDocument): void {
    const key = traceKey(set);
    const moved = key !== this.keyed?.key;
    const spotsKey = JSON.stringify(set.spots.map(({ name, pointM, normal }) => [name, pointM, normal]));
    const spotsMoved = spotsKey !== this.spotsKey;
    this.spotsKey = spotsKey;
    this.keyed = { key, set };
    this.aspect = set.camera.body.sensorWidthM / set.camera.body.sensorHeightM;
    this.tell({ type: 'weights', weights: displayWeights(set) as Float64Array<ArrayBuffer> });
    this.plates.update(this.keyed);
    if (moved) this.follow();
    else void this.mixAnew();
    if (!moved && spotsMoved) {
      this.figures
        .spots(this.keyed, REFINED)
        .then(() => this.figures.makeSpotsSure())
        .catch((error) => this.tellFailure(error));
    }
  }

  /** Sets the width at which the refined picture is shown, px. */
  resize(width: number): void {
    const rounded = Math.max(160, Math.min(1600, Math.round(width)));
    if (rounded === this.fullWidth) return;
    this.fullWidth = rounded;
    this.lookAnew();
  }

  /** Magnifies a part of the frame. */
  lookAt(window: FrameWindow): void {
    if (JSON.stringify(window) === JSON.stringify(this.window)) return;
    this.window = window;
    this.lookAnew();
  }

  /** Takes note of what is looked at; figures of which something else is wanted now are read at once. */
  show(shown: Shown): void {
    if (tonesOf(shown) !== this.tones) this.tell({ type: 'overlay', overlay: tonesOf(shown) });
    this.tones = tonesOf(shown);
    if (shown.wholePaths !== this.wholePaths) {
      this.wholePaths = shown.wholePaths;
      this.lookAnew();
    }
    const seen = this.seen(this.resting ? REFINED : FOLLOWING);
    this.figures.show(shown, this.keyed, seen).catch((error) => this.tellFailure(error));
  }

  /** Lays plates over the picture; what of them is not traced yet is, once things rest. */
  showPlates(shown: PlatesShown | null): void {
    this.plates.show(shown);
    if (!this.keyed) return;
    this.plates.update(this.keyed);
    void this.mixAnew();
    if (this.plates.wants(this.keyed, this.fullWidth, this.window)) this.rest();
  }

  /** Has the plates and masks on show sent as files to whom the port belongs. */
  sendPlateFiles(list: string, port: MessagePort): void {
    this.developer.postMessage({ type: 'plateFiles', list, port } satisfies ToDeveloper, [port]);
  }

  /** Has the picture on show sent as a file to whom the port belongs. */
  sendFile(format: PictureFormat, port: MessagePort): void {
    if (format === 'exr' && this.showsQuick) {
      this.layersAwaited.push(port);
      return;
    }
    const layers = format === 'exr' && this.keyed ? lightLayers(this.keyed.set) : [];
    this.developer.postMessage({ type: 'file', format, layers, port } satisfies ToDeveloper, [port]);
  }

  close(): void {
    this.closed = true;
    clearTimeout(this.restTimer);
    this.refining?.abort(new Error('closed'));
    this.wholeLight.giveUp();
    this.pool.close();
    this.developer.terminate();
  }

  /** Following pictures run one after the other, always of the newest set, and are never cut off. */
  private follow(): void {
    this.refining?.abort(new Error('the set moved'));
    this.resting = false;
    this.wholeLight.giveUp();
    clearTimeout(this.restTimer);
    if (this.following) return;
    this.following = true;
    void this.followUntilStill().then((followed) => {
      this.following = false;
      if (followed) this.rest();
    });
  }

  /** @returns false when no picture of the newest set could be made */
  private async followUntilStill(): Promise<boolean> {
    for (;;) {
      await this.beside.leave();
      const { keyed } = this;
      if (!keyed || this.closed) return false;
      let followed = true;
      try {
        await this.followOnce(keyed);
      } catch (error) {
        this.tellFailure(error);
        followed = false;
      }
      if (!this.outdated(keyed) && (!followed || this.quick.isOf(this.newest(keyed)))) return followed;
    }
  }

  /**
   * The picture first; bands, spots and maps take what the workers have left, and are waited for now and then. Large meshes
   * are followed by stand-ins: then all else waits until things rest, and is of the set as it is.
   */
  private async followOnce(keyed: KeyedSet): Promise<void> {
    const start = performance.now();
    const simplified = this.standIns.wanted(keyed);
    this.events.status({ phase: 'following', progress: 0, simplified, awaited: true });
    const picture = this.quickPicture(simplified ? await this.standIns.of(keyed) : keyed);
    if (simplified) {
      await picture;
      this.quick.adapt(performance.now() - start);
      if (!(await this.staysStill(keyed))) return;
    }
    this.beside.begin(
      (signal) =>
        Promise.all([
          this.figures.spots(this.newest(keyed), FOLLOWING, signal),
          this.figures.read(keyed, 'moving', this.seen(FOLLOWING), signal),
        ]),
      picture,
    );
    await picture;
    if (!simplified) this.quick.adapt(performance.now() - start);
  }

  /** Whether nothing moves for a while from now. */
  private async staysStill(keyed: KeyedSet): Promise<boolean> {
    const until = performance.now() + STILL_MS;
    while (performance.now() < until) {
      if (this.outdated(keyed) || this.closed) return false;
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
    return !this.outdated(keyed);
  }

  /** Whether light takes other paths by now; a set that was only saved, named or dimmed since is as good as this one. */
  private outdated({ key }: KeyedSet): boolean {
    return this.keyed?.key !== key;
  }

  /** The set as it is now, if light takes the same paths in it: spots may have been pinned meanwhile. */
  private newest(keyed: KeyedSet): KeyedSet {
    return this.keyed && !this.outdated(keyed) ? this.keyed : keyed;
  }

  private async quickPicture(keyed: KeyedSet, beside = false): Promise<void> {
    // While a thing moves the bounced light changes little: the estimate of the last rest will do.
    const known = this.ambient?.length === channelsOf(keyed.set).length ? this.ambient : null;
    const ambient = known ?? (await this.estimateAmbient(keyed, { priority: AT_ONCE }));
    const { window, aspect } = this;
    await this.quick.make(keyed, { window, aspect, ambient, priority: 2 * AT_ONCE, beside });
    if (!beside) this.showsQuick = true;
  }

  /** Powers have changed while a quick picture is on show, which was mixed of its films: one of the powers as they are now. */
  private async mixAnew(): Promise<void> {
    if (this.mixing) return;
    this.mixing = true;
    try {
      for (;;) {
        const { keyed } = this;
        if (!keyed || !this.showsQuick || this.following || this.closed || this.quick.isOf(keyed)) return;
        await this.quickPicture(this.standIns.wanted(keyed) ? await this.standIns.of(keyed) : keyed, true);
      }
    } catch (error) {
      this.tellFailure(error);
    } finally {
      this.mixing = false;
    }
  }

  /** How figures are asked for now: in what detail, of which part of the frame, and with which light for bounced light. */
  private seen(detail: Detail): Seen {
    const { window, aspect, ambient } = this;
    return { detail, window, aspect, quick: !this.resting, ambient };
  }

  /** The same set in another picture: where that is not begun yet it will be as it is wanted now. */
  private lookAnew(): void {
    if (this.keyed && !this.baking) this.rest();
  }

  private rest(): void {
    clearTimeout(this.restTimer);
    if (this.closed) return;
    this.restTimer = setTimeout(() => void this.refine(), REST_MS);
  }

  /** The whole light at once in a small picture, then at full size, pass by pass; what is told beside it meanwhile. */
  private async refine(): Promise<void> {
    const { keyed } = this;
    if (!keyed || this.following) return;
    this.refining?.abort(new Error('the set moved'));
    const controller = new AbortController();
    this.refining = controller;
    const { signal } = controller;
    try {
      this.events.status({ phase: 'refining', progress: 0 });
      this.baking = true;
      const ambient = this.estimateAmbient(keyed, { priority: BESIDE_BAKING, signal });
      await Promise.all([this.wholeLight.bake(keyed), ambient]).finally(() => {
        this.baking = false;
      });
      const frame = { window: this.window, aspect: this.aspect, width: this.fullWidth };
      const rest = await this.wholeLight.first(keyed, { ...frame, wholePaths: this.wholePaths }, signal);
      this.resting = true;
      this.events.status({ simplified: false });
      await this.plates.traceParts(keyed, this.fullWidth, this.window, this.aspect, signal);
      const figures = this.readAtRest(keyed, signal);
      await Promise.all([this.wholeLight.whole(keyed, rest, signal), figures]);
      await this.plates.traceFilms(this.fullWidth, this.window, this.aspect, signal);
      this.events.status({ phase: 'done', progress: 1, rays: this.pool.rays });
    } catch (error) {
      if (!signal.aborted) this.tellFailure(error);
    }
  }

  /** Figures in full detail; spots are then traced on until they are sure. */
  private async readAtRest(keyed: KeyedSet, signal: AbortSignal): Promise<void> {
    // What was read of the picture that followed last is not to come after it.
    await this.beside.read();
    signal.throwIfAborted();
    await Promise.all([
      this.figures.read(keyed, 'rest', this.seen(REFINED), signal),
      this.figures.spots(this.newest(keyed), REFINED, signal),
    ]);
    this.figures.makeSpotsSure(signal).catch((error) => {
      if (!signal.aborted) this.tellFailure(error);
    });
  }

  private tellFailure(error: unknown): void {
    if (this.closed) return;
    this.events.failure(messageOf(error));
    for (const port of this.layersAwaited.splice(0)) port.postMessage(null);
  }

  private async estimateAmbient(keyed: KeyedSet, run: RunOptions): Promise<readonly number[]> {
    this.ambient = await this.pool.run(keyed, { kind: 'ambient' }, run);
    return this.ambient;
  }

  /** Asks the workers something about the set as it is now, or as it would be. */
  async ask<T extends Task>(task: T, set?: SetDocument, signal?: AbortSignal): Promise<TaskResult<T> | null> {
    if (!this.keyed) return null;
    const asked = set ? { key: traceKey(set), set } : this.keyed;
    // What goes through what, and what is seen, can be told of a simplified body, and is asked at each rest.
    const ofSimple = task.kind === 'overlaps' || task.kind === 'inFrame';
    const simplified = ofSimple && this.standIns.wanted(asked);
    const keyed = simplified ? await this.standIns.of(asked) : asked;
    const priority = ofSimple && !set ? BESIDE_BAKING : 10 * AT_ONCE;
    return this.pool.run(keyed, task, { priority, ...(signal ? { signal } : {}) });
  }

  private tell(message: ToDeveloper): void {
    this.developer.postMessage(message, pixelsOf(message));
  }
}

/** Pixels are given away, not copied. */
const pixelsOf = (message: ToDeveloper): ArrayBufferLike[] =>
  message.type === 'tile' ? [message.sums.buffer] : message.type === 'quick' ? [message.linear.buffer] : [];

/** Tones are drawn by the worker that develops. */
const tonesOf = ({ overlay }: Shown): ToneOverlay =>
  overlay === 'stops' || overlay === 'clipping' ? overlay : 'none';
