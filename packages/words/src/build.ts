import type { Light, SetDocument, Sheet, TapeMark } from '@fendrix/contract';
import {
  type BuildStep,
  F_NUMBERS,
  formatBearing,
  formatLength,
  formatTilt,
  ISO_SPEEDS,
  MOST_SPREAD,
  powerWords,
  printedSetting,
  SHUTTERS,
} from '@fendrix/core';
import { changedThingName, detailWords } from './changes.js';

/** A mark that tapes are laid from. */
export const TAPE_MARK_WORDS: Readonly<Record<TapeMark, string>> = {
  centre: 'centre of the set',
  'table-front-left': 'table, front left corner',
  'table-front-right': 'table, front right corner',
  'table-back-left': 'table, back left corner',
  'table-back-right': 'table, back right corner',
  'room-front-left': 'room, front left corner',
  'room-front-right': 'room, front right corner',
  'room-back-left': 'room, back left corner',
  'room-back-right': 'room, back right corner',
};

/** One step of building a set as it is read at the table. */
export interface BuildWords {
  title: string;
  /** The figures that put it there, the first three read from afar. */
  numbers: { label: string; value: string }[];
  /** What else is set on it. */
  notes: string[];
}

/** @param marks the marks that its tapes are laid from */
export function buildWords(
  step: BuildStep,
  set: SetDocument,
  marks: readonly [TapeMark, TapeMark],
): BuildWords {
  if (step.what === 'take-away')
    return { title: `Take ${changedThingName(step.thing)} away`, numbers: [], notes: [] };
  return { title: titleOf(step, set), numbers: numbersOf(step, marks), notes: notesOf(step, set) };
}

