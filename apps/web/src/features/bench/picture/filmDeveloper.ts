import {
  addTile,
  createFeatures,
  createFilms,
  type DenoiseFeatures,
  encodePicture,
  type Films,
  keepFilms,
  placeFeatures,
  smoothFilms,
  smoothTile,
  type Thing,
  type Tile,
  weightsOfChannels,
} from '@fendrix/core';
import { type Developable, ofFilms, ofMixes, ofSomeFilms } from './developable';
import type { FromDeveloper, QuickPicture, ToDeveloper, ToneOverlay } from './developProtocol';
import type { FrameWindow } from './frameWindow';
import { encodePictureFile, type LinearPicture } from './pictureFile';
import type { PlateFile } from './plateFiles';
import { PlateLayer } from './plateLayer';
import { clippingLayer, stopsLayer } from './toneLayer';

/** A picture whose tiles come in. */
interface Growing {
  picture: number;
  films: Films;
  /** The films as shown: means, filtered. */
  smooth: Films;
  features: DenoiseFeatures;
  fewest: number;
  passing: boolean;
  /** Films taken over from an earlier picture. */
  kept: readonly number[];
  earlier: Films | null;
  /** What is on show where it has no tile yet; null where it comes when it is whole. */
  under: Shown | null;
  /** Tiles that have come, and are not shown over that yet. */
  tiles: Tile[];
  changed: boolean;
  window: FrameWindow;
  things: readonly Thing[];
  /** See `ToDeveloper`. */
  ofPlates: string | null;
}

/** The picture on show: kept until the next one is good enough, so that new weights act at once. */
interface Shown extends Developable {
  picture: number;
  samples: number;
  /** What a quick picture was mixed by; null for one with films. */
  mixedBy: Float64Array | null;
  /** What is seen where, see `DenoiseFeatures`. */
  region: Int32Array;
  things: readonly Thing[];
  /** Of one that is shown tile by tile, what is under it. */
  under: Shown | null;
}

/**
 * Keeps the films of the picture in view and develops them: sums of tiles, filter, weights, display.
 * Lives in a worker of its own, so that the page never touches pixels.
 */
export class FilmDeveloper {
  private growing: Growing | null = null;
  private shown: Shown | null = null;
  /** Films of the whole picture before. */
  private whole: Films | null = null;
  private weights: Float64Array = new Float64Array(0);
  private overlay: ToneOverlay = 'none';
  private readonly plates = new PlateLayer();
  private wanted = false;
  /** The wait before a growing picture is developed again. */
  private growTimer: ReturnType<typeof setTimeout> | undefined;
  /** From when on it may be: development takes a third of the time at most, the cores are for the light. */
  private notBefore = 0;

  constructor(private readonly post: (picture: FromDeveloper) => void) {}

  receive(message: ToDeveloper): void {
    switch (message.type) {
      case 'quick':
        this.takeQuick(message);
        break;
      case 'begin':
        this.begin(message);
        break;
      case 'weights':
        // A thing that moves brings the same weights at every step.
        if (message.weights.join() === this.weights.join()) return;
        this.weights = message.weights;
        this.want();
        break;
      case 'overlay':
        this.overlay = message.overlay;
        this.want();
        break;
      case 'plates':
        this.plates.set(message.laid);
        this.want();
        break;
      case 'parts':
        this.plates.setParts(message.map, message.things, message.window);
        this.want();
        break;
      case 'things':
        if (this.growing?.picture === message.picture) this.growing.things = message.things;
        break;
      case 'features':
        if (this.growing?.picture !== message.picture) return;
        placeFeatures(this.growing.features, message.tile, message.features);
        this.growing.changed = true;
        break;
      case 'tile':
        if (this.growing?.picture !== message.picture) return;
        this.take(this.growing, message);
        break;
      case 'show':
        if (this.growing?.picture === message.picture) this.wantGrown(message.last);
        break;
      case 'file':
        void this.sendFile(message);
        break;
      case 'plateFiles':
        void this.sendPlateFiles(message);
        break;
    }
  }

