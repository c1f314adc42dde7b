import { loftMesh } from './loft.js';
import { bend, corner, type MeasuredForm } from './measuredForm.js';

const gold = { kind: 'metal', metal: 'gold', roughness: 0.03 };

/** What is worn: jewelry, watches, shoes, clothes. */
export const worn: readonly MeasuredForm[] = [
  {
    id: 'ring',
    name: 'Ring',
    usual: { inner: 0.017, width: 0.004, thickness: 0.0018 },
    make: ({ inner, width, thickness }) => ({
      kind: 'ring',
      material: gold,
      innerDiameterM: inner,
      bandWidthM: width,
      bandThicknessM: thickness,
    }),
  },
  {
    id: 'chain',
    name: 'Chain',
    usual: { length: 0.2, width: 0.08, thickness: 0.0008 },
    make: ({ length, width, thickness }) => ({
      kind: 'chain',
      material: gold,
      linkLengthM: 5 * thickness,
      wireM: thickness,
      pathM: hangingLine(length, width),
    }),
  },
  {
    id: 'stud',
    name: 'Stud with a stone',
    usual: { width: 0.006, height: 0.004 },
    make: ({ width, height }) => ({
      kind: 'stone',
      material: { kind: 'dielectric', index: 2.42, absorptionPerCm: 0 },
      diameterM: width,
      heightM: height,
    }),
  },
  {
    id: 'watch',
    name: 'Watch head',
    usual: { width: 0.04, thickness: 0.011 },
    make: ({ width: w, thickness: t }) => ({
      kind: 'turned',
      material: { kind: 'metal', metal: 'steel', roughness: 0.08 },
      profile: [
        corner(0.44 * w, 0),
        bend(w / 2, 0.3 * t),
        bend(w / 2, 0.65 * t),
        corner(0.44 * w, 0.9 * t),
        corner(0.42 * w, 0.9 * t),
        corner(0.42 * w, t),
      ],
      parts: [
        {
          name: 'dial under its crystal',
          fromM: 0.95 * t,
          toM: t,
          material: { kind: 'coated', reflectance: 0.03, coatIndex: 1.77 },
        },
      ],
      attached: [
        {
          name: 'crown',
          pathM: [
            [0.48 * w, 0, 0.48 * t],
            [0.58 * w, 0, 0.48 * t],
          ],
          fromDiameterM: 0.35 * t,
          toDiameterM: 0.35 * t,
        },
      ],
    }),
  },
  {
    id: 'shoe',
    name: 'Shoe, soft form',
    usual: { width: 0.1, length: 0.28, height: 0.11 },
    make: ({ width: w, length: l, height: h }) => ({
      kind: 'mesh',
      turnDeg: 70,
      material: { kind: 'cloth', reflectance: [0.55, 0.53, 0.5], sheen: 0.2 },
      ...loftMesh([
        { heightM: 0, halfWidthM: 0.44 * w, halfDepthM: 0.48 * l, exponent: 2.6 },
        { heightM: 0.18 * h, halfWidthM: 0.5 * w, halfDepthM: 0.5 * l, exponent: 2.4 },
        { heightM: 0.4 * h, halfWidthM: 0.46 * w, halfDepthM: 0.44 * l, exponent: 2.2, backM: 0.05 * l },
        { heightM: 0.62 * h, halfWidthM: 0.38 * w, halfDepthM: 0.28 * l, backM: 0.2 * l },
        { heightM: 0.85 * h, halfWidthM: 0.34 * w, halfDepthM: 0.18 * l, backM: 0.29 * l },
        { heightM: h, halfWidthM: 0.33 * w, halfDepthM: 0.17 * l, backM: 0.3 * l },
      ]),
    }),
  },
  {
    id: 'garment',
    name: 'Garment, laid flat',
    usual: { width: 0.5, depth: 0.65, thickness: 0.008 },
    make: ({ width, depth, thickness }) => ({
      kind: 'cloth',
      material: { kind: 'cloth', reflectance: [0.5, 0.47, 0.42], sheen: 0.2 },
      widthM: width,
      depthM: depth,
      folds: 5,
      foldHeightM: thickness,
    }),
  },
];

/** A line that hangs between two points as far apart as the width, as a parabola of about the length, from the foot of its lowest. */
function hangingLine(lengthM: number, widthM: number): number[][] {
  const across = Math.min(widthM, 0.98 * lengthM);
  // Sag of a shallow arc: length = width + 8 sag^2 / (3 width).
  const sag = Math.sqrt(((lengthM - across) * 3 * across) / 8);
  return Array.from({ length: 13 }, (_, i) => {
    const t = i / 6 - 1;
    return [(t * across) / 2, 0, sag * t * t + 0.002];
  });
}
