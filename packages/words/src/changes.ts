import type { Backdrop, Standing } from '@fendrix/contract';
import {
  type Attachment,
  type Change,
  type ChangeDetail,
  type ChangedThing,
  changesBetween,
  F_NUMBERS,
  formatLength,
  formatPower,
  formatStops,
  ISO_SPEEDS,
  printedSetting,
  SHUTTERS,
} from '@fendrix/core';

/** What changed between two states of a set, a phrase for each thing; nothing where they are the same. */
export const describeChange = (before: Standing, after: Standing): string[] =>
  changesBetween(before, after).map(changePhrase);

/** The changes on one line, the first few of them. */
export function changeWords(before: Standing, after: Standing, most = 4): string {
  const all = describeChange(before, after);
  if (all.length === 0) return 'nothing changed';
  const rest = all.length - most;
  return rest > 0 ? `${all.slice(0, most).join(', ')} and ${rest} more` : all.join(', ');
}

function changePhrase({ thing, what, details }: Change): string {
  const name = changedThingName(thing);
  if (what === 'added') return `with ${name}`;
  if (what === 'removed') return `without ${name}`;
  const words = details.map(detailWords).join(' and ');
  if (thing.kind === 'setting') return words;
  return `${name} ${words === '' ? 'changed' : words}`;
}

/** What has changed, by its tag or name. */
export function changedThingName(thing: ChangedThing): string {
  switch (thing.kind) {
    case 'light':
      return thing.tag;
    case 'sheet':
      return `${thing.sheet} ${thing.tag}`;
    case 'product':
    case 'person':
      return thing.name;
    default:
      return SURROUNDINGS[thing.kind];
  }
}

const SURROUNDINGS = {
  backdrop: 'the background',
  bench: 'the table',
  room: 'the room',
  camera: 'camera',
  setting: '',
} as const;

const ATTACHMENTS: Record<Attachment, string> = {
  grid: 'grid',
  polarised: 'polarising film',
  modelling: 'modelling lamp',
  colour: 'colour',
};

const BACKDROPS: Record<Backdrop['kind'], string> = {
  sweep: 'bent up behind',
  panel: 'flat and upright',
  boards: 'of two boards in an L',
};

/** A background by how it is put up. */
export const backdropWords = (kind: string): string => `one ${BACKDROPS[kind as Backdrop['kind']] ?? kind}`;

export function detailWords(detail: ChangeDetail): string {
  switch (detail.code) {
    case 'bearing':
      return `to ${Math.abs(Math.round(detail.bearingDeg))}° ${detail.bearingDeg < 0 ? 'left' : 'right'}`;
    case 'round':
      return `${Math.round(Math.abs(detail.rightDeg))}° further ${detail.rightDeg < 0 ? 'left' : 'right'}`;
    case 'distance':
      return `${formatLength(Math.abs(detail.nearerM))} ${detail.nearerM > 0 ? 'closer' : 'farther'}`;
    case 'height':
      return `${formatLength(Math.abs(detail.upM))} ${detail.upM > 0 ? 'higher' : 'lower'}`;
    case 'aside':
      return 'a little aside';
    case 'moved':
      return 'moved';
    case 'aimed':
      return 'turned';
    case 'instead':
      return `in the place of ${detail.of}`;
    case 'material':
      return 'of another material';
    case 'lying-material':
      return 'its lying board of another material';
    case 'measures':
      return 'of other measures';
    case 'walls':
      return 'with other walls';
    case 'ceiling':
    case 'floor':
      return `with another ${detail.code}`;
    case 'size':
      return `now ${detail.sizesM.map((size) => formatLength(size)).join(' by ')}`;
    case 'turned':
      return `turned ${Math.round(detail.byDeg)}°`;
    case 'switched':
      return detail.on ? 'on' : 'off';
    case 'power':
      return `${formatStops(detail.byStops)} (${formatPower(detail.powerStops)})`;
    case 'kind':
      return `now a ${detail.name}`;
    case 'attached':
      return `${detail.how} ${ATTACHMENTS[detail.what]}`;
    case 'backdrop':
      return BACKDROPS[detail.kind];
    case 'back':
      return `${formatLength(Math.abs(detail.byM))} ${detail.byM > 0 ? 'further back' : 'nearer'}`;
    case 'lens':
      return `${Math.round(1000 * detail.focalLengthM)} mm`;
    case 'f-number':
      return `f/${printedSetting(F_NUMBERS, detail.fNumber)}`;
    case 'shutter':
      return `${printedSetting(SHUTTERS, detail.shutterS)} s`;
    case 'iso':
      return `ISO ${printedSetting(ISO_SPEEDS, detail.iso)}`;
    case 'white-balance':
      return `balance ${Math.round(detail.temperatureK)} K`;
    case 'focus':
      return `focus at ${formatLength(detail.focusM)}`;
    case 'polariser':
      return detail.axisDeg === null
        ? 'no polariser'
        : `polariser at ${Math.round(detail.axisDeg)}°`.replace('-', '−');
    case 'rig':
      return detail.on ? 'camera counted in' : 'camera left out';
    case 'table-height':
      return `table top ${formatLength(detail.heightM)} above the floor`;
  }
}
