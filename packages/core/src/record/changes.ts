import type {
  Backdrop,
  Bench,
  Camera,
  Light,
  Product,
  Room,
  Sheet,
  Standing,
  Vector,
} from '@fendrix/contract';
import { radians } from '../units/angle.js';
import { toStand } from '../units/bearing.js';
import { length, normalise, subtract } from '../units/vector.js';

/** Moves below these are not worth a word: half a centimetre, one degree. */
const LEAST_M = 0.005;
const LEAST_DEG = 1;
/** A move in which bearing and distance both change by much is told by where it went. */
const FAR_M = 0.6;
/** Powers that differ by less are the same, stops. */
const LEAST_STOPS = 0.05;

/** What has changed: a light or sheet by its tag, a product by its id, a person by the name, or what there is one of. */
export type ChangedThing =
  | { kind: 'light'; tag: string }
  | { kind: 'sheet'; tag: string; sheet: Sheet['kind'] }
  | { kind: 'product'; id: string; name: string }
  | { kind: 'person'; name: string }
  | { kind: 'backdrop' | 'bench' | 'room' | 'camera' | 'setting' };

/** What of a light may be put on and taken off. */
export type Attachment = 'grid' | 'polarised' | 'modelling' | 'colour';

/** One thing that is other than it was; lengths m, angles degrees. */
export type ChangeDetail =
  /** Where it went round the centre: its new bearing, or by how much to the right. */
  | { code: 'bearing'; bearingDeg: number }
  | { code: 'round'; rightDeg: number }
  | { code: 'distance'; nearerM: number }
  | { code: 'height'; upM: number }
  | { code: 'aside' | 'moved' | 'aimed' | 'material' | 'lying-material' | 'measures' }
  | { code: 'walls' | 'ceiling' | 'floor' }
  | { code: 'size'; sizesM: number[] }
  | { code: 'turned'; byDeg: number }
  | { code: 'switched'; on: boolean }
  | { code: 'power'; byStops: number; powerStops: number }
  | { code: 'kind'; name: string }
  | { code: 'instead'; of: string }
  | { code: 'attached'; what: Attachment; how: 'with' | 'without' | 'other' }
  | { code: 'backdrop'; kind: Backdrop['kind'] }
  | { code: 'back'; byM: number }
  | { code: 'lens'; focalLengthM: number }
  | { code: 'f-number'; fNumber: number }
  | { code: 'shutter'; shutterS: number }
  | { code: 'iso'; iso: number }
  | { code: 'white-balance'; temperatureK: number }
  | { code: 'focus'; focusM: number }
  | { code: 'rig'; on: boolean }
  /** Null where it was taken off. */
  | { code: 'polariser'; axisDeg: number | null }
  | { code: 'table-height'; heightM: number };

export interface Change {
  thing: ChangedThing;
  what: 'added' | 'removed' | 'changed';
  /** Of what has changed; may be empty where it has changed in a way that has no word. */
  details: ChangeDetail[];
}

/** What changed between two states of a set; nothing where they are the same. */
export function changesBetween(before: Standing, after: Standing): Change[] {
  const { mark } = after;
  return [
    ...things(before.lights, after.lights, ({ tag }) => tag, lightName, lightChanges),
    ...things(before.sheets, after.sheets, ({ tag }) => tag, sheetName, sheetChanges),
    ...things(before.products, after.products, ({ id }) => id, productName, productChanges),
    ...things(
      before.people,
      after.people,
      ({ name }) => name,
      ({ name }) => ({ kind: 'person', name }),
      (one, other) => moves([...one.positionM, 0], [...other.positionM, 0]),
    ),
    ...surrounding('backdrop', before.backdrop, after.backdrop, backdropChanges),
    ...cameraChanges(before.camera, after.camera),
    ...surrounding('bench', before.bench, after.bench, benchChanges),
    ...surrounding('room', before.room, after.room, roomChanges),
    ...(before.mark.heightAboveFloorM === mark.heightAboveFloorM
      ? []
      : [setting({ code: 'table-height', heightM: mark.heightAboveFloorM })]),
  ];
}

const lightName = ({ tag }: Light): ChangedThing => ({ kind: 'light', tag });
const sheetName = ({ tag, kind }: Sheet): ChangedThing => ({ kind: 'sheet', tag, sheet: kind });
const productName = ({ id, name }: Product): ChangedThing => ({ kind: 'product', id, name });

const setting = (detail: ChangeDetail): Change => ({
  thing: { kind: 'setting' },
  what: 'changed',
  details: [detail],
});

