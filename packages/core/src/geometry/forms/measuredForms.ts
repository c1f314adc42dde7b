import { loftMesh } from './loft.js';

/** What a form is measured by, m. */
export type Measure =
  | 'width'
  | 'depth'
  | 'height'
  | 'wall'
  | 'neck'
  | 'neckHeight'
  | 'fill'
  | 'thickness'
  | 'inner'
  | 'length';

/** What each measure is called where it is typed. */
export const MEASURE_WORDS: Record<Measure, string> = {
  width: 'width',
  depth: 'front to back',
  height: 'height',
  wall: 'wall',
  neck: 'neck across',
  neckHeight: 'neck height',
  fill: 'filled to',
  thickness: 'thickness',
  inner: 'inside across',
  length: 'length',
};

export type Measures = Partial<Record<Measure, number>>;

/** A usual form of goods, made from a few measures. */
export interface MeasuredForm {
  id: string;
  name: string;
  /** Measures with the ones it starts from. */
  usual: Measures;
  make(m: Required<Measures>): object;
}

const glass = { kind: 'dielectric', index: 1.52, absorptionPerCm: 0.005 };
const liquid = { kind: 'dielectric', index: 1.34, absorptionPerCm: [0.02, 0.08, 0.5] };
const aluminium = { kind: 'metal', metal: 'aluminium', roughness: 0.12 };
const whitePlastic = { kind: 'coated', reflectance: 0.75, roughness: 0.25 };
const darkCap = { kind: 'coated', reflectance: 0.04, roughness: 0.2 };
const ceramic = { kind: 'coated', reflectance: 0.75, roughness: 0.03 };
const carton = { kind: 'coated', reflectance: [0.7, 0.66, 0.58], roughness: 0.3 };
const gold = { kind: 'metal', metal: 'gold', roughness: 0.03 };

const corner = (radiusM: number, heightM: number) => ({ radiusM, heightM });
const bend = (radiusM: number, heightM: number) => ({ radiusM, heightM, smooth: true });
const filled = (fill: number, base: number) =>
  fill > base ? { liquid: { material: liquid, fillToM: fill } } : {};
/** A handle at camera right, from one height to another, so far out. */
const handle = (r: number, low: number, high: number, out: number, thick: number) => ({
  name: 'handle',
  pathM: [
    [r, 0, high],
    [r + out, 0, high - 0.05 * (high - low)],
    [r + 1.05 * out, 0, (low + high) / 2],
    [r + 0.8 * out, 0, low + 0.1 * (high - low)],
    [r, 0, low],
  ],
  fromDiameterM: thick,
  toDiameterM: thick,
});

