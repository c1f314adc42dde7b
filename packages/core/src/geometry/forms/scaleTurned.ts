import type { Turned } from '@fendrix/contract';

/** Width and height of a turned product over all, m. */
export function turnedSize({ profile }: Pick<Turned, 'profile'>): { widthM: number; heightM: number } {
  return {
    widthM: 2 * Math.max(...profile.map(({ radiusM }) => radiusM)),
    heightM: profile.at(-1)?.heightM ?? 0,
  };
}

/**
 * The same outline drawn to another width and height: with it go parts, labels, what is set on it, base and liquid by height; the wall
 * stays as thick as it is.
 */
export function scaleTurned(
  product: Turned,
  { widthM, heightM }: { widthM?: number; heightM?: number },
): Turned {
  const now = turnedSize(product);
  const across = (widthM ?? now.widthM) / now.widthM;
  const up = (heightM ?? now.heightM) / now.heightM;
  const band = <B extends { fromM: number; toM: number }>(own: B): B => ({
    ...own,
    fromM: own.fromM * up,
    toM: own.toM * up,
  });
  const { hollow } = product;
  return {
    ...product,
    profile: product.profile.map((point) => ({
      ...point,
      radiusM: point.radiusM * across,
      heightM: point.heightM * up,
    })),
    parts: product.parts.map(band),
    labels: product.labels.map(band),
    attached: product.attached.map((own) => ({
      ...own,
      pathM: own.pathM.map(([x, y, z]) => [x * across, y * across, z * up]),
    })),
    ...(product.bandHeightM === undefined ? {} : { bandHeightM: product.bandHeightM * up }),
    ...(hollow
      ? {
          hollow: {
            ...hollow,
            baseM: hollow.baseM * up,
            ...(hollow.liquid ? { liquid: { ...hollow.liquid, fillToM: hollow.liquid.fillToM * up } } : {}),
          },
        }
      : {}),
  };
}