const same = (a: unknown, b: unknown) => a === b || JSON.stringify(a) === JSON.stringify(b);

function things<T>(
  before: readonly T[],
  after: readonly T[],
  keyOf: (thing: T) => string,
  nameOf: (thing: T) => ChangedThing,
  details: (before: T, after: T) => ChangeDetail[],
): Change[] {
  const find = (list: readonly T[], key: string) => list.find((thing) => keyOf(thing) === key);
  const changes: Change[] = [];
  for (const old of before) {
    const now = find(after, keyOf(old));
    if (!now) changes.push({ thing: nameOf(old), what: 'removed', details: [] });
    else if (!same(old, now))
      changes.push({ thing: nameOf(now), what: 'changed', details: details(old, now) });
  }
  for (const thing of after) {
    if (!find(before, keyOf(thing))) changes.push({ thing: nameOf(thing), what: 'added', details: [] });
  }
  return changes;
}

/** How a thing moved: nearer, further round, higher. */
function moves(before: Vector, after: Vector): ChangeDetail[] {
  if (length(subtract(after, before)) < LEAST_M) return [];
  const [old, now] = [toStand(before), toStand(after)];
  const details: ChangeDetail[] = [];
  const nearerM = old.distanceM - now.distanceM;
  let rightDeg = now.bearingDeg - old.bearingDeg;
  if (rightDeg > 180) rightDeg -= 360;
  if (rightDeg < -180) rightDeg += 360;
  const along = (Math.abs(rightDeg) * Math.PI * Math.min(old.distanceM, now.distanceM)) / 180;
  if (along > FAR_M) details.push({ code: 'bearing', bearingDeg: now.bearingDeg });
  else if (Math.abs(rightDeg) >= LEAST_DEG && along >= LEAST_M) details.push({ code: 'round', rightDeg });
  if (Math.abs(nearerM) >= LEAST_M) details.push({ code: 'distance', nearerM });
  const upM = now.heightM - old.heightM;
  if (Math.abs(upM) >= LEAST_M) details.push({ code: 'height', upM });
  return details.length > 0 ? details : [{ code: 'aside' }];
}

interface Aimed {
  positionM: Vector;
  aimM: Vector;
}

/** Turned on purpose: it neither faces the point that it faced, nor goes on in the direction that it had. */
function turns(before: Aimed, after: Aimed): boolean {
  if (same(before.aimM, after.aimM)) return false;
  const [old, now] = [before, after].map(({ positionM, aimM }) => subtract(aimM, positionM)) as [
    Vector,
    Vector,
  ];
  return length(subtract(normalise(now), normalise(old))) > radians(LEAST_DEG);
}

const aims = (before: object, after: object): ChangeDetail[] =>
  'aimM' in before && 'aimM' in after && turns(before as Aimed, after as Aimed) ? [{ code: 'aimed' }] : [];

function sizes(before: object, after: object): ChangeDetail[] {
  const figures = (thing: object) =>
    Object.entries(thing).filter(([key]) => /^(width|height|diameter|length|outerDiameter)M$/.test(key));
  const now = figures(after);
  if (same(figures(before), now)) return [];
  return [{ code: 'size', sizesM: now.map(([, value]) => Number(value)) }];
}

function lightChanges(before: Light, after: Light): ChangeDetail[] {
  const details: ChangeDetail[] = [];
  if (before.on !== after.on) details.push({ code: 'switched', on: after.on });
  const byStops = after.powerStops - before.powerStops;
  if (Math.abs(byStops) >= LEAST_STOPS)
    details.push({ code: 'power', byStops, powerStops: after.powerStops });
  if (before.kind !== after.kind) return [...details, { code: 'kind', name: after.name }];
  if (before.kind !== 'surround' && after.kind !== 'surround') {
    details.push(...moves(before.positionM, after.positionM), ...aims(before, after));
  }
  details.push(...sizes(before, after));
  for (const what of ['grid', 'polarised', 'modelling', 'colour'] as const) {
    const [old, now] = [before, after].map((light) => (light as Record<string, unknown>)[what]);
    if (same(old, now)) continue;
    details.push({
      code: 'attached',
      what,
      how: old === undefined ? 'with' : now === undefined ? 'without' : 'other',
    });
  }
  return details;
}

const sheetChanges = (before: Sheet, after: Sheet): ChangeDetail[] => [
  ...moves(before.positionM, after.positionM),
  ...aims(before, after),
  ...sizes(before, after),
  ...otherMaterial([before.front, before.back], [after.front, after.back]),
];

