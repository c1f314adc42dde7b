import type { Vector } from './geometry.js';
import { checkLight } from './lightRules.js';
import { checkMaterials } from './materialRules.js';
import { checkMeshesTogether, checkProduct } from './productRules.js';
import type { Report } from './report.js';
import { checkMark } from './roomRules.js';
import { checkSheet } from './sheetRules.js';
import type { Standing } from './standing.js';

/** What the rules need of Zod's check context: a place to put problems. */
interface Problems {
  addIssue(problem: { code: 'custom'; path: PropertyKey[]; message: string }): void;
}

/** What the rules need of the takes of a set. */
interface Takes {
  takes: readonly { id: string; from?: string | undefined; set: Pick<Standing, 'camera'> }[];
  takeId?: string | undefined;
}

/** What the rules need of its plates. */
interface Plates {
  plates: readonly {
    id: string;
    takeId?: string | undefined;
    focusM?: number | undefined;
    lights: readonly { tag: string }[];
  }[];
  camera: Standing['camera'];
}

const TOO_NEAR = 'must be longer than the focal length. No lens focuses closer.';
/** Nearer than this part of the focal length there is no image, see `lensFigures`; from the entrance pupil. */
const LEAST_FOCUS = 1.01;

const canFocus = ({ focalLengthM, pupilRatio }: Standing['camera']['lens'], focusM: number): boolean =>
  focusM > LEAST_FOCUS * focalLengthM * Math.max(1, 1 / pupilRatio);

/** Rules that tie fields together; each broken one is reported at the field to mend. */
export function checkSet(set: Standing, problems: Problems): void {
  const report: Report = (path, message) => problems.addIssue({ code: 'custom', path, message });
  checkUnique(set, report);
  checkAims(set, report);
  checkRoom(set, report);
  checkBackdrop(set, report);
  if (!canFocus(set.camera.lens, set.camera.focusM)) report(['camera', 'focusM'], TOO_NEAR);
  set.lights.forEach((light, index) => {
    checkLight(light, ['lights', index], report);
  });
  set.sheets.forEach((sheet, index) => {
    checkSheet(sheet, ['sheets', index], report);
  });
  set.products.forEach((product, index) => {
    checkProduct(product, ['products', index], report);
  });
  checkMeshesTogether(set.products, report);
  checkMaterials(set, [], report);
  checkTargets(set, report);
}

function checkTargets({ spots }: Standing, report: Report): void {
  spots.forEach(({ name, target }, index) => {
    if (!target) return;
    const path = ['spots', index, 'target'];
    if (target.from > target.to) report([...path, 'from'], 'lies above "to". Give the lower tone first.');
    if (target.against === undefined) return;
    if (target.against === name) report([...path, 'against'], 'is the spot itself. Name another one.');
    else if (!spots.some((spot) => spot.name === target.against)) {
      report([...path, 'against'], `names no spot "${target.against}". Name one that is pinned.`);
    }
  });
}

/** Takes have ids of their own, and say which of the others they were made from. */
export function checkTakes({ takes, takeId }: Takes, problems: Problems): void {
  const report: Report = (path, message) => problems.addIssue({ code: 'custom', path, message });
  const ids = new Set(takes.map(({ id }) => id));
  takes.forEach(({ id, from }, index) => {
    if (takes.findIndex((other) => other.id === id) !== index)
      report(['takes', index, 'id'], `"${id}" is taken by an earlier one.`);
    if (from !== undefined && !ids.has(from)) report(['takes', index, 'from'], `names no take "${from}".`);
  });
  if (takeId !== undefined && !ids.has(takeId)) report(['takeId'], `names no take "${takeId}".`);
}

/** Plates have ids of their own, each of its lights once, a take that is there, and a focus that its lens can reach. */
export function checkPlates({ plates, takes, camera }: Plates & Takes, problems: Problems): void {
  const report: Report = (path, message) => problems.addIssue({ code: 'custom', path, message });
  plates.forEach(({ id, takeId, focusM, lights }, index) => {
    const path = ['plates', index];
    if (plates.findIndex((other) => other.id === id) !== index)
      report([...path, 'id'], `"${id}" is taken by an earlier one.`);
    const take = takes.find((own) => own.id === takeId);
    if (focusM !== undefined && !canFocus((take?.set.camera ?? camera).lens, focusM))
      report([...path, 'focusM'], TOO_NEAR);
    if (takeId !== undefined && !take)
      report([...path, 'takeId'], `names no take "${takeId}". Choose one that is kept, or none.`);
    lights.forEach(({ tag }, place) => {
      if (lights.findIndex((other) => other.tag === tag) !== place)
        report([...path, 'lights', place, 'tag'], `"${tag}" stands there twice. Keep one.`);
    });
  });
}

function checkUnique(set: Standing, report: Report): void {
  const lists = [
    { key: 'lights', field: 'tag', names: set.lights.map((light) => light.tag) },
    { key: 'sheets', field: 'tag', names: set.sheets.map((sheet) => sheet.tag) },
    { key: 'products', field: 'id', names: set.products.map((product) => product.id) },
    { key: 'spots', field: 'name', names: set.spots.map((spot) => spot.name) },
    { key: 'people', field: 'name', names: set.people.map((person) => person.name) },
  ];
  for (const { key, field, names } of lists) {
    names.forEach((name, index) => {
      if (names.indexOf(name) !== index) {
        report([key, index, field], `"${name}" is taken by an earlier one. Give each its own ${field}.`);
      }
    });
  }
}

function checkAims(set: Standing, report: Report): void {
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

function checkRoom(set: Standing, report: Report): void {
  const { room, mark, camera } = set;
  if (!room) return;
  checkMark(room, mark.heightAboveFloorM, report);
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

function checkBackdrop({ backdrop }: Standing, report: Report): void {
  if (!backdrop || backdrop.kind === 'panel') return;
  if (backdrop.kind === 'boards') {
    if (backdrop.backM < backdrop.frontM + 1e-3) {
      report(['backdrop', 'backM'], 'leaves no lying board. Keep the upright one behind its front edge.');
    }
    return;
  }
  if (backdrop.backM - backdrop.radiusM < backdrop.frontM + 1e-3) {
    report(
      ['backdrop', 'radiusM'],
      'leaves no paper on the table. Keep it below the way from its front to its back.',
    );
  }
  if (backdrop.heightM < backdrop.radiusM) {
    report(['backdrop', 'heightM'], 'ends within the bend. Make it at least as high as the bend.');
  }
}
