import { targetVerdicts } from '../../judge/targets.js';
import { allByStops, byStops, those } from '../changes/changes.js';
import type { Evidence } from '../evidence.js';
import { beyond } from '../found.js';
import type { Cause, Judge } from '../verdict.js';
import { apart } from '../working.js';

/** A pinned spot that is off the tone wanted there. */
export const toneMissed: Judge<'tone-missed'> = {
  code: 'tone-missed',
  judge: (evidence) =>
    targetVerdicts(evidence.set.spots, evidence.readings).flatMap(
      ({ name, missing, stops, from: lowest, to }) => {
        if (missing === 0) return [];
        const error = evidence.readings.find((reading) => reading.name === name)?.standardErrorStops ?? 0;
        return beyond(evidence.limits, 'tone-missed', { value: Math.abs(missing), error }, () => ({
          of: { kind: 'product', key: name, name },
          places: [],
          causes: spotCauses(evidence, name),
          working: apart({ spotTone: stops ?? Number.NaN, spotWanted: missing > 0 ? lowest : to }),
        }));
      },
    ),
  cures({ set, readings }, { of, causes }) {
    const missing = targetVerdicts(set.spots, readings).find(({ name }) => name === of?.key)?.missing ?? 0;
    return those(
      ...causes.slice(0, 2).map(({ thing, part }) => {
        const left = part ? (2 ** missing - (1 - part)) / part : 0;
        return left > 0.01 ? byStops(set, thing.key, Math.log2(left)) : null;
      }),
      allByStops(set, missing),
    );
  },
};

/** Lights by what each alone records there. */
function spotCauses({ readings, set }: Evidence, name: string): Cause[] {
  const lights = readings.find((reading) => reading.name === name)?.lights ?? [];
  const amounts = lights.map((light) =>
    light.on && light.stopsFromMidTone !== null ? 2 ** light.stopsFromMidTone : 0,
  );
  const whole = amounts.reduce((sum, amount) => sum + amount, 0);
  if (!(whole > 0)) return [];
  return lights
    .map(({ tag }, i) => ({
      thing: {
        kind: 'light' as const,
        key: tag,
        name: set.lights.find((own) => own.tag === tag)?.name ?? tag,
      },
      part: (amounts[i] as number) / whole,
    }))
    .filter(({ part }) => part >= 0.01)
    .sort((a, b) => b.part - a.part);
}