const productChanges = (before: Product, after: Product): ChangeDetail[] => [
  // Another thing under the same id, so that what refers to it goes along; the same one by another name is none.
  ...(before.name === after.name || same({ ...before, name: '' }, { ...after, name: '' })
    ? []
    : [{ code: 'instead' as const, of: before.name }]),
  ...moves(before.positionM, after.positionM),
  ...turned(before.turnDeg, after.turnDeg),
  ...otherMaterial(before.material, after.material),
];

const otherMaterial = (before: unknown, after: unknown): ChangeDetail[] =>
  same(before, after) ? [] : [{ code: 'material' }];

const turned = (beforeDeg: number, afterDeg: number): ChangeDetail[] =>
  beforeDeg === afterDeg ? [] : [{ code: 'turned', byDeg: afterDeg - beforeDeg }];

/** What there is one of, or none. */
function surrounding<T>(
  kind: 'backdrop' | 'bench' | 'room',
  before: T | undefined,
  after: T | undefined,
  details: (before: T, after: T) => ChangeDetail[],
): Change[] {
  if (same(before, after)) return [];
  const thing: ChangedThing = { kind };
  if (!before) return [{ thing, what: 'added', details: [] }];
  if (!after) return [{ thing, what: 'removed', details: [] }];
  return [{ thing, what: 'changed', details: details(before, after) }];
}

function backdropChanges(before: Backdrop, after: Backdrop): ChangeDetail[] {
  const lying = (own: Backdrop) => (own.kind === 'boards' ? own.lyingMaterial : null);
  const material: ChangeDetail[] = otherMaterial(before.material, after.material);
  if (lying(before) && lying(after) && !same(lying(before), lying(after)))
    material.push({ code: 'lying-material' });
  if (before.kind !== after.kind) return [{ code: 'backdrop', kind: after.kind }, ...material];
  const depth = (own: Backdrop) => (own.kind === 'panel' ? own.centreM[1] : own.backM);
  const byM = depth(after) - depth(before);
  const turn = (own: Backdrop) => (own.kind === 'panel' ? own.turnDeg : 0);
  return [
    ...(Math.abs(byM) >= LEAST_M ? [{ code: 'back' as const, byM }] : []),
    ...turned(turn(before), turn(after)),
    ...sizes(before, after),
    ...material,
  ];
}

function benchChanges(before: Bench, after: Bench): ChangeDetail[] {
  const moved = length(subtract([...after.centreM, 0], [...before.centreM, 0])) >= LEAST_M;
  const resized = before.widthM !== after.widthM || before.depthM !== after.depthM;
  return [
    ...(moved ? [{ code: 'moved' as const }] : []),
    ...(resized ? [{ code: 'size' as const, sizesM: [after.widthM, after.depthM] }] : []),
    ...otherMaterial(before.material, after.material),
  ];
}

function roomChanges(before: Room, after: Room): ChangeDetail[] {
  const { walls: _walls, ceiling: _ceiling, floor: _floor, ...old } = before;
  const { walls: _now, ceiling: _above, floor: _below, ...now } = after;
  const parts = (['walls', 'ceiling', 'floor'] as const).filter((part) => !same(before[part], after[part]));
  return [
    ...(same(old, now) ? [] : [{ code: 'measures' as const }]),
    ...parts.map((code): ChangeDetail => ({ code })),
  ];
}

function cameraChanges(before: Camera, after: Camera): Change[] {
  const changes: Change[] = [];
  const moved = moves(before.positionM, after.positionM);
  const own = [...moved, ...aims(before, after)];
  const say = (detail: ChangeDetail) => changes.push(setting(detail));
  if (own.length > 0) changes.push({ thing: { kind: 'camera' }, what: 'changed', details: own });
  if (!same(before.lens, after.lens)) say({ code: 'lens', focalLengthM: after.lens.focalLengthM });
  if (before.fNumber !== after.fNumber) say({ code: 'f-number', fNumber: after.fNumber });
  if (before.shutterS !== after.shutterS) say({ code: 'shutter', shutterS: after.shutterS });
  if (before.iso !== after.iso) say({ code: 'iso', iso: after.iso });
  if (before.whiteBalanceK !== after.whiteBalanceK)
    say({ code: 'white-balance', temperatureK: after.whiteBalanceK });
  if (Math.abs(before.focusM - after.focusM) >= 1e-3 && moved.length === 0)
    say({ code: 'focus', focusM: after.focusM });
  if (!same(before.polariser, after.polariser))
    say({ code: 'polariser', axisDeg: after.polariser?.axisDeg ?? null });
  if (!same(before.rig, after.rig)) say({ code: 'rig', on: after.rig !== undefined });
  return changes;
}
