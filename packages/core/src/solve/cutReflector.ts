import type { SetDocument, SheetOf, Turned, Vector } from '@fendrix/contract';
import { outlinePieces, outlineRadius } from '../geometry/products/outline.js';

/** Part of the width behind it that the product hides, which the reflector takes: the rest is for a hand that is not a machine. */
const HIDDEN_PART = 0.88;
/** Free behind the product, and left below and above the outline, m. */
const BEHIND_M = 0.015;
const LEFT_OUT_M = 0.004;
/** It is turned from the lens by no more than this: further, its edge would touch what it stands behind, radians. */
const MOST_TURN = Math.PI / 6;
/** Scatterings on the way through from which on nothing behind shows any more: a tenth of the light keeps its direction. */
const MOST_SCATTERED = 2.3;
/** Points of its edge. */
const POINTS = 24;
/** From this tilt of the lens on it sees the tabletop behind the product, and over any card there, degrees as a slope. */
const STEEPEST = Math.tan(Math.PI / 4);

/**
 * A silver card cut to the outline of a turned product, close behind it and just not seen past it: it throws light from
 * the side, or from behind the lens, back through glass and liquid: it is turned half way from the lens to the nearest lamp
 * before it, upright as it stands. It reaches up to the liquid, or without one to below the cap.
 * Outline and card are projected from the entrance pupil on the plane of each; the turn of the edge with the view from a
 * little above is left out, which the part that is left free takes up.
 * @returns null for a product that leans or holds something too cloudy to show it, or where the lens looks down on it by more than 45 degrees
 */
export function cutReflector(set: SetDocument, product: Turned, tag: string): SheetOf<'cut-out'> | null {
  const [lensX, lensY, lensZ] = set.camera.positionM;
  const [x, y, footZ] = product.positionM;
  const awayM = Math.hypot(x - lensX, y - lensY);
  if ((product.lean?.deg ?? 0) !== 0 || awayM < 0.02) return null;
  const outline = outlinePieces(product.profile);
  const heightM = product.profile.at(-1)?.heightM ?? 0;
  if (Math.abs(lensZ - footZ - heightM / 2) > STEEPEST * awayM) return null;
  const cap = product.parts.reduce(
    (low, part) => (part.toM >= heightM - 1e-3 ? Math.min(low, part.fromM) : low),
    heightM,
  );
  const top = Math.min(cap, product.hollow?.liquid?.fillToM ?? heightM) - LEFT_OUT_M;
  const widest = Math.max(...product.profile.map(({ radiusM }) => radiusM));
  const perCm = product.hollow ? product.hollow.liquid?.material.scatteringPerCm : cloudOf(product);
  if ((perCm ?? 0) * 200 * widest > MOST_SCATTERED) return null;
  const behind = widest + BEHIND_M;
  /** What the product hides at the card's plane is this much larger. */
  const grown = (awayM + behind) / awayM;
  const forward = [(x - lensX) / awayM, (y - lensY) / awayM] as const;
  const place = (height: number) => lensZ + (footZ + height - lensZ) * grown;
  // Never through the table: of a lens from above the card begins where its lower edge stands on it.
  const low = Math.max(LEFT_OUT_M, (LEFT_OUT_M - lensZ) / grown + lensZ - footZ);
  if (top - low < 0.01) return null;
  const edge = Array.from({ length: POINTS }, (_, i) => {
    const height = low + ((top - low) * i) / (POINTS - 1);
    return {
      halfWidthM: HIDDEN_PART * grown * outlineRadius(outline, height),
      heightM: place(height) - place(low),
    };
  });
  const positionM: Vector = [x + forward[0] * behind, y + forward[1] * behind, (place(low) + place(top)) / 2];
  const facing = turnedToLight(set, positionM, [-forward[0], -forward[1]]);
  return {
    kind: 'cut-out',
    tag,
    name: 'Reflector cut to shape',
    positionM,
    aimM: [positionM[0] + facing[0], positionM[1] + facing[1], positionM[2]],
    rollDeg: 0,
    front: { kind: 'mirror', reflectance: 0.8, roughness: 0.25 },
    back: { kind: 'matte', reflectance: 0.82 },
    stand: false,
    outline: edge,
  };
}

/** The level way half between that to the lens and that to the lamp that is nearest to it, as seen from a place. */
function turnedToLight({ lights }: SetDocument, [x, y]: Vector, toLens: [number, number]): [number, number] {
  const lensBearing = Math.atan2(toLens[0], toLens[1]);
  const turns = lights.flatMap((light) => {
    if (!light.on || !('positionM' in light)) return [];
    const bearing = Math.atan2(light.positionM[0] - x, light.positionM[1] - y);
    const off = ((bearing - lensBearing + 3 * Math.PI) % (2 * Math.PI)) - Math.PI;
    return Math.abs(off) < Math.PI / 2 ? [off] : [];
  });
  const least = turns.reduce((best, off) => (Math.abs(off) < Math.abs(best) ? off : best), turns[0] ?? 0);
  const turn = lensBearing + Math.max(-MOST_TURN, Math.min(MOST_TURN, least / 2));
  return [Math.sin(turn), Math.cos(turn)];
}

const cloudOf = ({ material }: Turned): number =>
  material.kind === 'dielectric' ? material.scatteringPerCm : 0;
