import { zlibSync } from 'fflate';
import { DataUtils } from 'three/src/extras/DataUtils.js';

/** One layer of a picture: linear red, green, blue, 3 a pixel, top row first. */
export interface ExrLayer {
  /** Empty for the picture itself. */
  name: string;
  rgb: Float32Array;
}

/** Scan lines that are packed together by ZIP. */
const LINES = 16;
const HALF = 1;
const ZIP = 3;
const MOST_HALF = 65504;
const MOST_NAME = 31;

/**
 * An OpenEXR file of half floats, scan lines, packed without loss: a picture and its layers, each in channels of its own name
 * (`A key.R`). Values beyond what a half float holds are held at its most.
 * Source: Technical Introduction to OpenEXR; OpenEXR File Layout (Academy Software Foundation).
 */
export function encodeOpenExr(width: number, height: number, layers: readonly ExrLayer[]): Uint8Array {
  const channels = layers
    .flatMap(({ name, rgb }) =>
      ['R', 'G', 'B'].map((colour, c) => ({
        name: name === '' ? colour : `${layerName(name)}.${colour}`,
        rgb,
        c,
      })),
    )
    .sort((a, b) => (a.name < b.name ? -1 : 1));
  const head = headOf(
    width,
    height,
    channels.map(({ name }) => name),
  );
  const chunks: Uint8Array[] = [];
  for (let top = 0; top < height; top += LINES) {
    const lines = Math.min(LINES, height - top);
    const raw = new Uint8Array(lines * channels.length * width * 2);
    const view = new DataView(raw.buffer);
    let at = 0;
    for (let y = top; y < top + lines; y++) {
      for (const { rgb, c } of channels) {
        for (let x = 0; x < width; x++, at += 2)
          view.setUint16(at, halfOf(rgb[3 * (y * width + x) + c]), true);
      }
    }
    const packed = zlibSync(predicted(raw), { level: 5 });
    // What does not get smaller is written as it is.
    const data = packed.length < raw.length ? packed : raw;
    const chunk = new Uint8Array(8 + data.length);
    new DataView(chunk.buffer).setInt32(0, top, true);
    new DataView(chunk.buffer).setInt32(4, data.length, true);
    chunk.set(data, 8);
    chunks.push(chunk);
  }
  return joined(head, chunks);
}

/** A name without what an OpenEXR channel or a program that reads it trips over. */
const layerName = (name: string): string =>
  name
    .normalize('NFKD')
    .replace(/[^A-Za-z0-9 _-]/g, '')
    .trim()
    .replace(/\s+/g, ' ')
    .slice(0, MOST_NAME - 2)
    .trim() || 'layer';

const halfOf = (value: number | undefined): number =>
  DataUtils.toHalfFloat(
    Number.isFinite(value) ? Math.max(-MOST_HALF, Math.min(MOST_HALF, value as number)) : 0,
  );

/** As ZIP packs it best: even bytes, then odd ones, each as its difference from the one before. */
function predicted(raw: Uint8Array): Uint8Array {
  const out = new Uint8Array(raw.length);
  const half = Math.ceil(raw.length / 2);
  for (let i = 0; i < raw.length; i++) out[(i >> 1) + (i % 2 === 0 ? 0 : half)] = raw[i] as number;
  for (let i = out.length - 1; i > 0; i--)
    out[i] = ((out[i] as number) - (out[i - 1] as number) + 128) & 0xff;
  return out;
}

function headOf(width: number, height: number, names: readonly string[]): Uint8Array {
  const bytes: number[] = [0x76, 0x2f, 0x31, 0x01, 2, 0, 0, 0];
  const text = (value: string) => {
    for (const letter of value) bytes.push(letter.charCodeAt(0));
    bytes.push(0);
  };
  const int = (value: number) =>
    bytes.push(value & 0xff, (value >> 8) & 0xff, (value >> 16) & 0xff, (value >> 24) & 0xff);
  const float = (value: number) => bytes.push(...new Uint8Array(Float32Array.of(value).buffer));
  const attribute = (name: string, type: string, size: number, write: () => void) => {
    text(name);
    text(type);
    int(size);
    write();
  };
  const box = () => [0, 0, width - 1, height - 1].forEach(int);
  const size = names.reduce((sum, name) => sum + name.length + 17, 1);
  attribute('channels', 'chlist', size, () => {
    for (const name of names) {
      text(name);
      int(HALF);
      int(0);
      int(1);
      int(1);
    }
    bytes.push(0);
  });
  attribute('compression', 'compression', 1, () => bytes.push(ZIP));
  attribute('dataWindow', 'box2i', 16, box);
  attribute('displayWindow', 'box2i', 16, box);
  attribute('lineOrder', 'lineOrder', 1, () => bytes.push(0));
  attribute('pixelAspectRatio', 'float', 4, () => float(1));
  attribute('screenWindowCenter', 'v2f', 8, () => {
    float(0);
    float(0);
  });
  attribute('screenWindowWidth', 'float', 4, () => float(1));
  bytes.push(0);
  return Uint8Array.from(bytes);
}

/** Header, the places of all chunks, chunks. */
function joined(head: Uint8Array, chunks: readonly Uint8Array[]): Uint8Array {
  const first = head.length + 8 * chunks.length;
  const out = new Uint8Array(chunks.reduce((sum, chunk) => sum + chunk.length, first));
  const view = new DataView(out.buffer);
  out.set(head);
  let at = first;
  chunks.forEach((chunk, i) => {
    view.setBigUint64(head.length + 8 * i, BigInt(at), true);
    out.set(chunk, at);
    at += chunk.length;
  });
  return out;
}
