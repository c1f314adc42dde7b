import { base64OfBytes } from '../../units/base64.js';

/** One outline of a lofted body: an oval to a rectangle, level, at a height. */
export interface Section {
  heightM: number;
  halfWidthM: number;
  halfDepthM: number;
  /** 2 is an oval, higher is nearer to a rectangle. */
  exponent?: number;
  /** Its middle, m from the axis, away from the camera. */
  backM?: number;
}

const ROUND = 48;

/** The triangles of a body through sections from foot to top, closed at both ends, as a product holds them. */
export function loftMesh(sections: readonly Section[]): { positionsBase64: string; trianglesBase64: string } {
  const points = new Float32Array((sections.length * ROUND + 2) * 3);
  sections.forEach(({ heightM, halfWidthM, halfDepthM, exponent = 2, backM = 0 }, i) => {
    for (let k = 0; k < ROUND; k++) {
      const angle = (2 * Math.PI * k) / ROUND;
      const [c, s] = [Math.cos(angle), Math.sin(angle)];
      const x = halfWidthM * Math.sign(c) * Math.abs(c) ** (2 / exponent);
      const y = backM + halfDepthM * Math.sign(s) * Math.abs(s) ** (2 / exponent);
      points.set([x, y, heightM], 3 * (i * ROUND + k));
    }
  });
  const [foot, top] = [sections.length * ROUND, sections.length * ROUND + 1];
  const [first, last] = [sections[0] as Section, sections.at(-1) as Section];
  points.set([0, first.backM ?? 0, first.heightM], 3 * foot);
  points.set([0, last.backM ?? 0, last.heightM], 3 * top);
  const corners: number[] = [];
  for (let k = 0; k < ROUND; k++) {
    const next = (k + 1) % ROUND;
    corners.push(foot, next, k);
    for (let i = 0; i + 1 < sections.length; i++) {
      const [a, b] = [i * ROUND + k, i * ROUND + next];
      corners.push(a, b, a + ROUND, b, b + ROUND, a + ROUND);
    }
    const end = (sections.length - 1) * ROUND;
    corners.push(top, end + k, end + next);
  }
  return {
    positionsBase64: littleEndian(points, (view, at, value) => view.setFloat32(at, value, true)),
    trianglesBase64: littleEndian(corners, (view, at, value) => view.setUint32(at, value, true)),
  };
}

function littleEndian(
  values: ArrayLike<number>,
  put: (view: DataView, at: number, value: number) => void,
): string {
  const bytes = new Uint8Array(4 * values.length);
  const view = new DataView(bytes.buffer);
  for (let i = 0; i < values.length; i++) put(view, 4 * i, values[i] as number);
  return base64OfBytes(bytes);
}
