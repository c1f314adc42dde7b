import type { Kit, KitEntry, Light, SetDocument, Sheet } from '@fendrix/contract';

/** Kinds of lights and sheets. */
export type ThingKind = Light['kind'] | Sheet['kind'];

type Wanted = { what: 'light'; thing: Light } | { what: 'sheet'; thing: Sheet };

/** One thing on the set that the kit does not hold, and what comes nearest. */
export interface MissingThing {
  tag: string;
  name: string;
  kind: ThingKind;
  /** Entries of the kit that could stand in, nearest first. */
  instead: { id: string; name: string; kind: ThingKind }[];
}

/** Sizes this near, by area, count as the same thing. */
const SAME_SIZE = 1.3;
/** Stand-ins named for each missing thing. */
const MOST_NAMED = 3;

/** Kinds that may stand in for one that is missing, the nearest first. */
const STAND_INS: Readonly<Record<string, readonly ThingKind[]>> = {
  softbox: ['octa', 'umbrella', 'frame', 'card'],
  dish: ['snoot', 'softbox'],
  panel: ['softbox'],
  projector: ['snoot'],
  ring: ['softbox'],
  octa: ['softbox', 'umbrella'],
  umbrella: ['softbox', 'card'],
  frame: ['roof', 'card'],
  flag: ['card'],
  card: ['disc', 'fold'],
};

/** What of a set is looked for in the kit. */
type OnStands = Pick<SetDocument, 'lights' | 'sheets'>;

/**
 * What stands on a set and is not in the kit. A thing is held when the kit has one of its kind of about its size and
 * enough of them; each piece serves once.
 * Limits: by kind, size and, of sheets, kind of finish; power, colour and how light a finish is are not compared.
 */
export function kitCheck(set: OnStands, kit: Pick<Kit, 'entries'>): MissingThing[] {
  const { missing, left } = taken(set, kit);
  return missing.map((one) => ({
    tag: one.thing.tag,
    name: one.thing.name,
    kind: one.thing.kind,
    instead: standIns(one, kit, left),
  }));
}

/** How many of each light and sheet of the kit are not on the set yet, by the id of its entry. */
export const leftInKit = (set: OnStands, kit: Pick<Kit, 'entries'>): ReadonlyMap<string, number> =>
  taken(set, kit).left;

/** Takes a piece of the kit for each thing on the set: what is missing, and what is left. */
function taken(set: OnStands, kit: Pick<Kit, 'entries'>): { missing: Wanted[]; left: Map<string, number> } {
  const left = new Map(kit.entries.map((entry) => [entry.id, entry.count] as const));
  const wanted: Wanted[] = [
    ...set.lights.map((thing) => ({ what: 'light' as const, thing })),
    ...set.sheets.map((thing) => ({ what: 'sheet' as const, thing })),
    // A cut-out is cut for its set, out of any card.
  ].filter(({ thing }) => thing.kind !== 'surround' && thing.kind !== 'cut-out');
  const missing = wanted.filter((one) => {
    const held = kit.entries
      .filter((entry) => isSame(entry, one) && (left.get(entry.id) ?? 0) > 0)
      .sort((a, b) => sizeGap(a, one) - sizeGap(b, one))[0];
    if (held) left.set(held.id, (left.get(held.id) ?? 0) - 1);
    return !held;
  });
  return { missing, left };
}

const isSame = (entry: KitEntry, { what, thing }: Wanted): boolean =>
  entry.what === what &&
  entry.thing.kind === thing.kind &&
  finishOf(entry.thing) === finishOf(thing) &&
  sizeGap(entry, { what, thing } as Wanted) < SAME_SIZE;

/** What a sheet does with light: a net is no black card. All that bounce or take it, matte or shiny, are of one kind. Lights have none. */
function finishOf(thing: object): string | undefined {
  const kind = (thing as { front?: { kind: string } }).front?.kind;
  return kind === undefined || APART.has(kind) ? kind : 'opaque';
}

const APART: ReadonlySet<string> = new Set(['net', 'translucent', 'mirror', 'metal']);

/** Ratio of the areas, 1 or more; 1 where neither has a size. */
function sizeGap(entry: KitEntry, { thing }: Wanted): number {
  const [a, b] = [areaOf(entry.thing), areaOf(thing)];
  if (a === null || b === null) return 1;
  return Math.max(a / b, b / a);
}

function areaOf(thing: object): number | null {
  const { widthM, heightM, diameterM } = thing as Record<string, number | undefined>;
  if (widthM !== undefined && heightM !== undefined) return widthM * heightM;
  if (diameterM !== undefined) return (Math.PI / 4) * diameterM ** 2;
  return null;
}

function standIns(
  one: Wanted,
  kit: Pick<Kit, 'entries'>,
  left: ReadonlyMap<string, number>,
): MissingThing['instead'] {
  const kinds: readonly ThingKind[] = [one.thing.kind, ...(STAND_INS[one.thing.kind] ?? [])];
  return kinds
    .flatMap((kind) =>
      kit.entries
        .filter(
          (entry) =>
            (entry.what === 'light' || entry.what === 'sheet') &&
            entry.thing.kind === kind &&
            (left.get(entry.id) ?? 0) > 0,
        )
        .sort((a, b) => sizeGap(a, one) - sizeGap(b, one))
        .slice(0, 1)
        .map(({ id, name }) => ({ id, name, kind })),
    )
    .slice(0, MOST_NAMED);
}
