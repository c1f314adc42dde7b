import { bend, corner, type MeasuredForm } from './measuredForm.js';

const glass = { kind: 'dielectric', index: 1.52, absorptionPerCm: 0.005 };
const liquid = { kind: 'dielectric', index: 1.34, absorptionPerCm: [0.02, 0.08, 0.5] };
const coffee = { kind: 'dielectric', index: 1.335, absorptionPerCm: [4, 9, 16] };
const aluminium = { kind: 'metal', metal: 'aluminium', roughness: 0.12 };
const whitePlastic = { kind: 'coated', reflectance: 0.75, roughness: 0.25 };
const darkCap = { kind: 'coated', reflectance: 0.04, roughness: 0.2 };
const ceramic = { kind: 'coated', reflectance: 0.75, roughness: 0.03 };

const filled = (fillM: number, baseM: number, of: object = liquid) =>
  fillM > baseM ? { liquid: { material: of, fillToM: fillM } } : {};
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

/** What holds something: bottles, jars, cups, dishes. */
export const vessels: readonly MeasuredForm[] = [
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
        ...filled(fill, 1.5 * wall, coffee),
      },
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
];