  private begin(message: ToDeveloper & { type: 'begin' }): void {
    const { picture, width, height, channels, stokes, fewest, passing, kept, window, ofPlates } = message;
    this.leaveGrowing();
    this.growing = {
      picture,
      films: createFilms(width, height, channels, stokes),
      smooth: createFilms(width, height, channels, stokes),
      features: createFeatures(width, height),
      fewest,
      passing,
      kept,
      earlier: kept.length > 0 ? this.whole : null,
      under: passing || kept.length > 0 || ofPlates !== null ? null : this.underneath(window),
      tiles: [],
      changed: false,
      window,
      things: [],
      ofPlates,
    };
  }

  private take(growing: Growing, { tile, sums, samples }: ToDeveloper & { type: 'tile' }): void {
    if (growing.films.samples[tile.y * growing.films.width + tile.x] === 0) growing.tiles.push(tile);
    addTile(growing.films, tile, sums, samples);
    growing.changed = true;
  }

  /** The picture on show, if films of another size can be laid over it. */
  private underneath(window: FrameWindow): Shown | null {
    const under = this.shown?.under ?? this.shown;
    return under && !under.mixedBy && JSON.stringify(under.window) === JSON.stringify(window) ? under : null;
  }

  private leaveGrowing(): void {
    if (this.growing && !this.growing.passing && this.growing.ofPlates === null)
      this.whole = this.growing.films;
    clearTimeout(this.growTimer);
    this.growTimer = undefined;
    this.notBefore = 0;
    this.growing = null;
  }

  private takeQuick(message: QuickPicture): void {
    const { picture, width, height, beside } = message;
    if (this.shown && (picture < this.shown.picture || (beside && !this.shown.mixedBy))) return;
    if (!beside) this.leaveGrowing();
    const region = new Int32Array(width * height);
    const [mixedBy = null] = message.mixes;
    this.shown = { ...ofMixes(message), picture, samples: 1, mixedBy, region, things: [], under: null };
    this.develop();
  }

  /** Develops once after all messages that wait, however many ask for it. */
  private want(): void {
    if (this.wanted) return;
    this.wanted = true;
    setTimeout(() => {
      this.wanted = false;
      this.develop();
    }, 0);
  }

  private wantGrown(last: boolean): void {
    if (last) {
      // At once: the next picture may begin with the very next message, and would take its place.
      this.showGrown();
      return;
    }
    if (this.growTimer !== undefined) return;
    const wait = Math.max(0, this.notBefore - performance.now());
    this.growTimer = setTimeout(() => this.showGrown(), wait);
  }

  private showGrown(): void {
    clearTimeout(this.growTimer);
    this.growTimer = undefined;
    const begin = performance.now();
    if (!this.grow()) return;
    this.develop();
    const end = performance.now();
    this.notBefore = end + 2 * (end - begin);
  }

  /** Puts the growing picture on show once it is good enough. @returns whether there is something new */
  private grow(): boolean {
    const { growing } = this;
    if (!growing?.changed) return false;
    const samples = growing.films.samples.reduce(
      (low, count) => Math.min(low, count),
      Number.POSITIVE_INFINITY,
    );
    if (samples < growing.fewest) {
      growing.changed = false;
      return this.growPartly(growing);
    }
    if (growing.earlier) keepFilms(growing.films, growing.earlier, growing.kept);
    smoothFilms(growing.smooth, growing.films, growing.features);
    growing.changed = false;
    const { picture, smooth: films, window, features, things, ofPlates } = growing;
    if (ofPlates !== null) {
      this.plates.setFilms(ofPlates, { films, window });
      return true;
    }
    const { region } = features;
    this.shown = { ...ofFilms(films, window), picture, samples, mixedBy: null, region, things, under: null };
    return true;
  }

