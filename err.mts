import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import {
  addTile,
  createFilms,
  developFilms,
  exposureWeights,
  filterGuide,
  luminanceOf,
  prepareTracing,
  renderTile,
} from '@fendrix/core';
import { demoSet } from '@fendrix/demo';
import sharp from './node_modules/sharp/dist/index.mjs';

const name = process.argv[2]!;
const spp = Number(process.argv[3]);
const refN = Number(process.argv[4]);
const W = 160,
  H = 120;
const set = demoSet(name as any);
const t = prepareTracing(set);
const tile = { x: 0, y: 0, width: W, height: H };
function pic(samples: number, seed: number, whole = false) {
  const f = createFilms(W, H, t.scene.channelCount);
  const a = performance.now();
  addTile(
    f,
    tile,
    renderTile(t, { width: W, height: H, tile, firstSample: 0, samples, seed, wholePaths: whole }),
    samples,
  );
  const ms = performance.now() - a;
  const lin = new Float32Array(W * H * 3);
  developFilms(lin, f, exposureWeights(set));
  const l = new Float64Array(W * H);
  for (let i = 0; i < W * H; i++) l[i] = luminanceOf(lin[3 * i]!, lin[3 * i + 1]!, lin[3 * i + 2]!);
  return { l, ms };
}
const cache = `/tmp/ref_${name}_${refN}.f64`;
let ref: Float64Array;
if (existsSync(cache)) {
  const b = readFileSync(cache);
  ref = new Float64Array(b.buffer.slice(b.byteOffset, b.byteOffset + b.length));
} else {
  ref = pic(refN, 7).l;
  writeFileSync(cache, Buffer.from(ref.buffer));
}
pic(1, 3);
const r0 = t.kernel.rays[0]!;
const { l: own, ms } = pic(spp, 1);
const rays = (t.kernel.rays[0]! - r0) / (W * H * spp);
const max = Math.max(...ref);
const g = filterGuide(t, W, H, tile) as any;
const by = new Map<number, { n: number; e: number; q: number }>();
let n = 0,
  e = 0,
  q = 0;
const img = Buffer.alloc(W * H * 6 * 1);
for (let i = 0; i < W * H; i++) {
  if (ref[i]! < 0.01 * max) continue;
  const d = Math.abs(own[i]! - ref[i]!) / ref[i]!;
  n++;
  e += d;
  q += d * d;
  const k = g.region[i];
  const b = by.get(k) ?? { n: 0, e: 0, q: 0 };
  b.n++;
  b.e += d;
  b.q += d * d;
  by.set(k, b);
}
console.log(
  name,
  spp,
  'us/sample',
  ((ms * 1000) / (W * H * spp)).toFixed(2),
  'rays/sample',
  rays.toFixed(2),
  'mean',
  (e / n).toFixed(4),
  'rms',
  Math.sqrt(q / n).toFixed(4),
);
for (const [k, b] of [...by].sort((a, b) => b[1].e - a[1].e).slice(0, 9))
  console.log(
    '  region',
    k,
    t.scene.things[Math.floor(k)]?.name,
    'pixels',
    ((b.n / n) * 100).toFixed(1) + '%',
    'share of mean',
    ((b.e / e) * 100).toFixed(1) + '%',
    'mean',
    (b.e / b.n).toFixed(4),
    'share of squares',
    ((b.q / q) * 100).toFixed(1) + '%',
  );
for (let y = 0; y < H; y++)
  for (let x = 0; x < W; x++) {
    const i = y * W + x;
    const d = Math.abs(own[i]! - ref[i]!) / Math.max(ref[i]!, 0.01 * max);
    const v = Math.min(255, Math.round(d * 512));
    const p = Math.min(255, Math.round(255 * Math.min(1, (own[i]! / max) * 3) ** (1 / 2.2)));
    for (let c = 0; c < 3; c++) {
      img[(y * 2 * W + x) * 3 + c] = p;
      img[(y * 2 * W + W + x) * 3 + c] = v;
    }
  }
await sharp(img.subarray(0, W * 2 * H * 3), { raw: { width: 2 * W, height: H, channels: 3 } })
  .resize(W * 6, H * 3, { kernel: 'nearest' })
  .png()
  .toFile(`/tmp/err_${name}.png`);
