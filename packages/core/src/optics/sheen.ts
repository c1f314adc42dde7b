/**
 * Sheen of standing fibres: a lobe towards grazing angles, over a Lambertian cloth that gets what it leaves.
 * D(h) = (2 + 1/a) sin^(1/a) / 2 pi, V = 1 / (4 (i + o - i o)), a = 0.4.
 * Limits: one softness; colourless; single scattering.
 * Sources: Estevez and Kulla 2017 (distribution); Neubelt and Pettineo 2013 (visibility).
 */
const INVERSE_SOFTNESS = 1 / 0.4;
const ENTRIES = 64;

/** Albedo of the whole lobe at cosine (i / ENTRIES)^2, and its mean over the hemisphere. */
const albedo = new Float64Array(ENTRIES + 2);
let albedoMean = 0;
tabulate();

/** Bidirectional reflectance of the whole lobe, 1/sr. */
export function sheenLobe(cosOut: number, cosIn: number, cosHalf: number): number {
  const sine = Math.sqrt(Math.max(0, 1 - cosHalf * cosHalf));
  const density = ((2 + INVERSE_SOFTNESS) * sine ** INVERSE_SOFTNESS) / (2 * Math.PI);
  return density / (4 * (cosIn + cosOut - cosIn * cosOut));
}

/** Part of light from a direction that the lobe sends back. */
export function sheenAlbedo(cosine: number): number {
  const at = Math.sqrt(cosine) * ENTRIES;
  const i = at | 0;
  const low = albedo[i] as number;
  return low + (at - i) * ((albedo[i + 1] as number) - low);
}

/** Mean of `sheenAlbedo` over a hemisphere of even light. */
export function meanSheenAlbedo(): number {
  return albedoMean;
}

function tabulate(): void {
  const steps = 96;
  for (let entry = 0; entry <= ENTRIES; entry++) {
    const oz = Math.max(1e-3, (entry / ENTRIES) ** 2);
    const ox = Math.sqrt(1 - oz * oz);
    let sum = 0;
    for (let a = 0; a < steps; a++) {
      const iz = (a + 0.5) / steps;
      const side = Math.sqrt(1 - iz * iz);
      for (let b = 0; b < steps; b++) {
        const phi = (Math.PI * (b + 0.5)) / steps;
        const hx = ox + side * Math.cos(phi);
        const hy = side * Math.sin(phi);
        const hz = oz + iz;
        const cosHalf = hz / Math.sqrt(hx * hx + hy * hy + hz * hz);
        sum += (2 * Math.PI * sheenLobe(oz, iz, cosHalf) * iz) / (steps * steps);
      }
    }
    albedo[entry] = Math.min(1, sum);
  }
  albedo[ENTRIES + 1] = albedo[ENTRIES] as number;
  const means = 512;
  for (let i = 0; i < means; i++) {
    const mu = (i + 0.5) / means;
    albedoMean += (2 * mu * sheenAlbedo(mu)) / means;
  }
}