function titleOf({ thing, what, details }: BuildStep, set: SetDocument): string {
  const changed = details.map(detailWords).join(' and ');
  if (thing.kind === 'setting') return `Camera: ${changed}`;
  if (what === 'change') return `${capital(changedThingName(thing))}: ${changed || 'changed'}`;
  switch (thing.kind) {
    case 'light':
      return `${thing.tag}: ${lightOf(set, thing.tag)?.name ?? 'light'}`;
    case 'sheet':
      return `${thing.tag}: ${sheetOf(set, thing.tag)?.name ?? thing.sheet}`;
    case 'product':
    case 'person':
      return thing.name;
    case 'camera':
      return `Camera, ${Math.round(1000 * set.camera.lens.focalLengthM)} mm`;
    default:
      return capital(changedThingName(thing).replace('the ', ''));
  }
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
const lightOf = ({ lights }: SetDocument, tag: string): Light | undefined =>
  lights.find((own) => own.tag === tag);
const sheetOf = ({ sheets }: SetDocument, tag: string): Sheet | undefined =>
  sheets.find((own) => own.tag === tag);

function numbersOf(
  { thing, tapes, stand, heightM, overFloorM }: BuildStep,
  [first, second]: readonly [TapeMark, TapeMark],
): BuildWords['numbers'] {
  if (!stand) return [];
  const place = tapes
    ? [
        { label: `from ${TAPE_MARK_WORDS[first]}`, value: formatLength(tapes.firstM) },
        { label: `from ${TAPE_MARK_WORDS[second]}`, value: formatLength(tapes.secondM) },
      ]
    : [
        { label: 'from the centre of the set', value: formatLength(stand.distanceM) },
        { label: 'seen from it', value: formatBearing(stand.bearingDeg) },
      ];
  const isProduct = thing.kind === 'product';
  const isOnTable = isProduct && Math.abs(heightM ?? 0) < 0.001;
  const height =
    heightM === null || isOnTable
      ? []
      : [{ label: HEIGHTS[thing.kind] ?? 'middle over the table', value: formatLength(heightM) }];
  return [
    ...place,
    ...height,
    ...(overFloorM === null || isProduct
      ? []
      : [{ label: 'the same over the floor', value: formatLength(overFloorM) }]),
  ];
}

const HEIGHTS: Partial<Record<BuildStep['thing']['kind'], string>> = {
  camera: 'lens over the table',
  product: 'foot over the table',
};

function notesOf({ thing, stand, tapes, facing, judgedAlone }: BuildStep, set: SetDocument): string[] {
  const notes: string[] = [];
  if (stand && stand.distanceM < AT_CENTRE_M) notes.push('At the centre of the set.');
  if (tapes && tapes.spread > MOST_SPREAD)
    notes.push(
      'The two tapes lie nearly in one line and do not fix this place: take other marks, or check it in the picture.',
    );
  else if (tapes && tapes.side !== 'back') notes.push(SIDES[tapes.side]);
  if (facing) {
    const tilt = formatTilt(facing.tiltDeg);
    notes.push(
      `Faces ${formatLength(facing.distanceM)} ahead, ${tilt === 'level' ? tilt : `tilted ${tilt}`}.`,
    );
  }
  if (thing.kind === 'light') notes.push(...lightNotes(lightOf(set, thing.tag)));
  if (thing.kind === 'sheet') notes.push(...sheetNotes(sheetOf(set, thing.tag)));
  if (thing.kind === 'camera') notes.push(...cameraNotes(set));
  if (thing.kind === 'product') notes.push(...productNotes(set, thing.id));
  if (thing.kind === 'backdrop') notes.push(...backdropNotes(set));
  if (thing.kind === 'bench' && set.bench)
    notes.push(
      `${formatLength(set.bench.widthM)} by ${formatLength(set.bench.depthM)}, top ${formatLength(set.mark.heightAboveFloorM)} over the floor.`,
    );
  if (judgedAlone) notes.push('All others off: judge it alone, then go on.');
  return notes;
}

/** What stands this near to the centre is said to stand there, m. */
const AT_CENTRE_M = 0.005;

/** Of what is not behind the line between the marks, where it is looked for first. */
const SIDES = {
  front: 'In front of the line between the two marks, on the side of the camera.',
  left: 'Left of the line between the two marks, seen from the camera.',
  right: 'Right of the line between the two marks, seen from the camera.',
} as const;

function lightNotes(light: Light | undefined): string[] {
  if (!light) return [];
  const gels = light.colour?.gels ?? [];
  const power = powerWords(light, light.powerStops);
  const watts = power.wattSeconds === null ? '' : `, ${Math.round(power.wattSeconds)} Ws`;
  return [
    light.on ? `Power ${power.fraction}${watts}.` : 'Switched off for this picture.',
    ...('grid' in light && light.grid ? [`With a grid of ${Math.round(light.grid.cutoffDeg)}°.`] : []),
    ...(gels.length > 0 ? [`Gel: ${gels.map((gel) => gel.name).join(', ')}.`] : []),
    ...(light.kind !== 'surround' && light.polarised
      ? [`Polarising film at ${Math.round(light.polarised.axisDeg)}°.`]
      : []),
    ...('rollDeg' in light && Math.abs(light.rollDeg) > 0.5
      ? [`Turned ${Math.round(light.rollDeg)}° clockwise, seen from behind.`]
      : []),
  ];
}

function sheetNotes(sheet: Sheet | undefined): string[] {
  if (!sheet) return [];
  const sizes =
    'widthM' in sheet && 'heightM' in sheet
      ? [sheet.widthM, sheet.heightM].map((size) => formatLength(size))
      : [];
  return [
    ...(sizes.length > 0 ? [`${sizes.join(' by ')}.`] : []),
    ...(sheet.kind === 'cut-out' ? ['Cut to the outline of its product.'] : []),
    ...(Math.abs(sheet.rollDeg) > 0.5
      ? [`Turned ${Math.round(sheet.rollDeg)}° clockwise, seen from behind.`]
      : []),
  ];
}

const cameraNotes = ({ camera }: SetDocument): string[] => [
  `f/${printedSetting(F_NUMBERS, camera.fNumber)}, ${printedSetting(SHUTTERS, camera.shutterS)} s, ISO ${printedSetting(ISO_SPEEDS, camera.iso)}.`,
  `Focus at ${formatLength(camera.focusM)}.`,
];

function productNotes({ products }: SetDocument, id: string): string[] {
  const own = products.find((product) => product.id === id);
  return own && 'turnDeg' in own && Math.abs(own.turnDeg) > 0.5
    ? [`Turned ${Math.round(own.turnDeg)}° about the upright.`]
    : [];
}

function backdropNotes({ backdrop }: SetDocument): string[] {
  if (!backdrop) return [];
  const back = backdrop.kind === 'panel' ? backdrop.centreM[1] : backdrop.backM;
  return [
    `${formatLength(backdrop.widthM)} wide, its upright part ${formatLength(back)} behind the centre, top edge ${formatLength(backdrop.heightM)} high.`,
  ];
}
