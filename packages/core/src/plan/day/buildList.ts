import type { Light, SetDocument, Studio, TapeMark, Vector } from '@fendrix/contract';
import { type Facing, facingOf } from '../../geometry/aim.js';
import { type Change, type ChangeDetail, type ChangedThing, changesBetween } from '../../record/changes.js';
import { type Stand, toStand } from '../../units/bearing.js';
import { textDigest } from '../../units/textDigest.js';
import { type SetCaution, setCautions } from '../setCautions.js';
import { lightOrder } from './lightOrder.js';
import { marksOf, type PlacedMark, type TapeFix, tapesTo } from './tapes.js';

/** One thing that is done to build a set, with the figures that put it there. */
export interface BuildStep {
  /** The same step of the same thing with the same figures has the same key: what was ticked holds only for it. */
  key: string;
  thing: ChangedThing;
  what: 'place' | 'change' | 'take-away';
  /** Of what stands at one place; null for the background, the table and settings. */
  stand: Stand | null;
  /** By the marks of the set; null where it has not both. */
  tapes: TapeFix | null;
  /** Middle of a light or sheet, foot of a product, lens of the camera: over the table top and over the floor, m. */
  heightM: number | null;
  overFloorM: number | null;
  facing: Facing | null;
  /** What is other than on the set before; empty where the thing is new. */
  details: readonly ChangeDetail[];
  /** A light that is judged with all others off before the next one is built. */
  judgedAlone: boolean;
  cautions: readonly SetCaution[];
}

/** Order of building: what is behind and below first, then the lens that all is judged through, then light by light. */
const ORDER: readonly ChangedThing['kind'][] = [
  'room',
  'bench',
  'backdrop',
  'setting',
  'camera',
  'product',
  'light',
  'sheet',
  'person',
];

/**
 * What to place in which order, from nothing or from the set before: first what is taken away, then background, table,
 * camera, products, the lights one by one, the one that gives most first, each judged alone, cards and flags, people.
 * @param before the set that stands there; null for an empty table
 * @param marks where tapes are laid from
 */
export function buildList(
  before: SetDocument | null,
  after: SetDocument,
  marks: readonly [TapeMark, TapeMark],
  studio?: Pick<Studio, 'breakerA' | 'mainsV'>,
): BuildStep[] {
  const placed = marksOf(after, marks);
  const changes = before ? changesBetween(before, after) : allOf(after);
  const cautions = setCautions(after, studio);
  const steps = changes
    .filter(({ thing }) => !isGiven(after, thing))
    .map((change) => stepOf(after, change, placed, cautions));
  const rank = ({ thing, what }: BuildStep) => (what === 'take-away' ? -1 : ORDER.indexOf(thing.kind));
  const tag = ({ thing }: BuildStep) => ('tag' in thing ? thing.tag : '');
  const lights = lightOrder(after);
  const place = ({ thing, what }: BuildStep) =>
    thing.kind === 'light' && what !== 'take-away' ? lights.indexOf(thing.tag) : 0;
  const sorted = [...steps].sort(
    (a, b) => rank(a) - rank(b) || place(a) - place(b) || tag(a).localeCompare(tag(b)),
  );
  return withGeneral(sorted, cautions);
}

/** Windows and the light from all round are there already; the room is not built. */
function isGiven({ lights }: SetDocument, thing: ChangedThing): boolean {
  if (thing.kind === 'room') return true;
  if (thing.kind !== 'light') return false;
  const kind = lights.find(({ tag }) => tag === thing.tag)?.kind;
  return kind === 'window' || kind === 'surround';
}

function allOf({ bench, backdrop, products, lights, sheets, people }: SetDocument): Change[] {
  const things: ChangedThing[] = [
    ...(bench ? [{ kind: 'bench' as const }] : []),
    ...(backdrop ? [{ kind: 'backdrop' as const }] : []),
    { kind: 'camera' },
    ...products.map(({ id, name }) => ({ kind: 'product' as const, id, name })),
    ...lights.map(({ tag }) => ({ kind: 'light' as const, tag })),
    ...sheets.map(({ tag, kind }) => ({ kind: 'sheet' as const, tag, sheet: kind })),
    ...people.map(({ name }) => ({ kind: 'person' as const, name })),
  ];
  return things.map((thing) => ({ thing, what: 'added', details: [] }));
}

