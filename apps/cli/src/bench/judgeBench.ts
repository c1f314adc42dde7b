import type { SetDocument } from '@fendrix/contract';
import { evidenceOf, judgeSet, prepareTracing, reportFault, traceView } from '@fendrix/core';
import { brokenSets, soundSets } from '@fendrix/demo/broken';

/** Paths by which sets are judged, and by which a cure is looked at again. */
const SAMPLES = 3;
const CHECK_SAMPLES = 8;

const traced = (samples: number) => (set: SetDocument) => traceView(prepareTracing(set), set, { samples });

/**
 * How honest the judges are: on sets with one known fault how often it is told first or second with the right cause, how often
 * the first cure holds when it is looked at again with more light, and how many verdicts sound sets call for.
 * @param shift of the seeds: 0 are those that limits were chosen by  @param cures whether cures are tried, which takes minutes
 */
export function judgeBench(shift: number, cures: boolean) {
  const check = cures ? traced(CHECK_SAMPLES) : null;
  const reports = brokenSets(shift).map(({ name, set, ...fault }) => ({
    name,
    ...fault,
    ...reportFault(set, fault, { trace: traced(SAMPLES), check }),
  }));
  const sound = soundSets().map(({ name, set }) => ({
    name,
    alarms: judgeSet(evidenceOf(set, traced(SAMPLES)(set))).map(({ id }) => id),
  }));
  const part = (of: readonly boolean[]) => of.filter(Boolean).length / Math.max(1, of.length);
  const alarms = sound.reduce((sum, one) => sum + one.alarms.length, 0);
  return {
    shift,
    broken: reports.length,
    foundPart: part(reports.map(({ found }) => found)),
    curedPart: cures ? part(reports.map(({ cured }) => cured === true)) : null,
    sound: sound.length,
    alarmsPerSoundSet: alarms / Math.max(1, sound.length),
    mostAlarms: Math.max(...sound.map((one) => one.alarms.length)),
    notFound: reports.filter(({ found }) => !found).map(({ name, code }) => `${code}: ${name}`),
    notCured: reports.filter(({ cured }) => cured === false).map(({ name, code }) => `${code}: ${name}`),
    falseAlarms: sound.filter((one) => one.alarms.length > 0),
  };
}
