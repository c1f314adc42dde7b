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
import { formatPower } from '../exposure/flash.js';
import { F_NUMBERS, ISO_SPEEDS, printedSetting, SHUTTERS } from '../exposure/series.js';
import { radians } from '../units/angle.js';
import { toStand } from '../units/bearing.js';
import { formatLength, formatStops } from '../units/quantity.js';
import { length, normalise, subtract } from '../units/vector.js';

/** Moves below these are not worth a word: half a centimetre, one degree. */
const LEAST_M = 0.005;
const LEAST_DEG = 1;
/** A move in which bearing and distance both change by much is told by where it went. */
const FAR_M = 0.6;
const OTHER_MATERIAL = 'of another material';

/** What changed between two states of a set, in the words of the set; nothing where they are the same. */
export function describeChange(before: Standing, after: Standing): string[] {
  return [
    ...things(
      before.lights,
      after.lights,
      ({ tag }) => tag,
      ({ tag }) => tag,
      lightChanges,
    ),
    ...things(
      before.sheets,
      after.sheets,
      ({ tag }) => tag,
      (sheet) => `${sheet.kind} ${sheet.tag}`,
      sheetChanges,
    ),
    ...things(
      before.products,
      after.products,
      ({ id }) => id,
      ({ name }) => name,
      productChanges,
    ),
    ...things(
      before.people,
      after.people,
      ({ name }) => name,
      ({ name }) => name,
      (one, other) => moves([...one.positionM, 0], [...other.positionM, 0]),
    ),
    ...surrounding('the background', before.backdrop, after.backdrop, backdropChanges),
    ...cameraChanges(before.camera, after.camera),
    ...surrounding('the table', before.bench, after.bench, benchChanges),
    ...surrounding('the room', before.room, after.room, roomChanges),
    ...(before.mark.heightAboveFloorM === after.mark.heightAboveFloorM
      ? []
      : [`table top ${formatLength(after.mark.heightAboveFloorM)} above the floor`]),
  ];
}

/** The changes on one line, the first few of them. */
export function changeWords(before: Standing, after: Standing, most = 4): string {
  const all = describeChange(before, after);
  if (all.length === 0) return 'nothing changed';
  const rest = all.length - most;
  return rest > 0 ? `${all.slice(0, most).join(', ')} and ${rest} more` : all.join(', ');
}

const same = (a: unknown, b: unknown) => a === b || JSON.stringify(a) === JSON.stringify(b);

function things<T>(
  before: readonly T[],
  after: readonly T[],
  keyOf: (thing: T) => string,
  nameOf: (thing: T) => string,
  changes: (before: T, after: T) => string[],
): string[] {
  const find = (list: readonly T[], key: string) => list.find((thing) => keyOf(thing) === key);
  const words: string[] = [];
  for (const old of before) {
    const now = find(after, keyOf(old));
    if (!now) words.push(`without ${nameOf(old)}`);
    else if (!same(old, now)) {
      const own = changes(old, now);
      words.push(`${nameOf(now)} ${own.length > 0 ? own.join(' and ') : 'changed'}`);
    }
  }
  for (const thing of after) if (!find(before, keyOf(thing))) words.push(`with ${nameOf(thing)}`);
  return words;
}

