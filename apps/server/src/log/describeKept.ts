import type { Job, SetDocument, Shot } from '@fendrix/contract';
import { minutesTaken } from '@fendrix/core';
import { WISH_WORDS } from '@fendrix/words';

/** What an entry takes from its job and picture: it changes with them. */
export function ofPicture(job: Job, shot: Shot) {
  return {
    jobName: job.name,
    client: job.client,
    shotName: shot.name,
    look: shot.look,
    begunAt: shot.begunAt ?? null,
    minutes: minutesTaken(shot),
    plannedMinutes: shot.minutes,
  };
}

/** What an entry takes from its set: as that was when the frame was kept. */
export function ofSet(set: SetDocument) {
  return {
    products: set.products.map(({ name }) => name),
    lights: set.lights.filter(({ on }) => on).map(({ name }) => name),
    tone: `${WISH_WORDS.mood.choices[set.wishes.mood]} mood, background ${WISH_WORDS.ground.choices[set.wishes.ground]}`,
    setName: set.name,
  };
}

/** All that is searched of an entry, in small letters. */
export const searchedWords = ({
  jobName,
  client,
  shotName,
  look,
  products,
  lights,
  tone,
  setName,
}: Omit<ReturnType<typeof ofPicture>, 'begunAt' | 'minutes' | 'plannedMinutes'> &
  ReturnType<typeof ofSet>): string =>
  [jobName, client, shotName, look, ...products, ...lights, tone, setName].join(' · ').toLowerCase();
