import type { Kit, KitEntry, Light, SetDocument, Sheet } from '@fendrix/contract';

type Wanted = { what: 'light'; thing: Light } | { what: 'sheet'; thing: Sheet };

/** One thing on the set that the kit does not hold, and what comes nearest. */
export interface MissingThing {
  tag: string;
  name: string;
  /** Entries of the kit that could stand in, nearest first, with what that means. */
  instead: { id: string; name: string; how: string }[];
}

/** Sizes this near, by area, count as the same thing. */
const SAME_SIZE = 1.3;
/** Stand-ins named for each missing thing. */
const MOST_NAMED = 3;

/** What another kind of thing means in place of one that is missing. */
const STAND_INS: Record<string, readonly [kind: string, how: string][]> = {
  softbox: [
    ['octa', 'rounder edge of the highlight'],
    ['umbrella', 'as soft, spills more: flag it'],
    ['frame', 'a lamp behind frost of this size'],
    ['card', 'a lamp turned into a white card of this size'],
  ],
  dish: [
    ['snoot', 'harder and narrower'],
    ['softbox', 'with a grid, from farther'],
  ],
  panel: [['softbox', 'flash in place of lasting light: the shutter no longer counts']],
  projector: [['snoot', 'a plain spot; cut the shape out of card']],
  ring: [['softbox', 'behind the lens, with a lens-hole card']],
  octa: [
    ['softbox', 'square edge of the highlight'],
    ['umbrella', 'as soft, spills more: flag it'],
  ],
  umbrella: [
    ['softbox', 'as soft, spills less'],
    ['card', 'a lamp turned into a white card'],
  ],
  frame: [
    ['frame', 'another size: nearer or farther'],
    ['roof', 'hung upright'],
    ['card', 'tracing paper on a frame of card'],
  ],
  flag: [['card', 'its black side']],
  card: [
    ['disc', 'a reflector of this size'],
    ['fold', 'one wing of it'],
  ],
};

/**
 * What stands on a set and is not in the kit. A thing is held when the kit has one of its kind of about its size and
 * enough of them; each piece serves once.
 * Limits: by kind and size only; power, colour and finish are not compared.
 */
export function kitCheck(set: SetDocument, kit: Kit): MissingThing[] {
  const { missing, left } = taken(set, kit);
  return missing.map((one) => ({
    tag: one.thing.tag,
    name: one.thing.name,
    instead: standIns(one, kit, left),
  }));
}

/** How many of each light and sheet of the kit are not on the set yet, by the id of its entry. */
export const leftInKit = (set: SetDocument, kit: Kit): ReadonlyMap<string, number> => taken(set, kit).left;

/** Takes a piece of the kit for each thing on the set: what is missing, and what is left. */
function taken(set: SetDocument, kit: Kit): { missing: Wanted[]; left: Map<string, number> } {
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
  sizeGap(entry, { what, thing } as Wanted) < SAME_SIZE;

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

function standIns(one: Wanted, kit: Kit, left: ReadonlyMap<string, number>): MissingThing['instead'] {
  const kinds: readonly [string, string][] = [
    [one.thing.kind, 'another size of the same: nearer or farther keeps its look'],
    ...(STAND_INS[one.thing.kind] ?? []),
  ];
  return kinds
    .flatMap(([kind, how]) =>
      kit.entries
        .filter(
          (entry) =>
            (entry.what === 'light' || entry.what === 'sheet') &&
            entry.thing.kind === kind &&
            (left.get(entry.id) ?? 0) > 0,
        )
        .sort((a, b) => sizeGap(a, one) - sizeGap(b, one))
        .slice(0, 1)
        .map(({ id, name }) => ({ id, name, how })),
    )
    .slice(0, MOST_NAMED);
}