const WHAT = { added: 'place', removed: 'take-away', changed: 'change' } as const;

function stepOf(
  set: SetDocument,
  { thing, what, details }: Change,
  marks: readonly [PlacedMark, PlacedMark] | null,
  cautions: readonly SetCaution[],
): BuildStep {
  const own = what === 'removed' ? null : placeOf(set, thing);
  const figures = own && { positionM: own.positionM, aimM: own.aimM };
  const name = 'tag' in thing ? thing.tag : 'id' in thing ? thing.id : 'name' in thing ? thing.name : '';
  return {
    key: `${thing.kind} ${name} ${textDigest(JSON.stringify([what, figures, details, own?.rest]))}`,
    thing,
    what: WHAT[what],
    stand: own && toStand(own.positionM),
    tapes: own && marks && tapesTo(marks, own.positionM),
    heightM: own && thing.kind !== 'person' ? own.positionM[2] : null,
    overFloorM: own && thing.kind !== 'person' ? own.positionM[2] + set.mark.heightAboveFloorM : null,
    facing: own?.aimM ? facingOf(own.positionM, own.aimM) : null,
    details: what === 'changed' ? details : [],
    judgedAlone: thing.kind === 'light' && what !== 'removed' && isOn(set, thing.tag),
    cautions: what === 'removed' ? [] : cautions.filter((caution) => isOf(caution, thing)),
  };
}

const isOn = ({ lights }: SetDocument, tag: string): boolean =>
  lights.some((own) => own.tag === tag && own.on);

interface Placed {
  positionM: Vector;
  aimM: Vector | null;
  /** All else that is set on it, for telling one step from another. */
  rest: unknown;
}

/** Where a thing stands and what it faces; null for what is at no one place. */
function placeOf(
  { lights, sheets, products, people, camera }: SetDocument,
  thing: ChangedThing,
): Placed | null {
  const placed = (own: Light | SetDocument['sheets'][number] | undefined): Placed | null =>
    own && 'positionM' in own
      ? { positionM: own.positionM, aimM: 'aimM' in own ? own.aimM : null, rest: own }
      : null;
  switch (thing.kind) {
    case 'light':
      return placed(lights.find(({ tag }) => tag === thing.tag));
    case 'sheet':
      return placed(sheets.find(({ tag }) => tag === thing.tag));
    case 'product': {
      const own = products.find(({ id }) => id === thing.id);
      return own ? { positionM: own.positionM, aimM: null, rest: 'turnDeg' in own ? own.turnDeg : 0 } : null;
    }
    case 'person': {
      const own = people.find(({ name }) => name === thing.name);
      return own ? { positionM: [own.positionM[0], own.positionM[1], 0], aimM: null, rest: null } : null;
    }
    case 'camera':
      return { positionM: camera.positionM, aimM: camera.aimM, rest: camera };
    default:
      return null;
  }
}

/** Whether a caution is of one thing, and shown where that is placed. */
function isOf(caution: SetCaution, thing: ChangedThing): boolean {
  switch (caution.code) {
    case 'hot-lamp':
      return (
        (thing.kind === 'light' && caution.light === thing.tag) ||
        (thing.kind === 'sheet' && caution.near?.tag === thing.tag)
      );
    case 'overhead':
      return (
        (thing.kind === 'light' && caution.lights.includes(thing.tag)) ||
        (thing.kind === 'camera' && caution.camera)
      );
    case 'head-height':
      return thing.kind === 'light' && caution.lights.includes(thing.tag);
    case 'high-camera':
      return thing.kind === 'camera';
    default:
      return false;
  }
}

/** What is of no one thing is said before the first light, or before the first step. */
function withGeneral(steps: readonly BuildStep[], cautions: readonly SetCaution[]): BuildStep[] {
  const told = new Set(steps.flatMap((step) => step.cautions));
  const general = cautions.filter((caution) => !told.has(caution) && isGeneral(caution));
  const light = steps.findIndex(({ thing, what }) => thing.kind === 'light' && what !== 'take-away');
  const at = Math.max(0, light);
  return steps.map((step, i) => (i === at ? { ...step, cautions: [...general, ...step.cautions] } : step));
}

const isGeneral = ({ code }: SetCaution): boolean =>
  code === 'hazard' || code === 'flash-with-people' || code === 'circuit' || code === 'liquid';
