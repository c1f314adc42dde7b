import type { SetDocument } from '@fendrix/contract';
import {
  BATCH_RAYS,
  type EngineCalls,
  layouts,
  prepareTracing,
  rayThrough,
  setRay,
  type Tracing,
  tessellate,
} from '@fendrix/core';
import { BufferAttribute, BufferGeometry, DoubleSide, Ray, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import { medianSeconds, repeatableNumbers } from './timing.js';

const { EMITTER_CENTRE, RAY_DIRECTION, RAY_FROM, RAY_ORIGIN, RAY_STRIDE, RAY_TO } = layouts;

const RAYS = 100_000;
const ROUNDS = 7;

/** What answers single rays, or many at once. */
type Kernel = Pick<EngineCalls, 'ray' | 'closestHit'> &
  (Pick<EngineCalls, 'batch' | 'castBatch'> | { castBatch?: undefined });

/** Rays as the kernel takes them. */
interface RaySets {
  primary: Float64Array;
  bounce: Float64Array;
  shadow: Float64Array;
}

/**
 * Rays a second of the kernel on one thread, over exact primitives and over the same scene as an imported mesh, beside
 * three-mesh-bvh on the same triangles and the same rays, all in one run. Ours are asked in batches, so that the time
 * is that of the ray and not of the call into WebAssembly, which pictures do not pay.
 */
export function kernelBench(set: SetDocument) {
  const exact = prepareTracing(set);
  const plain = prepareTracing(set, 'plain');
  const rays = makeRays(exact);
  const triangles = tessellate(exact.scene.table);
  const mesh = prepareTracing(meshSet(set, triangles));
  const other = meshBvhKernel(triangles);
  const rates = ratesInTurn({ exact: exact.engine, plain: plain.engine, mesh: mesh.engine, other }, rays);
  return {
    engine: exact.engine.name,
    primitives: exact.scene.table.count,
    triangles: triangles.length / 9,
    raysPerSecond: {
      'exact primitives': rounded(rates.exact),
      'exact primitives, plain TypeScript': rounded(rates.plain),
      'imported mesh': rounded(rates.mesh),
      'three-mesh-bvh': rounded(rates.other),
    },
    timesThreeMeshBvh: {
      'exact primitives': ratio(rates.exact, rates.other),
      'exact primitives, plain TypeScript': ratio(rates.plain, rates.other),
      'imported mesh': ratio(rates.mesh, rates.other),
    },
    sameAnswers: agreement(exact, other, rays),
    treeMilliseconds: 1000 * medianSeconds(() => prepareTracing(set), 3),
  };
}

function makeRays({ view, engine, scene }: Tracing): RaySets {
  const primary = new Float64Array(RAYS * RAY_STRIDE);
  const bounce = new Float64Array(RAYS * RAY_STRIDE);
  const shadow = new Float64Array(RAYS * RAY_STRIDE);
  const direction = new Float64Array(3);
  const random = repeatableNumbers(1);
  const lamp = scene.emitters[0]?.data.subarray(EMITTER_CENTRE) ?? new Float64Array([0, 0, 1]);
  let hits = 0;
  while (hits < RAYS) {
    rayThrough(direction, view, random(), random());
    setRay(engine.ray, view.origin, direction);
    primary.set(engine.ray, hits * RAY_STRIDE);
    if (engine.closestHit() < 0) continue;
    const distance = (engine.ray[RAY_TO] as number) - 1e-5;
    const point = [0, 1, 2].map(
      (a) => (engine.ray[RAY_ORIGIN + a] as number) + distance * (engine.ray[RAY_DIRECTION + a] as number),
    );
    const z = 2 * random() - 1;
    const phi = 2 * Math.PI * random();
    const flat = Math.sqrt(1 - z * z);
    setRay(engine.ray, point, [flat * Math.cos(phi), flat * Math.sin(phi), z]);
    bounce.set(engine.ray, hits * RAY_STRIDE);
    const to = [0, 1, 2].map((a) => (lamp[a] as number) + 0.4 * (random() - 0.5) - (point[a] as number));
    const away = Math.hypot(...to);
    setRay(
      engine.ray,
      point,
      to.map((t) => t / away),
      away * 0.999,
    );
    shadow.set(engine.ray, hits * RAY_STRIDE);
    hits++;
  }
  return { primary, bounce, shadow };
}

/** Rays a second: the best of rounds in which all take turns, as the machine's speed drifts within seconds. */
function ratesInTurn<Name extends string>(kernels: Record<Name, Kernel>, rays: RaySets): Record<Name, Rates> {
  const names = Object.keys(kernels) as Name[];
  const rates = Object.fromEntries(
    names.map((name) => [name, { camera: 0, bounce: 0, shadow: 0 }]),
  ) as Record<Name, Rates>;
  for (let round = 0; round < ROUNDS; round++) {
    for (const name of names) {
      const rate = (numbers: Float64Array, any: boolean) => RAYS / secondsOf(kernels[name], numbers, any);
      const best = rates[name];
      best.camera = Math.max(best.camera, rate(rays.primary, false));
      best.bounce = Math.max(best.bounce, rate(rays.bounce, false));
      best.shadow = Math.max(best.shadow, rate(rays.shadow, true));
    }
  }
  return rates;
}

function secondsOf(kernel: Kernel, numbers: Float64Array, any: boolean): number {
  const begin = performance.now();
  if (kernel.castBatch) castAll(kernel, numbers, any);
  else askAll(kernel, numbers);
  return (performance.now() - begin) / 1000;
}

function castAll(
  { batch, castBatch }: Pick<EngineCalls, 'batch' | 'castBatch'>,
  numbers: Float64Array,
  any: boolean,
): void {
  for (let first = 0; first < RAYS; first += BATCH_RAYS) {
    const count = Math.min(BATCH_RAYS, RAYS - first);
    batch.set(numbers.subarray(RAY_STRIDE * first, RAY_STRIDE * (first + count)));
    castBatch(count, any);
  }
}

function askAll({ ray, closestHit }: Kernel, numbers: Float64Array): void {
  for (let i = 0; i < RAYS; i++) {
    for (let a = 0; a < RAY_STRIDE; a++) ray[a] = numbers[RAY_STRIDE * i + a] as number;
    closestHit();
  }
}

interface Rates {
  camera: number;
  bounce: number;
  shadow: number;
}

const rounded = (rates: Rates) => ({
  camera: Math.round(rates.camera),
  bounce: Math.round(rates.bounce),
  shadow: Math.round(rates.shadow),
});

const ratio = (ours: Rates, theirs: Rates) => ({
  camera: tenths(ours.camera / theirs.camera),
  bounce: tenths(ours.bounce / theirs.bounce),
  shadow: tenths(ours.shadow / theirs.shadow),
});

const tenths = (value: number) => Math.round(10 * value) / 10;

/** Part of the camera rays whose distance is the same within the facets, so that both did the same work. */
function agreement({ engine }: Tracing, other: Kernel, { primary }: RaySets): number {
  let same = 0;
  const count = 5000;
  for (let i = 0; i < count; i++) {
    const [ours, theirs] = [engine, other].map((one) => {
      for (let a = 0; a < RAY_STRIDE; a++) one.ray[a] = primary[RAY_STRIDE * i + a] as number;
      return one.closestHit() < 0 ? Number.POSITIVE_INFINITY : (one.ray[RAY_TO] as number);
    }) as [number, number];
    if (ours === theirs || Math.abs(ours - theirs) < 1e-3) same++;
  }
  return same / count;
}

/** The same set as one imported mesh and nothing else. */
function meshSet(set: SetDocument, triangles: Float32Array): SetDocument {
  const corners = Uint32Array.from({ length: triangles.length / 3 }, (_, i) => i);
  const base64 = (array: Float32Array | Uint32Array) => Buffer.from(array.buffer).toString('base64');
  const { room: _room, bench: _bench, backdrop: _backdrop, ...rest } = set;
  return {
    ...rest,
    lights: [],
    sheets: [],
    spots: [],
    products: [
      {
        kind: 'mesh',
        id: 'mesh',
        name: 'the whole set',
        positionM: [0, 0, 0],
        turnDeg: 0,
        material: { kind: 'matte', reflectance: [0.5, 0.5, 0.5] },
        positionsBase64: base64(triangles),
        trianglesBase64: base64(corners),
        parts: [],
        smoothDeg: 0,
      },
    ],
  };
}

function meshBvhKernel(triangles: Float32Array): Kernel {
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(triangles, 3));
  const bvh = new MeshBVH(geometry);
  const ray = new Float64Array(RAY_STRIDE);
  const asked = new Ray(new Vector3(), new Vector3());
  const ask = () => {
    asked.origin.fromArray(ray, RAY_ORIGIN);
    asked.direction.fromArray(ray, RAY_DIRECTION);
    const hit = bvh.raycastFirst(asked, DoubleSide, ray[RAY_FROM] as number, ray[RAY_TO] as number);
    if (!hit) return -1;
    ray[RAY_TO] = hit.distance;
    return hit.faceIndex ?? 0;
  };
  return { ray, closestHit: ask };
}
