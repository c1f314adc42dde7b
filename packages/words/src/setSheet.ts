import type { SetDocument, Studio, TapeMark } from '@fendrix/contract';
import {
  type BuildStep,
  buildList,
  F_NUMBERS,
  formatBearing,
  formatLength,
  formatStops,
  formatTilt,
  ISO_SPEEDS,
  isSure,
  marksForTapes,
  NO_ACCOUNT,
  type NudgeWay,
  type PlacedThing,
  printedSetting,
  SHUTTERS,
  type SpotReading,
  type Tolerance,
} from '@fendrix/core';
import { buildWords, TAPE_MARK_WORDS } from './build.js';
import { setCautionWords } from './cautions.js';

/** What is printed of one thing: a row of the table of things. */
export interface SetSheetRow {
  name: string;
  /** From the centre: distance and bearing. */
  stands: string;
  /** The two tapes, in the order of the marks. */
  tapes: string;
  /** Over the table. */
  height: string;
  /** Level from the camera's side, and tilt. */
  faces: string;
  /** All else that is set on it. */
  set: string;
  mayBeOff: string;
}

/** All words and figures of a set sheet, in the order in which it is read. */
export interface SetSheetWords {
  title: string;
  note: string;
  /** What tapes are laid from; null where the set has no two marks. */
  tapes: string | null;
  camera: { label: string; value: string }[];
  tones: { spot: string; tone: string; wanted: string }[];
  things: SetSheetRow[];
  /** What has to be held closest, first the worst. */
  closest: string[];
  order: string[];
  cautions: string[];
}

export interface SetSheetFigures {
  spots: readonly SpotReading[];
  tolerances: readonly Tolerance[];
  marks: readonly [TapeMark, TapeMark] | null;
  studio?: Pick<Studio, 'breakerA' | 'mainsV'> | undefined;
}

/** The two marks that the tapes of a sheet are laid from: front corners of the table, of the room where there is none. */
export function sheetMarks(set: Pick<SetDocument, 'bench' | 'room'>): [TapeMark, TapeMark] | null {
  const corners = marksForTapes(set).filter(({ mark }) => mark !== 'centre');
  const [first, second] = corners;
  return first && second ? [first.mark, second.mark] : null;
}

/** @param figures read of the set as it stands */
export function setSheetWords(
  set: SetDocument,
  { spots, tolerances, marks, studio }: SetSheetFigures,
): SetSheetWords {
  const tapes = marks ?? NO_MARKS;
  const steps = buildList(null, set, tapes, studio);
  return {
    title: set.name,
    note: set.note,
    tapes: marks
      ? `First tape: ${TAPE_MARK_WORDS[marks[0]]}. Second tape: ${TAPE_MARK_WORDS[marks[1]]}.`
      : null,
    camera: cameraWords(set),
    tones: tonesOf(set, spots),
    things: steps.filter(({ stand }) => stand).map((step) => rowOf(step, set, tapes, tolerances)),
    closest: tolerances.slice(0, MOST_CLOSEST).flatMap((one) => closestWords(one, set) ?? []),
    order: steps.map((step) => {
      const { title } = buildWords(step, set, tapes);
      return step.judgedAlone ? `${title}: judge it alone, all others off` : title;
    }),
    cautions: [...new Set(steps.flatMap((step) => step.cautions.map(setCautionWords)))],
  };
}

/** Without two marks, tapes of one place are none: only bearings are told. */
const NO_MARKS: [TapeMark, TapeMark] = ['centre', 'centre'];
const MOST_CLOSEST = 8;

function cameraWords({ camera }: SetDocument): SetSheetWords['camera'] {
  const { lens, body } = camera;
  const all: SetSheetWords['camera'] = [
    { label: 'Lens', value: `${round(1000 * lens.focalLengthM, 1)} mm` },
    {
      label: 'Sensor',
      value: `${round(1000 * body.sensorWidthM, 1)} by ${round(1000 * body.sensorHeightM, 1)} mm`,
    },
    { label: 'Aperture', value: `f/${printedSetting(F_NUMBERS, camera.fNumber)}` },
    { label: 'Shutter', value: `${printedSetting(SHUTTERS, camera.shutterS)} s` },
    { label: 'ISO', value: printedSetting(ISO_SPEEDS, camera.iso) },
    { label: 'Focus at', value: formatLength(camera.focusM) },
  ];
  if (camera.polariser) all.push({ label: 'Polariser at', value: `${round(camera.polariser.axisDeg, 1)}°` });
  return all;
}

