import { setTimeout as pause } from 'node:timers/promises';
import { type SetDocument, type StandInTrigger, standInTrigger } from '@fendrix/contract';
import { createRandom, FlashCharge, firedAs, isFlash } from '@fendrix/core';
import { AppError } from '../errors.js';

/** The stand-in flash trigger: powers by radio, the time until flashes are ready, one that does not fire now and then. */
export interface Trigger {
  state(): StandInTrigger;
  set(state: StandInTrigger): void;
  /** The set with the powers that the trigger has set, nothing fired. @param plan what the dials were set by */
  lit(real: SetDocument, plan: SetDocument): SetDocument;
  /** Waits until the flashes of a set are ready. */
  ready(plan: SetDocument): Promise<void>;
  /** The set as its flashes fire now, with what is in them. */
  fire(real: SetDocument, plan: SetDocument): { set: SetDocument; misfired: string[] };
}

export function createTrigger(): Trigger {
  let state = standInTrigger.parse({});
  const charge = new FlashCharge();
  const random = createRandom(1);
  const flashes = ({ lights }: SetDocument) => lights.filter((light) => light.on && isFlash(light));
  /** Power of a flash, stops from full: as set by the trigger, otherwise by its dial. */
  const powerOf = (tag: string, plan: SetDocument): number =>
    (state.on ? state.powers[tag] : undefined) ??
    plan.lights.find((light) => light.tag === tag)?.powerStops ??
    0;
  /** A dial holds its power only nearly; what it is off by stays when the trigger sets it. */
  const offOf = (tag: string, real: SetDocument, plan: SetDocument): number => {
    const of = ({ lights }: SetDocument) => lights.find((light) => light.tag === tag)?.powerStops ?? 0;
    return of(real) - of(plan);
  };

  return {
    state: () => state,
    set(next) {
      // What is set by radio reaches nothing while the link is lost.
      if (next.on && !next.linked && JSON.stringify(next.powers) !== JSON.stringify(state.powers))
        throw new AppError('unavailable', 'The flash trigger does not answer.', {
          hint: 'See to its link, or take it off the camera.',
        });
      state = next;
    },
    lit(real, plan) {
      if (!state.on) return real;
      const powers = flashes(real).map(({ tag }) => [tag, powerOf(tag, plan) + offOf(tag, real, plan)]);
      return firedAs(real, Object.fromEntries(powers) as Record<string, number>);
    },
    async ready(plan) {
      if (!state.on) return;
      const wait = Math.max(0, ...flashes(plan).map(({ tag }) => charge.waitMs(tag, Date.now())));
      if (wait > 0) await pause(wait);
    },
    fire(real, plan) {
      if (!state.on) return { set: real, misfired: [] };
      const misfired: string[] = [];
      const now = Date.now();
      const fired = flashes(real).map(({ tag }): [string, number | null] => {
        // Without the link nothing fires; one that misfires keeps its charge.
        if (!state.linked || random() < state.misfirePart) {
          misfired.push(tag);
          return [tag, null];
        }
        const power = powerOf(tag, plan);
        const less = charge.fire(tag, power, state.recycleS, now);
        if (less === null) misfired.push(tag);
        return [tag, less === null ? null : power + offOf(tag, real, plan) + less];
      });
      return { set: firedAs(real, Object.fromEntries(fired)), misfired };
    },
  };
}