/** All forms, in the order in which they are offered. Plain ones: an outline traced over a photograph is nearer to the goods. */
export const MEASURED_FORMS: readonly MeasuredForm[] = [
  {
    id: 'bottle',
    name: 'Bottle',
    usual: { width: 0.072, height: 0.24, neck: 0.028, neckHeight: 0.06, wall: 0.003, fill: 0.165 },
    make: ({ width: w, height: h, neck, neckHeight, wall, fill }) => ({
      kind: 'turned',
      material: glass,
      profile: [
        corner(0.46 * w, 0),
        bend(w / 2, 0.04 * h),
        bend(w / 2, 0.62 * (h - neckHeight)),
        bend(neck / 2, h - neckHeight),
        corner(neck / 2, h),
      ],
      parts: [{ name: 'cap', fromM: h - 0.4 * neckHeight, toM: h, material: darkCap }],
      hollow: { wallM: wall, baseM: 2 * wall, ...filled(fill, 2 * wall) },
    }),
  },
  {
    id: 'jar',
    name: 'Jar',
    usual: { width: 0.075, height: 0.1, neck: 0.066, neckHeight: 0.018, wall: 0.0025, fill: 0.07 },
    make: ({ width: w, height: h, neck, neckHeight, wall, fill }) => ({
      kind: 'turned',
      material: glass,
      profile: [
        corner(0.46 * w, 0),
        bend(w / 2, 0.06 * h),
        bend(w / 2, h - 1.5 * neckHeight),
        corner(neck / 2, h - neckHeight),
        corner(neck / 2, h),
      ],
      parts: [{ name: 'lid', fromM: h - neckHeight, toM: h, material: aluminium }],
      hollow: { wallM: wall, baseM: 2 * wall, ...filled(fill, 2 * wall) },
    }),
  },
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
    id: 'pump',
    name: 'Pump bottle',
    usual: { width: 0.06, height: 0.19, neck: 0.026, neckHeight: 0.055, wall: 0.002, fill: 0.1 },
    make: ({ width: w, height: h, neck, neckHeight, wall, fill }) => {
      const body = h - neckHeight;
      return {
        kind: 'turned',
        material: { kind: 'dielectric', index: 1.49, absorptionPerCm: 0.01 },
        profile: [
          corner(0.47 * w, 0),
          bend(w / 2, 0.05 * body),
          bend(w / 2, 0.88 * body),
          corner(neck / 2, body),
          corner(neck / 2, body + 0.4 * neckHeight),
          corner(0.2 * neck, body + 0.42 * neckHeight),
          corner(0.2 * neck, body + 0.7 * neckHeight),
          corner(0.42 * neck, body + 0.72 * neckHeight),
          corner(0.42 * neck, h),
        ],
        parts: [{ name: 'pump', fromM: body, toM: h, material: whitePlastic }],
        attached: [
          {
            name: 'nozzle',
            pathM: [
              [0.3 * neck, 0, h - 0.12 * neckHeight],
              [1.1 * neck, 0, h - 0.1 * neckHeight],
              [1.6 * neck, 0, h - 0.28 * neckHeight],
            ],
            fromDiameterM: 0.3 * neck,
            toDiameterM: 0.22 * neck,
            material: whitePlastic,
          },
        ],
        hollow: { wallM: wall, baseM: 2 * wall, ...filled(Math.min(fill, 0.95 * body), 2 * wall) },
      };
    },
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
  {
    id: 'jug',
    name: 'Jug',
    usual: { width: 0.11, height: 0.17, wall: 0.004, fill: 0 },
    make: ({ width: w, height: h, wall, fill }) => ({
      kind: 'turned',
      material: ceramic,
      profile: [
        corner(0.34 * w, 0),
        bend(0.47 * w, 0.18 * h),
        bend(w / 2, 0.38 * h),
        bend(0.33 * w, 0.78 * h),
        corner(0.38 * w, h),
      ],
      attached: [
        handle(0.36 * w, 0.3 * h, 0.9 * h, 0.32 * w, 0.1 * w),
        {
          name: 'spout',
          pathM: [
            [-0.3 * w, 0, 0.86 * h],
            [-0.44 * w, 0, 0.95 * h],
            [-0.55 * w, 0, 1.0 * h],
          ],
          fromDiameterM: 0.2 * w,
          toDiameterM: 0.08 * w,
        },
      ],
      hollow: { wallM: wall, baseM: 2 * wall, ...filled(fill, 2 * wall) },
    }),
  },
  {
    id: 'cup',
    name: 'Cup',
    usual: { width: 0.085, height: 0.07, wall: 0.0035, fill: 0.055 },
    make: ({ width: w, height: h, wall, fill }) => ({
      kind: 'turned',
      material: ceramic,
      profile: [corner(0.28 * w, 0), bend(0.42 * w, 0.3 * h), corner(w / 2, h)],
      attached: [handle(0.43 * w, 0.3 * h, 0.82 * h, 0.3 * w, 0.09 * w)],
      hollow: {
        wallM: wall,
        baseM: 1.5 * wall,
        ...(fill > 1.5 * wall
          ? {
              liquid: {
                material: { kind: 'dielectric', index: 1.335, absorptionPerCm: [4, 9, 16] },
                fillToM: fill,
              },
            }
          : {}),
      },
    }),
  },
  {
    id: 'glass',
    name: 'Tumbler',
    usual: { width: 0.075, height: 0.1, wall: 0.003, fill: 0.06 },
    make: ({ width: w, height: h, wall, fill }) => ({
      kind: 'turned',
      material: glass,
      profile: [corner(0.42 * w, 0), corner(w / 2, h)],
      hollow: { wallM: wall, baseM: 4 * wall, ...filled(fill, 4 * wall) },
    }),
  },
  {
    id: 'bowl',
    name: 'Bowl',
    usual: { width: 0.15, height: 0.065, wall: 0.004 },
    make: ({ width: w, height: h, wall }) => ({
      kind: 'turned',
      material: ceramic,
      profile: [corner(0.22 * w, 0), bend(0.38 * w, 0.3 * h), corner(w / 2, h)],
      hollow: { wallM: wall, baseM: 1.5 * wall },
    }),
  },
  {
    id: 'plate',
    name: 'Plate',
    usual: { width: 0.24, height: 0.022, thickness: 0.004 },
    make: ({ width, height, thickness }) => ({
      kind: 'dish',
      material: ceramic,
      diameterM: width,
      heightM: height,
      footDiameterM: 0.55 * width,
      thicknessM: Math.min(thickness, 0.8 * height),
    }),
  },
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

/** What a form and its measures make, at the mark: a product as it is written, still to be checked. */
export const measuredProduct = (form: MeasuredForm, measures: Measures): object => ({
  id: form.id,
  name: form.name,
  positionM: [0, 0, 0],
  ...form.make({ ...form.usual, ...measures } as Required<Measures>),
});
