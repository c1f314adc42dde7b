import type { Plate, SetDocument } from '@fendrix/contract';
import { displayWeights, setOfPlate, traceKey } from '@fendrix/core';
import { fileStem } from '@fendrix/words';
import { type KeyedSet, partMapOf, type WorkerPool } from '@fendrix/workers';
import type { LaidPlate, ToDeveloper } from './developProtocol';
import { type FrameWindow, pictureOf } from './frameWindow';
import type { PictureMaker } from './pictureMaker';
import type { PlatesShown } from './sessionProtocol';

/** Samples of the films of plates: laid over one another their noise is looked at less. */
const SAMPLES = 64;
/** Masks are made of pixels half as wide as those of the picture: their edges are as smooth as its own. */
const FINER = 2;

interface OwnPlate {
  plate: Plate;
  keyed: KeyedSet;
  /** How films are weighed for it, three numbers each. */
  weights: Float64Array<ArrayBuffer>;
}

/** Keeps the developer in step with the plates, and has traced what of them the films of the set do not give. */
export class PlateTracer {
  private shown: PlatesShown | null = null;
  private base: KeyedSet | null = null;
  private own: readonly OwnPlate[] = [];
  /** At which size and part of the frame films are traced, by their key; and what is seen where, of which set. */
  private readonly traced = new Map<string, string>();
  private parts = { key: '', at: '' };
  private told = '';

  constructor(
    private readonly pool: WorkerPool,
    private readonly maker: PictureMaker,
    private readonly tell: (message: ToDeveloper) => void,
  ) {}

  show(shown: PlatesShown | null): void {
    this.shown = shown;
    if (!shown) {
      this.traced.clear();
      this.own = [];
      this.told = '';
      this.tell({ type: 'plates', laid: null });
    }
  }

  /** Tells the developer how plates are weighed and masked over the set as it is now. */
  update(base: KeyedSet): void {
    this.base = base;
    if (!this.shown) return;
    const { plates, takes, maskOf } = this.shown;
    const set: SetDocument = { ...base.set, takes: [...takes] };
    this.own = plates.map((plate) => {
      const own = setOfPlate(set, plate);
      // Powers, switches, shutter and ISO weigh films: no key has to be made of the whole set for them.
      const isWeighed =
        plate.takeId === undefined && plate.focusM === undefined && plate.fNumber === undefined;
      const weights = displayWeights(own) as Float64Array<ArrayBuffer>;
      return { plate, keyed: { key: isWeighed ? base.key : traceKey(own), set: own }, weights };
    });
    // The developer forgets films that no plate needs.
    const keys = new Set(this.besides().map(({ keyed }) => keyed.key));
    for (const key of this.traced.keys()) if (!keys.has(key)) this.traced.delete(key);
    const laid = this.own.map(({ plate, keyed, weights }): LaidPlate => {
      const { id, name, mask, featherPart } = plate;
      return {
        id,
        fileName: fileStem(name),
        films: keyed.key === base.key ? null : keyed.key,
        weights,
        mask: { mask, featherPart },
        camera: keyed.set.camera,
        laid: plate.laid,
      };
    });
    const all = { plates: laid, camera: base.set.camera, maskOf };
    // A thing that moves leaves them as they are at most steps: they are not to be developed anew for it.
    const told = JSON.stringify(all, (_key, value) => (value instanceof Float64Array ? [...value] : value));
    if (told === this.told) return;
    this.told = told;
    this.tell({ type: 'plates', laid: all });
  }

  /** Whether something of the plates is not traced yet. */
  wants(base: KeyedSet, width: number, window: FrameWindow): boolean {
    if (!this.shown) return false;
    const at = placeOf(width, window);
    return (
      (this.masked() && !this.partsAre(base, at)) ||
      this.besides().some(({ keyed }) => this.traced.get(keyed.key) !== at)
    );
  }

  /** Finds what is seen where, for the masks. */
  async traceParts(
    base: KeyedSet,
    width: number,
    window: FrameWindow,
    aspect: number,
    signal: AbortSignal,
  ): Promise<void> {
    const at = placeOf(width, window);
    if (!this.shown || !this.masked() || this.partsAre(base, at)) return;
    const { width: wide, height: high, part } = pictureOf(window, FINER * width, aspect);
    const run = { priority: 1, signal };
    const [map, things] = await Promise.all([
      partMapOf(this.pool, base, { width: wide, height: high }, part, run),
      this.pool.run(base, { kind: 'things' }, run),
    ]);
    this.parts = { key: base.key, at };
    this.tell({ type: 'parts', map, things, window });
  }

  /** Traces the films of plates that the set as it stands has not. */
  async traceFilms(width: number, window: FrameWindow, aspect: number, signal: AbortSignal): Promise<void> {
    const at = placeOf(width, window);
    for (const { keyed } of this.besides()) {
      if (this.traced.get(keyed.key) === at) continue;
      const options = { samples: SAMPLES, fewest: 2, atRest: true, signal };
      await this.maker.make(keyed, window, aspect, { ...options, width, ofPlates: keyed.key });
      this.traced.set(keyed.key, at);
    }
  }

  /** How the films of the set are weighed for its plates. */
  weighings(): Float64Array[] {
    return this.own.filter(({ keyed }) => keyed.key === this.base?.key).map(({ weights }) => weights);
  }

  private partsAre({ key }: KeyedSet, at: string): boolean {
    return this.parts.key === key && this.parts.at === at;
  }

  private masked(): boolean {
    return this.own.some(({ plate }) => plate.mask.length > 0);
  }

  private besides(): readonly OwnPlate[] {
    return this.own.filter(({ keyed }) => keyed.key !== this.base?.key);
  }
}

const placeOf = (width: number, window: FrameWindow): string => `${width} ${JSON.stringify(window)}`;
