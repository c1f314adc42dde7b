import type { Vector } from './geometry.js';
import type { Turned } from './product.js';
import type { SetDocument } from './set.js';

/** What the rules need of Zod's check context: a place to put problems. */
interface Problems {
  addIssue(problem: { code: 'custom'; path: PropertyKey[]; message: string }): void;
}

type Report = (path: PropertyKey[], message: string) => void;

/** Rules that tie fields together; each broken one is reported at the field to mend. */
export function checkSet(set: SetDocument, problems: Problems): void {
  const report: Report = (path, message) => problems.addIssue({ code: 'custom', path, message });
  checkUnique(set, report);
  checkAims(set, report);
  checkRoom(set, report);
  checkBackdrop(set, report);
  if (set.camera.focusM <= set.camera.lens.focalLengthM * 1.01) {
    report(['camera', 'focusM'], 'must be longer than the focal length. No lens focuses closer.');
  }
  set.products.forEach((product, index) => {
    if (product.kind === 'turned') checkTurned(product, ['products', index], report);
    else if (product.kind === 'box' && (product.bandHeightM ?? 0) > product.heightM) {
      report(['products', index, 'bandHeightM'], 'lies above the product. Give a height within it.');
    }
  });
}

function checkUnique(set: SetDocument, report: Report): void {
  const lists = [
    { key: 'lights', field: 'tag', names: set.lights.map((light) => light.tag) },
    { key: 'sheets', field: 'tag', names: set.sheets.map((sheet) => sheet.tag) },
    { key: 'products', field: 'id', names: set.products.map((product) => product.id) },
    { key: 'spots', field: 'name', names: set.spots.map((spot) => spot.name) },
  ];
  for (const { key, field, names } of lists) {
    names.forEach((name, index) => {
      if (names.indexOf(name) !== index) {
        report([key, index, field], `"${name}" is taken by an earlier one. Give each its own ${field}.`);
      }
    });
  }
}

function checkAims(set: SetDocument, report: Report): void {
  const check = (path: PropertyKey[], position: Vector, aim: Vector) => {
    const distance = Math.hypot(aim[0] - position[0], aim[1] - position[1], aim[2] - position[2]);
    if (distance < 1e-3) report([...path, 'aimM'], 'is where the thing stands. Aim at a point away from it.');
  };
  set.lights.forEach((light, index) => {
    if ('aimM' in light) check(['lights', index], light.positionM, light.aimM);
  });
  set.sheets.forEach((sheet, index) => {
    check(['sheets', index], sheet.positionM, sheet.aimM);
  });
  check(['camera'], set.camera.positionM, set.camera.aimM);
}

function checkRoom(set: SetDocument, report: Report): void {
  const { room, mark, camera } = set;
  if (!room) return;
  if (room.markFromLeftM >= room.widthM) {
    report(['room', 'markFromLeftM'], 'puts the mark outside of the room. Keep it below widthM.');
  }
  if (room.markFromFrontM >= room.depthM) {
    report(['room', 'markFromFrontM'], 'puts the mark outside of the room. Keep it below depthM.');
  }
  if (mark.heightAboveFloorM >= room.heightM) {
    report(['mark', 'heightAboveFloorM'], 'lies above the ceiling. Keep it below room.heightM.');
  }
  const inside = (point: Vector) =>
    point[0] > -room.markFromLeftM &&
    point[0] < room.widthM - room.markFromLeftM &&
    point[1] > -room.markFromFrontM &&
    point[1] < room.depthM - room.markFromFrontM &&
    point[2] > -mark.heightAboveFloorM &&
    point[2] < room.heightM - mark.heightAboveFloorM;
  if (!inside(camera.positionM)) {
    report(['camera', 'positionM'], 'is outside of the room. Move the camera or the walls.');
  }
  set.lights.forEach((light, index) => {
    if (light.kind === 'surround') {
      report(['lights', index, 'kind'], 'surround cannot shine through walls. Take the room away first.');
    } else if (!inside(light.positionM)) {
      report(['lights', index, 'positionM'], 'is outside of the room. Move the light or the walls.');
    }
  });
}

