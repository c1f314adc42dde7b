import {
  type SetDocument,
  type StandInRail,
  type StandInTurntable,
  standInRail,
  standInTurntable,
} from '@fendrix/contract';
import { createNormal, onRail, RAIL_OFF_M, TURNTABLE_OFF_DEG, turnedOnTable } from '@fendrix/core';
import { AppError } from '../errors.js';

/** The stand-ins that move something: a turntable under the products, a focus rail under the camera. */
export interface Movers {
  turntable(): StandInTurntable;
  rail(): StandInRail;
  setTurntable(state: StandInTurntable): void;
  setRail(state: StandInRail): void;
  /** Goes to a place, degrees or m. @throws {AppError} `unavailable` where it is off or does not answer */
  go(which: 'turntable' | 'rail', place: number): void;
  /** A set as it stands with both where they are, a little off as geared ones are. */
  moved(set: SetDocument): SetDocument;
}

const NAMES = { turntable: 'turntable', rail: 'focus rail' } as const;

export function createMovers(): Movers {
  let turntable = standInTurntable.parse({});
  let rail = standInRail.parse({});

  const requireReady = (which: keyof typeof NAMES) => {
    const { on, linked } = which === 'turntable' ? turntable : rail;
    if (!on)
      throw new AppError('unavailable', `The stand-in ${NAMES[which]} is off.`, { hint: 'Switch it on.' });
    if (!linked)
      throw new AppError('unavailable', `The ${NAMES[which]} does not answer.`, { hint: 'See to its link.' });
  };
  /** The same place is off by the same. */
  const offAt = (place: number) => createNormal(1 + Math.round(Math.abs(place) * 1e6))();

  return {
    turntable: () => turntable,
    rail: () => rail,
    setTurntable(next) {
      turntable = next;
    },
    setRail(next) {
      rail = next;
    },
    go(which, place) {
      requireReady(which);
      if (which === 'turntable') turntable = { ...turntable, turnDeg: place };
      else rail = { ...rail, forwardM: place };
    },
    moved(set) {
      const { turnDeg } = turntable;
      const { forwardM } = rail;
      const turned =
        turntable.on && turnDeg !== 0
          ? turnedOnTable(set, turnDeg + TURNTABLE_OFF_DEG * offAt(turnDeg))
          : set;
      return rail.on && forwardM !== 0 ? onRail(turned, forwardM + RAIL_OFF_M * offAt(forwardM)) : turned;
    },
  };
}
