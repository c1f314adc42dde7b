import type { SetDocument } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import {
  BAND_HEIGHTS,
  bandHeightM,
  createNormal,
  type GreyPicture,
  type MirrorBand,
  measureEdges,
  measurePrints,
  mirrorBand,
  prepareTracing,
  standingOfProducts,
  viewOf,
  withMoved,
} from '../src/index.js';

const WIDTH = 480;
const HEIGHT = 320;

function bandsOf(set: SetDocument): MirrorBand[] {
  const tracing = prepareTracing(set);
  return set.products.flatMap((product) =>
    BAND_HEIGHTS.flatMap((part) => mirrorBand(tracing, product, part * bandHeightM(product)) ?? []),
  );
}

/** What is mirrored, each in a tone of its own; the outline before a grey. */
function toneOf(kind: string, what: string | null): number {
  if (kind === 'sheet' || kind === 'light') return 0.5 + 0.05 * Number.parseInt(what ?? '0', 36);
  return kind === 'backdrop' ? 0.12 : kind === 'bench' ? 0.08 : 0.04;
}

/** A picture of bands alone, as a lens draws it: soft over a pixel, with noise. */
function drawn(bands: readonly MirrorBand[], noise: () => number): GreyPicture {
  const grey = new Float32Array(WIDTH * HEIGHT).fill(0.2);
  for (const { left, right, down, lengths } of bands) {
    const at = (across: number) => {
      const u = (across - left) / (right - left);
      if (u < 0 || u > 1) return 0.2;
      const own = lengths.find(({ to }) => u <= to);
      return own ? toneOf(own.kind, own.what) : 0.2;
    };
    for (const by of [-1, 0, 1]) {
      const line = (Math.floor(down * HEIGHT) + by) * WIDTH;
      for (let x = 0; x < WIDTH; x++) {
        let sum = 0;
        for (let i = 0; i < 12; i++) sum += at((x - 0.5 + (2 * (i + 0.5)) / 12) / WIDTH);
        grey[line + x] = (sum / 12) * (1 + 0.02 * noise());
      }
    }
  }
  return { width: WIDTH, height: HEIGHT, grey };
}

describe('edges of images in a frame', () => {
  const plan = demoSet('mill');
  const bands = bandsOf(plan);

  test('edges of the plan are found where they are', () => {
    const still = drawn(bands, () => 0);
    const edges = measureEdges(still, still, bands);
    expect(edges.length).toBeGreaterThan(30);
    for (const { by } of edges) expect(Math.abs(by)).toBeLessThan(0.002);
    expect(measureEdges(still, { ...still, grey: still.grey.map(() => 0.2) }, bands)).toEqual([]);
  });
});

describe('how a product stands, by its outline and its label', () => {
  const plan = demoSet('bottle');
  const bands = bandsOf(plan);
  const widthM = 0.5;
  /** Bands with letters on the label, dark and light by its bearing. */
  const printed = (of: readonly MirrorBand[], turnDeg: number, noise: () => number): GreyPicture => {
    const picture = drawn(of, noise);
    for (const { left, right, down, heightM } of of) {
      if (heightM < 0.03 || heightM > 0.11) continue;
      for (let x = Math.ceil(left * WIDTH); x < right * WIDTH; x++) {
        const u = ((x + 0.5) / WIDTH - left) / (right - left);
        const bearing = (180 / Math.PI) * Math.asin(Math.max(-1, Math.min(1, 2 * u - 1))) - turnDeg;
        if (Math.abs(bearing) > 60) continue;
        // Letters of uneven width, so that no two places are alike.
        const tone = 0.3 + 0.2 * Math.sin(bearing / 4 + Math.sin(bearing / 9) * 2);
        for (const by of [-1, 0, 1]) picture.grey[(Math.floor(down * HEIGHT) + by) * WIDTH + x] = tone;
      }
    }
    return picture;
  };
  const seen = (real: SetDocument, seed: number, turnDeg = 0) => {
    const normal = createNormal(seed);
    const pictures = [printed(bands, 0, normal), printed(bandsOf(real), turnDeg, normal)] as const;
    const edges = measureEdges(...pictures, bands);
    return standingOfProducts(edges, measurePrints(...pictures, bands, plan), bands, () => widthM)[0];
  };
  const moved = (byM: number): SetDocument =>
    withMoved(plan, [{ part: { kind: 'product', key: 'bottle' }, way: 'right', byM }]);

  test('as planned: nothing is off by three of its errors', () => {
    const found = seen(plan, 3);
    for (const figure of [found?.right, found?.leanDeg, found?.turnDeg]) {
      expect(figure).not.toBeNull();
      expect(Math.abs(figure?.value ?? 9)).toBeLessThan(3 * (figure?.error ?? 0));
    }
  });

  test.each([4, -4])(
    'a label that is turned by %s degrees, also where the bottle stands elsewhere',
    (deg) => {
      for (const real of [plan, moved(0.002)]) {
        const { value, error } = seen(real, 4, deg)?.turnDeg ?? { value: 99, error: 0 };
        expect(Math.abs(value - deg)).toBeLessThan(1.5);
        expect(Math.abs(value)).toBeGreaterThan(3 * error);
      }
    },
  );

  test('one that stands further right, to half a millimetre', () => {
    const view = viewOf(plan.camera);
    const depth = Math.hypot(
      ...plan.camera.positionM.map((value, i) => value - (plan.camera.aimM[i] as number)),
    );
    const scale = widthM / (2 * view.halfWidth * depth);
    expect(Math.abs((seen(moved(0.003), 5)?.right?.value ?? 9) / scale - 0.003)).toBeLessThan(0.0005);
  });

  test('one that leans: a camera that is turned about its axis makes it lean the other way', () => {
    const { camera } = plan;
    const { value, error } = seen({ ...plan, camera: { ...camera, rollDeg: camera.rollDeg + 2 } }, 6)
      ?.leanDeg ?? { value: 0, error: 9 };
    expect(Math.abs(value)).toBeGreaterThan(3 * error);
    expect(Math.abs(Math.abs(value) - 2)).toBeLessThan(1.2);
  });

  test('what its edges tell too vaguely is not told at all', () => {
    const scattered = bands.map(({ product, heightM }, i) => ({
      product,
      heightM,
      left: null,
      right: null,
      plan: 0,
      by: i % 2 === 0 ? 0.2 : -0.2,
    }));
    const [vague] = standingOfProducts(scattered, [], bands, () => widthM);
    expect(vague).toMatchObject({ right: null, leanDeg: null, turnDeg: null });
    const [calm] = standingOfProducts(
      scattered.map((edge) => ({ ...edge, by: 0 })),
      [],
      bands,
      () => widthM,
    );
    expect(calm?.right?.value).toBeCloseTo(0, 9);
    expect(calm?.leanDeg?.value).toBeCloseTo(0, 9);
  });
});
