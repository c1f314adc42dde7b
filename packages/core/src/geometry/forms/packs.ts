import { loftMesh } from './loft.js';
import { bend, corner, type MeasuredForm } from './measuredForm.js';

const aluminium = { kind: 'metal', metal: 'aluminium', roughness: 0.12 };
const whitePlastic = { kind: 'coated', reflectance: 0.75, roughness: 0.25 };
const carton = { kind: 'coated', reflectance: [0.7, 0.66, 0.58], roughness: 0.3 };

/** What is closed: cans, tins, tubes, boxes, pouches. */
export const packs: readonly MeasuredForm[] = [
  {
    id: 'can',
    name: 'Drinks can',
    usual: { width: 0.066, height: 0.122, neck: 0.054 },
    make: ({ width: w, height: h, neck }) => ({
      kind: 'turned',
      material: aluminium,
      profile: [
        corner(0.38 * w, 0),
        bend(w / 2, 0.08 * h),
        bend(w / 2, 0.87 * h),
        corner(neck / 2, 0.975 * h),
        corner(neck / 2, h),
      ],
    }),
  },
  {
    id: 'tin',
    name: 'Tin',
    usual: { width: 0.075, height: 0.11 },
    make: ({ width: w, height: h }) => ({
      kind: 'turned',
      material: { kind: 'metal', metal: 'steel', roughness: 0.12 },
      profile: [
        corner(0.51 * w, 0),
        corner(0.51 * w, 0.025 * h),
        corner(w / 2, 0.035 * h),
        corner(w / 2, 0.965 * h),
        corner(0.51 * w, 0.975 * h),
        corner(0.51 * w, h),
      ],
    }),
  },
  {
    id: 'tube',
    name: 'Tube',
    usual: { width: 0.045, height: 0.15 },
    make: ({ width: w, height: h }) => ({
      kind: 'mesh',
      material: whitePlastic,
      ...loftMesh([
        { heightM: 0, halfWidthM: 0.36 * w, halfDepthM: 0.36 * w },
        { heightM: 0.16 * h, halfWidthM: 0.36 * w, halfDepthM: 0.36 * w },
        { heightM: 0.165 * h, halfWidthM: 0.48 * w, halfDepthM: 0.48 * w },
        { heightM: 0.4 * h, halfWidthM: w / 2, halfDepthM: 0.42 * w },
        { heightM: 0.7 * h, halfWidthM: 0.56 * w, halfDepthM: 0.24 * w },
        { heightM: 0.93 * h, halfWidthM: 0.62 * w, halfDepthM: 0.03 * w, exponent: 3 },
        { heightM: h, halfWidthM: 0.63 * w, halfDepthM: 0.012 * w, exponent: 4 },
      ]),
    }),
  },
  {
    id: 'box',
    name: 'Box',
    usual: { width: 0.09, depth: 0.05, height: 0.14 },
    make: ({ width, depth, height }) => ({
      kind: 'box',
      material: carton,
      widthM: width,
      depthM: depth,
      heightM: height,
      edgeRadiusM: Math.min(0.001, width / 4, depth / 4, height / 4),
    }),
  },
  {
    id: 'pouch',
    name: 'Pouch',
    usual: { width: 0.12, depth: 0.06, height: 0.18 },
    make: ({ width: w, depth: d, height: h }) => ({
      kind: 'mesh',
      material: { kind: 'coated', reflectance: [0.42, 0.29, 0.17], roughness: 0.35 },
      ...loftMesh([
        { heightM: 0, halfWidthM: 0.46 * w, halfDepthM: 0.42 * d, exponent: 3 },
        { heightM: 0.12 * h, halfWidthM: 0.5 * w, halfDepthM: 0.5 * d, exponent: 2.6 },
        { heightM: 0.4 * h, halfWidthM: 0.49 * w, halfDepthM: 0.42 * d },
        { heightM: 0.75 * h, halfWidthM: 0.49 * w, halfDepthM: 0.18 * d },
        { heightM: 0.92 * h, halfWidthM: 0.5 * w, halfDepthM: 0.03 * d, exponent: 4 },
        { heightM: h, halfWidthM: 0.5 * w, halfDepthM: 0.01 * d, exponent: 6 },
      ]),
    }),
  },
];