  /** Shows those tiles that are good enough, over the picture before. */
  private growPartly(growing: Growing): boolean {
    const { picture, films, smooth, features, fewest, tiles, things, under } = growing;
    const enough = tiles.filter(({ x, y }) => (films.samples[y * films.width + x] as number) >= fewest);
    if (!under || enough.length === 0) return false;
    growing.tiles = tiles.filter((tile) => !enough.includes(tile));
    for (const tile of enough) smoothTile(smooth, films, features, tile, fewest);
    const samples = Math.min(fewest, under.samples);
    const shown = { ...ofSomeFilms(smooth, under), picture, samples, mixedBy: null };
    this.shown = { ...shown, region: features.region, things, under };
    return true;
  }

  /** The picture on show in linear light; null while there is none, or it cannot be had with these weights. */
  private weighed(weights: Float64Array): LinearPicture | null {
    const { shown } = this;
    const linear = shown?.develop(weights);
    return shown && linear ? { width: shown.width, height: shown.height, linear } : null;
  }

  /** The frame of the set as it stands. A light that moves may change its power at each step: a quick picture is shown as it was mixed. */
  private base(): LinearPicture | null {
    const mixedBy = this.shown?.mixedBy;
    return this.weighed(this.weights) ?? (mixedBy ? this.weighed(mixedBy) : null);
  }

  /** The picture on show as a file, or null; what goes wrong is null too, and asked for again. */
  private async sendFile({ format, layers, port }: ToDeveloper & { type: 'file' }): Promise<void> {
    // A quick picture has no layers.
    const picture = layers.length > 0 && this.shown?.mixedBy ? null : this.base();
    // Layers are of the frame of the set: all of them together are that.
    if (picture && this.shown && layers.length === 0) this.plates.lay(picture.linear, this.shown);
    // Now, not when the encoder is there: what is shown may be another picture then.
    const alone = layers.flatMap(({ name, channels }) => {
      const layer = this.weighed(weightsOfChannels(this.weights, channels));
      return layer ? [{ name, linear: layer.linear }] : [];
    });
    port.postMessage(picture ? await encodePictureFile(picture, format, alone).catch(() => null) : null);
    port.close();
  }

  /** All plates as files, or null while one of them is on its way. */
  private async sendPlateFiles({ list, port }: ToDeveloper & { type: 'plateFiles' }): Promise<void> {
    const base = this.base();
    const files = base && this.shown && this.filesOfPlates(this.shown);
    if (!base || !files) port.postMessage(null);
    else {
      const together = Float32Array.from(base.linear);
      this.plates.lay(together, this.shown as Shown);
      const { plateFiles } = await import('./plateFiles');
      port.postMessage(await plateFiles(base, base.linear, files, together, list).catch(() => null));
    }
    port.close();
  }

  private filesOfPlates(under: Developable): PlateFile[] | null {
    const files = this.plates.shown?.plates.map((plate) => {
      const linear = this.plates.develop(plate, under);
      const mask = this.plates.maskOf(plate, under);
      return linear && mask ? { name: plate.fileName, linear, mask } : null;
    });
    return files?.every((file) => file !== null) ? files : null;
  }

  private develop(): void {
    const developed = this.base();
    if (!this.shown || !developed) return;
    const { picture, samples, mixedBy, window, region, things, under } = this.shown;
    const quick = mixedBy !== null;
    const whole = under === null;
    const { width, height, linear } = developed;
    const plates = this.plates.lay(linear, this.shown);
    const pixels = new Uint8ClampedArray(width * height * 4);
    encodePicture(pixels, linear);
    const tones =
      this.overlay === 'stops'
        ? stopsLayer(linear, width, height)
        : this.overlay === 'clipping'
          ? clippingLayer(linear, width, height, region, things)
          : null;
    const mask = this.plates.maskPixels(this.shown);
    this.post({ picture, width, height, samples, quick, whole, pixels, window, tones, plates, mask });
  }
}
