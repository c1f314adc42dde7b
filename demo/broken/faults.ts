import { type SetDocument, setDocument } from '@fendrix/contract';
import { ARRANGEMENT_FAULTS } from './arrangementFaults.js';
import { EXPOSURE_FAULTS } from './exposureFaults.js';
import { MIRROR_FAULTS } from './mirrorFaults.js';
import { SERIES_FAULTS } from './seriesFaults.js';

/** A set with one known fault. */
export interface BrokenSet {
  name: string;
  set: SetDocument;
  /** The verdict that it calls for. */
  code: string;
  /** Key of the thing at fault; null where there is none. */
  cause: string | null;
}

const FAULTS = [...EXPOSURE_FAULTS, ...MIRROR_FAULTS, ...ARRANGEMENT_FAULTS, ...SERIES_FAULTS];

/** All sets with one known fault, each made from its seed when it is first looked at. @param shift other seeds: sets that no limit was chosen by */
export function brokenSets(shift = 0): readonly BrokenSet[] {
  const known = made.get(shift);
  if (known) return known;
  const sets = FAULTS.flatMap(({ code, name, cause, seeds, make }) =>
    seeds.map((seed) => {
      let set: SetDocument | null = null;
      return {
        name: `${name}, seed ${seed + shift}`,
        code,
        cause,
        get set() {
          set ??= setDocument.parse(make(seed + shift));
          return set;
        },
      };
    }),
  );
  made.set(shift, sets);
  return sets;
}

const made = new Map<number, readonly BrokenSet[]>();
