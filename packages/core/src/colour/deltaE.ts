/** CIE 1976 lightness, a and b. */
export type Lab = readonly [number, number, number];

const WHITE = [0.95047, 1, 1.08883] as const;

/** Linear sRGB (white at 1, 1, 1) to CIELAB under D65. Source: CIE 15, IEC 61966-2-1. */
export function labOf([r, g, b]: readonly [number, number, number]): Lab {
  const xyz = [
    0.4124564 * r + 0.3575761 * g + 0.1804375 * b,
    0.2126729 * r + 0.7151522 * g + 0.072175 * b,
    0.0193339 * r + 0.119192 * g + 0.9503041 * b,
  ];
  const f = (value: number) => (value > 216 / 24389 ? Math.cbrt(value) : (value * (24389 / 27) + 16) / 116);
  const [x, y, z] = xyz.map((value, i) => f(value / (WHITE[i] as number))) as [number, number, number];
  return [116 * y - 16, 500 * (x - y), 200 * (y - z)];
}

/**
 * Colour difference CIEDE2000; 1 is just seen side by side, 3 at a glance. Lab (50, 2.6772, -79.7751) and
 * (50, 0, -82.7485): 2.0425.
 * Source: Sharma, Wu, Dalal 2005.
 */
export function deltaE2000(one: Lab, other: Lab): number {
  const [l1, a1, b1] = one;
  const [l2, a2, b2] = other;
  const meanChroma7 = ((Math.hypot(a1, b1) + Math.hypot(a2, b2)) / 2) ** 7;
  const g = 0.5 * (1 - Math.sqrt(meanChroma7 / (meanChroma7 + 25 ** 7)));
  const [ap1, ap2] = [(1 + g) * a1, (1 + g) * a2];
  const [c1, c2] = [Math.hypot(ap1, b1), Math.hypot(ap2, b2)];
  const hue = (a: number, b: number) =>
    a === 0 && b === 0 ? 0 : (Math.atan2(b, a) + 2 * Math.PI) % (2 * Math.PI);
  const [h1, h2] = [hue(ap1, b1), hue(ap2, b2)];
  const grey = c1 * c2 === 0;
  let dh = grey ? 0 : h2 - h1;
  if (dh > Math.PI) dh -= 2 * Math.PI;
  else if (dh < -Math.PI) dh += 2 * Math.PI;
  const deltaH = 2 * Math.sqrt(c1 * c2) * Math.sin(dh / 2);
  const meanL = (l1 + l2) / 2;
  const meanC = (c1 + c2) / 2;
  let meanH = h1 + h2;
  if (!grey) {
    if (Math.abs(h1 - h2) <= Math.PI) meanH /= 2;
    else meanH = meanH < 2 * Math.PI ? meanH / 2 + Math.PI : meanH / 2 - Math.PI;
  }
  const deg = Math.PI / 180;
  const t =
    1 -
    0.17 * Math.cos(meanH - 30 * deg) +
    0.24 * Math.cos(2 * meanH) +
    0.32 * Math.cos(3 * meanH + 6 * deg) -
    0.2 * Math.cos(4 * meanH - 63 * deg);
  const sl = 1 + (0.015 * (meanL - 50) ** 2) / Math.sqrt(20 + (meanL - 50) ** 2);
  const sc = 1 + 0.045 * meanC;
  const sh = 1 + 0.015 * meanC * t;
  const turn = 30 * deg * Math.exp(-(((meanH / deg - 275) / 25) ** 2));
  const rc = 2 * Math.sqrt(meanC ** 7 / (meanC ** 7 + 25 ** 7));
  const rt = -Math.sin(2 * turn) * rc;
  const [dl, dc, dH] = [(l2 - l1) / sl, (c2 - c1) / sc, deltaH / sh];
  return Math.sqrt(dl * dl + dc * dc + dH * dH + rt * dc * dH);
}
