import type { Camera, Light, Product, Sheet, Standing, Vector } from '@fendrix/contract';
import { formatPower } from '../exposure/flash.js';
import { F_NUMBERS, ISO_SPEEDS, printedSetting, SHUTTERS } from '../exposure/series.js';
import { toStand } from '../units/bearing.js';
import { formatLength, formatStops } from '../units/quantity.js';
import { length, subtract } from '../units/vector.js';

/** Moves below these are not worth a word: half a centimetre, one degree. */
const LEAST_M = 0.005;
const LEAST_DEG = 1;
/** A move in which bearing and distance both change by much is told by where it went. */
const FAR_M = 0.6;

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
    ...backdropChanges(before, after),
    ...cameraChanges(before.camera, after.camera),
    ...(same(before.room, after.room) ? [] : ['the room']),
    ...(same(before.bench, after.bench) ? [] : ['the bench']),
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

function aims(before: { aimM?: Vector }, after: { aimM?: Vector }, movedToo: boolean): string[] {
  if (!before.aimM || !after.aimM || same(before.aimM, after.aimM)) return [];
  return movedToo ? [] : ['turned'];
}

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
    const moved = moves(before.positionM, after.positionM);
    words.push(...moved, ...aims(before as { aimM?: Vector }, after as { aimM?: Vector }, moved.length > 0));
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
  const moved = moves(before.positionM, after.positionM);
  return [
    ...moved,
    ...aims(before, after, moved.length > 0),
    ...sizes(before, after),
    ...(same([before.front, before.back], [after.front, after.back]) ? [] : ['of another material']),
  ];
}

function productChanges(before: Product, after: Product): string[] {
  const words = moves(before.positionM, after.positionM);
  if (before.turnDeg !== after.turnDeg) words.push(`turned ${Math.round(after.turnDeg - before.turnDeg)}°`);
  if (!same(before.material, after.material)) words.push('of another material');
  return words;
}

function backdropChanges(before: Standing, after: Standing): string[] {
  const [old, now] = [before.backdrop, after.backdrop];
  if (same(old, now)) return [];
  if (!old) return ['with a backdrop'];
  if (!now) return ['without the backdrop'];
  const depth = (backdrop: typeof old) => (backdrop.kind === 'panel' ? backdrop.centreM[1] : backdrop.backM);
  const back = depth(now) - depth(old);
  if (old.kind === now.kind && Math.abs(back) >= LEAST_M)
    return [`backdrop ${formatLength(Math.abs(back))} ${back > 0 ? 'further back' : 'nearer'}`];
  return ['another backdrop'];
}

function cameraChanges(before: Camera, after: Camera): string[] {
  const words: string[] = [];
  const moved = moves(before.positionM, after.positionM);
  if (moved.length > 0) words.push(`camera ${moved.join(' and ')}`);
  else if (!same(before.aimM, after.aimM)) words.push('camera turned');
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
