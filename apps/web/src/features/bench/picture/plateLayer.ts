import {
  developFilms,
  type Films,
  layPlate,
  type MaskGround,
  type PartMap,
  plateMask,
  resizeMask,
  stackedCameras,
  type Thing,
} from '@fendrix/core';
import type { Developable } from './developable';
import type { LaidPlate, LaidPlates } from './developProtocol';
import type { FrameWindow } from './frameWindow';

/** Films of plates that are not those of the set as it stands. */
export interface PlateFilms {
  films: Films;
  window: FrameWindow;
}

const sameWindow = (a: FrameWindow, b: FrameWindow) =>
  a.zoom === b.zoom && a.left === b.left && a.top === b.top;

/** A mask at the size of the picture that it was asked for last. */
interface SizedMask {
  width: number;
  height: number;
  mask: Float32Array;
}

/** Lays plates over the picture on show, and keeps what that takes: masks, what is seen where, films of their own. */
export class PlateLayer {
  private laid: LaidPlates | null = null;
  private seen: { map: PartMap; things: readonly Thing[]; window: FrameWindow } | null = null;
  private readonly own = new Map<string, PlateFilms>();
  /** Masks at the size of the map, by plate, with what they were made from. */
  private readonly masks = new Map<
    string,
    { of: string; map: PartMap; mask: Float32Array; sized: SizedMask }
  >();

  get shown(): LaidPlates | null {
    return this.laid;
  }

  set(laid: LaidPlates | null): void {
    this.laid = laid;
    const wanted = new Set(laid?.plates.map(({ films }) => films));
    for (const key of this.own.keys()) if (!wanted.has(key)) this.own.delete(key);
    const ids = new Set(laid?.plates.map(({ id }) => id));
    for (const id of this.masks.keys()) if (!ids.has(id)) this.masks.delete(id);
  }

  /** Takes what is seen where; masks are made from it from then on. */
  setParts(map: PartMap, things: readonly Thing[], window: FrameWindow): void {
    this.seen = { map, things, window };
  }

  /** Takes films of plates that are traced for themselves; forgotten when no plate needs them. */
  setFilms(key: string, films: PlateFilms): void {
    if (this.laid?.plates.some((plate) => plate.films === key)) this.own.set(key, films);
  }

  /** Lays all plates that can be laid by now over a picture in linear light. @returns how many are, and how many are not */
  lay(linear: Float32Array, under: Developable): { laid: number; onTheirWay: number } | null {
    if (!this.laid) return null;
    let laid = 0;
    const wanted = this.laid.plates.filter((plate) => plate.laid);
    for (const plate of wanted) {
      const mask = this.maskOf(plate, under);
      const developed = mask && this.develop(plate, under);
      if (!mask || !developed) continue;
      layPlate(linear, developed, mask);
      laid++;
    }
    return { laid, onTheirWay: wanted.length - laid };
  }

  /** A plate by itself in linear light; null while its films are not those of the part of the frame on show. */
  develop(plate: LaidPlate, under: Developable): Float32Array | null {
    if (plate.films === null) return under.develop(plate.weights);
    const own = this.own.get(plate.films);
    const { width, height } = under;
    if (!own || !sameWindow(own.window, under.window)) return null;
    if (own.films.width !== width || own.films.height !== height) return null;
    if (plate.weights.length !== 3 * own.films.channels) return null;
    const developed = new Float32Array(width * height * 3);
    developFilms(developed, own.films, plate.weights);
    return developed;
  }

  /** The mask of a plate at the size of the picture; null while it is not known what is seen there. */
  maskOf(plate: LaidPlate, under: Developable): Float32Array | null {
    const { seen, laid } = this;
    if (plate.mask.mask.length === 0) return new Float32Array(under.width * under.height).fill(1);
    if (!seen || !laid || !sameWindow(seen.window, under.window)) return null;
    const cameras = stackedCameras(
      laid.camera,
      laid.plates.map(({ mask, camera }) => ({ ...mask, camera })),
    );
    const of = JSON.stringify([plate.mask, cameras.length > 1 && [plate.camera, cameras]]);
    let known = this.masks.get(plate.id);
    if (known?.of !== of || known.map !== seen.map) {
      const { zoom, left, top } = under.window;
      const part = { left, top, width: 1 / zoom, height: 1 / zoom };
      const { sensorWidthM, sensorHeightM } = laid.camera.body;
      const ground: MaskGround = { ...seen, window: part, aspect: sensorWidthM / sensorHeightM, cameras };
      const mask = plateMask(ground, plate.mask, plate.camera);
      const { width, height } = seen.map;
      known = { of, map: seen.map, mask, sized: { width, height, mask } };
      this.masks.set(plate.id, known);
    }
    const { width, height } = under;
    // Powers change while the picture keeps its size.
    if (known.sized.width !== width || known.sized.height !== height)
      known.sized = { width, height, mask: resizeMask(known.mask, seen.map, under) };
    return known.sized.mask;
  }

  /** The mask that is looked at as pixels to lay over the picture: what is not taken is covered. */
  maskPixels(under: Developable): Uint8ClampedArray<ArrayBuffer> | null {
    const plate = this.laid?.plates.find(({ id }) => id === this.laid?.maskOf);
    const mask = plate && this.maskOf(plate, under);
    if (!mask) return null;
    const { width, height } = under;
    const pixels = new Uint8ClampedArray(width * height * 4);
    for (let i = 0; i < mask.length; i++) {
      const x = i % width;
      const line = (x + (i - x) / width) % 8 < 2;
      const grey = line ? 130 : 50;
      pixels.fill(grey, 4 * i, 4 * i + 3);
      pixels[4 * i + 3] = 190 * (1 - (mask[i] as number));
    }
    return pixels;
  }
}
