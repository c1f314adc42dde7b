import type { Problem } from './problems.js';
import { levelBefore } from './rollBefore.js';
import { startWishes } from './wishes.js';

type Fields = Readonly<Record<string, unknown>>;

/** Makes of a document of one version one of the next. Pure; what it does not know it leaves, to be told by the check. */
export type Upgrade = (document: Fields) => Fields;

/** A set, and the set of each of its takes. */
function ofEach(set: Fields, change: (set: Fields) => Fields): Fields {
  const { takes } = set;
  if (!Array.isArray(takes)) return change(set);
  const changed = takes.map((take) =>
    isFields(take) && isFields(take.set) ? { ...take, set: change(take.set) } : take,
  );
  return { ...change(set), takes: changed };
}

/** With the wishes that make sense for what stands on it. */
const withWishes = (set: Fields): Fields => ofEach(set, (own) => ({ ...own, wishes: startWishes(own) }));

/** What faces nearly straight up or down, rolled so that it is turned as it was when that was level too. */
const withRolls = (set: Fields): Fields =>
  ofEach(set, (own) => ({
    ...own,
    ...(isFields(own.camera) ? { camera: levelBefore(own.camera) } : {}),
    ...(Array.isArray(own.lights) ? { lights: own.lights.map(levelBefore) } : {}),
    ...(Array.isArray(own.sheets) ? { sheets: own.sheets.map(levelBefore) } : {}),
  }));

const isFields = (value: unknown): value is Fields => typeof value === 'object' && value !== null;

/**
 * The documents that are kept, each with its steps from version 1 to 2, from 2 to 3 and so on: the version that is
 * written today is one more than there are steps. What only adds a field with a default needs none.
 */
const UPGRADES: Readonly<Record<string, readonly Upgrade[]>> = {
  'fendrix-set': [withWishes, withRolls],
  'fendrix-job': [],
  'fendrix-kit': [],
  'fendrix-backup': [],
};

/** The version of each kind of document that is written today, by the name of its format. */
export const VERSIONS_TODAY: Readonly<Record<string, number>> = Object.fromEntries(
  Object.entries(UPGRADES).map(([format, steps]) => [format, steps.length + 1]),
);

/**
 * A document as the version of today has it; other data as they are. A newer version is a problem, not a guess.
 * @param upgrades by the name of the format
 */
export function upgraded(
  data: unknown,
  upgrades = UPGRADES,
): { ok: true; data: unknown } | { ok: false; problem: Problem } {
  if (typeof data !== 'object' || data === null) return { ok: true, data };
  const { format, version } = data as Fields;
  const steps = typeof format === 'string' && Object.hasOwn(upgrades, format) ? upgrades[format] : undefined;
  if (!steps || !Number.isInteger(version) || (version as number) < 1) return { ok: true, data };
  const today = steps.length + 1;
  const written = version as number;
  if (written > today) {
    return {
      ok: false,
      problem: {
        path: 'version',
        message: `is ${written}: a newer Fendrix wrote it, and this one reads versions up to ${today}. Update this one to open it.`,
      },
    };
  }
  let document = data as Fields;
  for (let from = written; from < today; from++)
    document = { ...(steps[from - 1] as Upgrade)(document), version: from + 1 };
  return { ok: true, data: document };
}