const round = (value: number, decimals: number): number => Number(value.toFixed(decimals));

function tonesOf(set: SetDocument, spots: readonly SpotReading[]): SetSheetWords['tones'] {
  return spots.map((reading) => {
    const wanted = set.spots.find(({ name }) => name === reading.name)?.target;
    const { stopsFromMidTone } = reading;
    const about = isSure(reading) ? '' : 'about ';
    return {
      spot: reading.name,
      tone: stopsFromMidTone === null ? 'not seen by the lens' : `${about}${formatStops(stopsFromMidTone)}`,
      wanted: wanted
        ? `${formatStops(wanted.from)} to ${formatStops(wanted.to)}${wanted.against ? ` against ${wanted.against}` : ''}`
        : '',
    };
  });
}

function rowOf(
  step: BuildStep,
  set: SetDocument,
  marks: readonly [TapeMark, TapeMark],
  tolerances: readonly Tolerance[],
): SetSheetRow {
  const { stand, tapes, heightM, facing } = step;
  const { title, notes } = buildWords(step, set, marks);
  const own = tolerances.filter(({ thing }) => isOf(thing, step));
  return {
    name: title,
    stands: stand ? `${formatLength(stand.distanceM)}, ${formatBearing(stand.bearingDeg)}` : '',
    tapes: tapes ? `${formatLength(tapes.firstM)}, ${formatLength(tapes.secondM)}` : '',
    height: heightM === null ? '' : formatLength(heightM),
    faces: facing ? `${formatBearing(facing.bearingDeg)}, ${formatTilt(facing.tiltDeg)}` : '',
    set: notes.filter((note) => !note.startsWith('Faces ')).join(' '),
    mayBeOff: offWords(own),
  };
}

const isOf = (thing: PlacedThing, { thing: own }: BuildStep): boolean =>
  thing.kind === own.kind &&
  (own.kind === 'camera' ||
    ('tag' in own && own.tag === thing.key) ||
    (own.kind === 'product' && own.id === thing.key));

const WAY_WORDS: Readonly<Record<NudgeWay, string>> = {
  out: 'distance',
  aside: 'sideways',
  up: 'height',
  turn: 'turn',
  tilt: 'tilt',
};
const isAngle = (way: NudgeWay): boolean => way === 'turn' || way === 'tilt';
const mostWords = ({ way, most, isBound }: Tolerance): string =>
  most === null
    ? `over ${isAngle(way) ? `${NO_ACCOUNT.deg}°` : formatLength(NO_ACCOUNT.m)}`
    : `${isBound ? 'at least ' : ''}${isAngle(way) ? `${round(most, 1)}°` : formatLength(Math.round(most * 1000) / 1000)}`;

/** In the order in which they are measured. */
function offWords(own: readonly Tolerance[]): string {
  const told = (Object.keys(WAY_WORDS) as NudgeWay[]).flatMap((way) =>
    own.filter((one) => one.way === way && one.most !== null),
  );
  if (own.length === 0) return '';
  if (told.length === 0) return 'by much, whichever way';
  return told.map((one) => `${WAY_WORDS[one.way]} ${mostWords(one)}`).join(', ');
}

function closestWords(tolerance: Tolerance, set: SetDocument): string | null {
  const { thing, way, limit, most } = tolerance;
  if (!limit || most === null) return null;
  const name = placedName(set, thing);
  const change =
    limit.kind === 'spot'
      ? `“${limit.name}” has changed by a tenth of a stop`
      : `an image in ${productName(set, limit.product)} has moved by one percent of its width`;
  return `${name}, ${WAY_WORDS[way]}: ${mostWords(tolerance)}; then ${change}.`;
}

const productName = ({ products }: SetDocument, key: string): string =>
  products.find(({ id }) => id === key)?.name ?? key;

function placedName(set: SetDocument, { kind, key }: PlacedThing): string {
  if (kind === 'camera') return 'Camera';
  if (kind === 'product') return productName(set, key);
  const own = (kind === 'light' ? set.lights : set.sheets).find(({ tag }) => tag === key);
  return own ? `${key} (${own.name})` : key;
}
