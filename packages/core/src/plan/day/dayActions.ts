import type { DayAction, Job } from '@fendrix/contract';

/** Ticks that are kept of one picture, the last ones: those of figures that are not there any more fall away at the front. */
const TICKS_KEPT = 180;

/** What of a job the day changes. */
export type DayOf = Pick<Job, 'shots' | 'products' | 'day'>;

/** The job after something was done at the table. What it does not have any more is passed over; done twice counts once. */
export function afterDayAction<J extends DayOf>(job: J, action: DayAction): J {
  if (action.kind === 'piece') {
    const { product, usedUp, freshAt } = action;
    const products = job.products.map((own) => {
      if (own.id !== product) return own;
      const { freshAt: _before, ...rest } = own;
      return { ...rest, usedUp, ...(freshAt === undefined ? {} : { freshAt }) };
    });
    return { ...job, products };
  }
  const own = job.shots.find(({ id }) => id === action.shot);
  if (!own) return job;
  const shots = job.shots.map((shot) => (shot === own ? afterOwn(shot, action) : shot));
  if (action.kind !== 'taken') return { ...job, shots };
  const { stands: _before, ...day } = job.day;
  return { ...job, shots, day: action.stands === undefined ? day : { ...day, stands: action.stands } };
}

type Shot = Job['shots'][number];

function afterOwn(shot: Shot, action: Exclude<DayAction, { kind: 'piece' }>): Shot {
  switch (action.kind) {
    case 'step': {
      const others = shot.built.filter((key) => key !== action.step);
      const built = action.done ? [...others, action.step].slice(-TICKS_KEPT) : others;
      return { ...shot, built, ...(action.done ? { begunAt: shot.begunAt ?? action.at } : {}) };
    }
    case 'taken': {
      const { takenAt: _before, ...rest } = shot;
      return { ...rest, done: action.done, ...(action.done ? { takenAt: action.at } : {}) };
    }
    case 'tries':
      return { ...shot, tries: action.tries };
  }
}

/** The job as before its day: nothing built, tried, taken or used up. */
export function beforeItsDay<J extends DayOf>(job: J): J {
  const { stands: _stands, ...day } = job.day;
  return {
    ...job,
    day,
    products: job.products.map(({ freshAt: _fresh, ...product }) => ({ ...product, usedUp: 0 })),
    shots: job.shots.map(({ begunAt: _begun, takenAt: _taken, ...shot }) => ({
      ...shot,
      done: false,
      tries: 0,
      built: [],
    })),
  };
}

/** Minutes that a picture took from its first step until it was taken; null where that was not told. */
export function minutesTaken({ begunAt, takenAt }: Pick<Shot, 'begunAt' | 'takenAt'>): number | null {
  if (begunAt === undefined || takenAt === undefined) return null;
  const minutes = (Date.parse(takenAt) - Date.parse(begunAt)) / 60_000;
  return minutes >= 0 ? minutes : null;
}