/** How a thing moved: nearer, further round, higher. */
function moves(before: Vector, after: Vector): string[] {
  if (length(subtract(after, before)) < LEAST_M) return [];
  const [old, now] = [toStand(before), toStand(after)];
  const words: string[] = [];
  const nearer = old.distanceM - now.distanceM;
  let turn = now.bearingDeg - old.bearingDeg;
  if (turn > 180) turn -= 360;
  if (turn < -180) turn += 360;
  const along = (Math.abs(turn) * Math.PI * Math.min(old.distanceM, now.distanceM)) / 180;
  if (along > FAR_M)
    words.push(`to ${Math.abs(Math.round(now.bearingDeg))}° ${now.bearingDeg < 0 ? 'left' : 'right'}`);
  else if (Math.abs(turn) >= LEAST_DEG && along >= LEAST_M)
    words.push(`${Math.round(Math.abs(turn))}° further ${turn < 0 ? 'left' : 'right'}`);
  if (Math.abs(nearer) >= LEAST_M)
    words.push(`${formatLength(Math.abs(nearer))} ${nearer > 0 ? 'closer' : 'farther'}`);
  const up = now.heightM - old.heightM;
  if (Math.abs(up) >= LEAST_M) words.push(`${formatLength(Math.abs(up))} ${up > 0 ? 'higher' : 'lower'}`);
  return words.length > 0 ? words : ['a little aside'];
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

const aims = (before: object, after: object): string[] =>
  'aimM' in before && 'aimM' in after && turns(before as Aimed, after as Aimed) ? ['turned'] : [];

function sizes(before: object, after: object): string[] {
  const figures = (thing: object) =>
    Object.entries(thing).filter(([key]) => /^(width|height|diameter|length|outerDiameter)M$/.test(key));
  const old = figures(before);
  const now = figures(after);
  if (same(old, now)) return [];
  return [`now ${now.map(([, value]) => formatLength(Number(value))).join(' by ')}`];
}

function lightChanges(before: Light, after: Light): string[] {
  const words: string[] = [];
  if (before.on !== after.on) words.push(after.on ? 'on' : 'off');
  const stops = after.powerStops - before.powerStops;
  if (Math.abs(stops) >= 0.05) words.push(`${formatStops(stops)} (${formatPower(after.powerStops)})`);
  if (before.kind !== after.kind) return [...words, `now a ${after.name}`];
  if (before.kind !== 'surround' && after.kind !== 'surround') {
    words.push(...moves(before.positionM, after.positionM), ...aims(before, after));
  }
  words.push(...sizes(before, after));
  const attached = (key: 'grid' | 'polarised' | 'modelling' | 'colour', name: string) => {
    const [old, now] = [before, after].map((light) => (light as Record<string, unknown>)[key]);
    if (same(old, now)) return;
    words.push(old === undefined ? `with ${name}` : now === undefined ? `without ${name}` : `other ${name}`);
  };
  attached('grid', 'grid');
  attached('polarised', 'polarising film');
  attached('modelling', 'modelling lamp');
  attached('colour', 'colour');
  return words;
}

function sheetChanges(before: Sheet, after: Sheet): string[] {
  return [
    ...moves(before.positionM, after.positionM),
    ...aims(before, after),
    ...sizes(before, after),
    ...(same([before.front, before.back], [after.front, after.back]) ? [] : [OTHER_MATERIAL]),
  ];
}

function productChanges(before: Product, after: Product): string[] {
  const words = moves(before.positionM, after.positionM);
  if (before.turnDeg !== after.turnDeg) words.push(`turned ${Math.round(after.turnDeg - before.turnDeg)}°`);
  if (!same(before.material, after.material)) words.push(OTHER_MATERIAL);
  return words;
}

/** What there is one of, or none. */
function surrounding<T>(
  name: string,
  before: T | undefined,
  after: T | undefined,
  changes: (before: T, after: T) => string[],
): string[] {
  if (same(before, after)) return [];
  if (!before) return [`with ${name}`];
  if (!after) return [`without ${name}`];
  const words = changes(before, after);
  return [`${name} ${words.length > 0 ? words.join(' and ') : 'changed'}`];
}

const BACKDROP_WORDS: Record<Backdrop['kind'], string> = {
  sweep: 'bent up behind',
  panel: 'flat and upright',
  boards: 'of two boards in an L',
};

function backdropChanges(before: Backdrop, after: Backdrop): string[] {
  const lying = (own: Backdrop) => (own.kind === 'boards' ? own.lyingMaterial : null);
  const material = [
    ...(same(before.material, after.material) ? [] : [OTHER_MATERIAL]),
    ...(lying(before) && lying(after) && !same(lying(before), lying(after))
      ? ['its lying board of another material']
      : []),
  ];
  if (before.kind !== after.kind) return [BACKDROP_WORDS[after.kind], ...material];
  const depth = (own: Backdrop) => (own.kind === 'panel' ? own.centreM[1] : own.backM);
  const back = depth(after) - depth(before);
  const turn = (own: Backdrop) => (own.kind === 'panel' ? own.turnDeg : 0);
  return [
    ...(Math.abs(back) >= LEAST_M
      ? [`${formatLength(Math.abs(back))} ${back > 0 ? 'further back' : 'nearer'}`]
      : []),
    ...(turn(before) === turn(after) ? [] : [`turned ${Math.round(turn(after) - turn(before))}°`]),
    ...sizes(before, after),
    ...material,
  ];
}

function benchChanges(before: Bench, after: Bench): string[] {
  const moved = length(subtract([...after.centreM, 0], [...before.centreM, 0])) >= LEAST_M;
  const resized = before.widthM !== after.widthM || before.depthM !== after.depthM;
  return [
    ...(moved ? ['moved'] : []),
    ...(resized ? [`now ${formatLength(after.widthM)} by ${formatLength(after.depthM)}`] : []),
    ...(same(before.material, after.material) ? [] : [OTHER_MATERIAL]),
  ];
}

function roomChanges(before: Room, after: Room): string[] {
  const { walls: _walls, ceiling: _ceiling, floor: _floor, ...old } = before;
  const { walls, ceiling, floor, ...now } = after;
  return [
    ...(same(old, now) ? [] : ['of other measures']),
    ...(same(before.walls, walls) ? [] : ['with other walls']),
    ...(same(before.ceiling, ceiling) ? [] : ['with another ceiling']),
    ...(same(before.floor, floor) ? [] : ['with another floor']),
  ];
}

function cameraChanges(before: Camera, after: Camera): string[] {
  const words: string[] = [];
  const moved = moves(before.positionM, after.positionM);
  const own = [...moved, ...aims(before, after)];
  if (own.length > 0) words.push(`camera ${own.join(' and ')}`);
  if (!same(before.lens, after.lens)) words.push(`${Math.round(1000 * after.lens.focalLengthM)} mm`);
  if (before.fNumber !== after.fNumber) words.push(`f/${printedSetting(F_NUMBERS, after.fNumber)}`);
  if (before.shutterS !== after.shutterS) words.push(`${printedSetting(SHUTTERS, after.shutterS)} s`);
  if (before.iso !== after.iso) words.push(`ISO ${printedSetting(ISO_SPEEDS, after.iso)}`);
  if (before.whiteBalanceK !== after.whiteBalanceK)
    words.push(`balance ${Math.round(after.whiteBalanceK)} K`);
  if (Math.abs(before.focusM - after.focusM) >= 1e-3 && moved.length === 0)
    words.push(`focus at ${formatLength(after.focusM)}`);
  if (!same(before.polariser, after.polariser)) words.push(after.polariser ? 'polariser' : 'no polariser');
  if (!same(before.rig, after.rig)) words.push(after.rig ? 'camera counted in' : 'camera left out');
  return words;
}