function checkBackdrop({ backdrop }: SetDocument, report: Report): void {
  if (backdrop?.kind !== 'sweep') return;
  if (backdrop.backM - backdrop.radiusM < backdrop.frontM + 1e-3) {
    report(['backdrop', 'radiusM'], 'leaves no paper on the bench. Keep it below backM - frontM.');
  }
  if (backdrop.heightM < backdrop.radiusM) {
    report(['backdrop', 'heightM'], 'ends within the bend. Make it at least radiusM.');
  }
}

function checkTurned(product: Turned, path: PropertyKey[], report: Report): void {
  const { profile } = product;
  const height = profile.at(-1)?.heightM ?? 0;
  if (profile[0]?.heightM !== 0) {
    report([...path, 'profile', 0, 'heightM'], 'must be 0: the outline starts at the foot.');
  }
  if (height < 1e-4) {
    report(
      [...path, 'profile', profile.length - 1, 'heightM'],
      'must be above 0: the outline has no height.',
    );
  }
  if (!profile.some((point) => point.radiusM >= 1e-4)) {
    report([...path, 'profile'], 'has no radius of 0.1 mm or more. Give the outline some width.');
  }
  for (let i = 1; i < profile.length; i++) {
    const below = profile[i - 1];
    const here = profile[i];
    if (!below || !here) continue;
    if (here.heightM < below.heightM) {
      report(
        [...path, 'profile', i, 'heightM'],
        'is lower than the point before it. List points upwards from the foot.',
      );
    } else if (Math.hypot(here.heightM - below.heightM, here.radiusM - below.radiusM) < 1e-6) {
      report([...path, 'profile', i], 'repeats the point before it. Remove one of the two.');
    } else if (here.radiusM === 0 && below.radiusM === 0) {
      report([...path, 'profile', i, 'radiusM'], 'follows another 0: the outline would run along its axis.');
    }
  }
  const ranges = [
    ...product.parts.map((part, index) => ({ ...part, path: [...path, 'parts', index] })),
    ...product.labels.map((label, index) => ({ ...label, path: [...path, 'labels', index] })),
  ];
  for (const range of ranges) {
    if (range.toM - range.fromM < 1e-4) {
      report([...range.path, 'toM'], 'must be above fromM by 0.1 mm or more.');
    }
    if (range.toM > height + 1e-9) {
      report([...range.path, 'toM'], `lies above the product, which ends at ${height} m.`);
    }
  }
  product.parts.forEach((part, index) => {
    const other = product.parts.findIndex(
      (earlier, at) => at < index && earlier.fromM < part.toM && part.fromM < earlier.toM,
    );
    if (other >= 0) {
      report([...path, 'parts', index, 'fromM'], `overlaps parts[${other}]. Parts may touch, not overlap.`);
    }
  });
  if (product.bandHeightM !== undefined && product.bandHeightM > height) {
    report([...path, 'bandHeightM'], 'lies above the product. Give a height within it.');
  }
  checkHollow(product, height, path, report);
}

function checkHollow(product: Turned, height: number, path: PropertyKey[], report: Report): void {
  const { hollow } = product;
  if (!hollow) return;
  if (product.material.kind !== 'dielectric') {
    report([...path, 'hollow'], 'needs a dielectric material: the inside of an opaque body is never seen.');
  }
  if (hollow.baseM >= height) {
    report([...path, 'hollow', 'baseM'], 'is as high as the product. Make the base thinner.');
  }
  if (!product.profile.some((point) => point.radiusM > hollow.wallM + 1e-4)) {
    report([...path, 'hollow', 'wallM'], 'fills the whole body. Make the wall thinner.');
  }
  const { liquid } = hollow;
  if (liquid && (liquid.fillToM <= hollow.baseM || liquid.fillToM > height)) {
    report([...path, 'hollow', 'liquid', 'fillToM'], 'must lie above the base and not above the product.');
  }
}
