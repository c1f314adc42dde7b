import type { Take } from '@fendrix/contract';
import { standingOf } from '@fendrix/core';
import type { Edit } from './edit';

/** A name and an id that no take has yet. */
export function freeTake(takes: readonly Take[]): { id: string; name: string } {
  for (let i = takes.length + 1; ; i++) {
    const [id, name] = [`take-${i}`, `Take ${i}`];
    if (!takes.some((take) => take.id === id || take.name === name)) return { id, name };
  }
}

/** Keeps the set as it is now as a take, made from the one it came from. */
export const keepTake =
  ({ id, name }: { id: string; name: string }): Edit =>
  (set) => {
    const from = set.takeId === undefined ? {} : { from: set.takeId };
    const take: Take = { id, name, note: '', pinned: false, ...from, set: standingOf(set) };
    return { ...set, takes: [...set.takes, take], takeId: id };
  };

/** Goes back to a take; what is kept from then on branches from it. */
export const restoreTake =
  (id: string): Edit =>
  (set) => {
    const take = set.takes.find((other) => other.id === id);
    if (!take) return set;
    const { format, version, name, note, takes, plates } = set;
    return { format, version, name, note, takes, plates, takeId: id, ...take.set };
  };

export const changeTake =
  (id: string, changes: Partial<Pick<Take, 'name' | 'note' | 'pinned'>>): Edit =>
  (set) => ({ ...set, takes: set.takes.map((take) => (take.id === id ? { ...take, ...changes } : take)) });

/** Takes one out; those made from it hang on the one it was made from, plates on it are of the set as it stands. */
export const removeTake =
  (id: string): Edit =>
  (set) => {
    const gone = set.takes.find((take) => take.id === id);
    if (!gone) return set;
    const hangOn = <T extends { from?: string | undefined }>({ from, ...rest }: T) => {
      const to = from === id ? gone.from : from;
      return { ...rest, ...(to === undefined ? {} : { from: to }) };
    };
    const { takeId, ...rest } = set;
    const at = takeId === id ? gone.from : takeId;
    return {
      ...rest,
      plates: set.plates.map(({ takeId: on, ...plate }) =>
        on === undefined || on === id ? plate : { ...plate, takeId: on },
      ),
      takes: set.takes.filter((take) => take.id !== id).map((take) => hangOn(take) as Take),
      ...(at === undefined ? {} : { takeId: at }),
    };
  };
