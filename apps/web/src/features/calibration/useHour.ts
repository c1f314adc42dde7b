import type { CalibrationHour, CardReading, Kit } from '@fendrix/contract';
import { canBeCalibrated, type HourLight, type HourStep, hourSteps } from '@fendrix/core';
import { useMemo } from 'react';
import { equipmentOf, useKitChanges } from '../kit';

/** The hour that a kit keeps, or one that nothing was read in. */
function hourOf(kit: Kit): CalibrationHour {
  const { bodies, lenses } = equipmentOf(kit);
  const [body, lens] = [bodies[0], lenses.at(-1)];
  return (
    kit.calibration ?? {
      body: body?.id ?? 'body',
      lens: lens?.id ?? 'lens',
      focalLengthM: lens?.longestM ?? 0.1,
      whiteBalanceK: 5500,
      cardReflectance: 0.18,
      lights: [],
      readings: [],
    }
  );
}

/** The calibration of the kit: what is read with, what is to be read, what was read. Null while the kit is read. */
export function useHour() {
  const { kit, change, saving } = useKitChanges();
  const found = useMemo(() => {
    if (!kit) return null;
    const hour = hourOf(kit);
    const lights = lightsOf(kit);
    const chosen = hour.lights.flatMap((id): HourLight[] => {
      const own = lights.find((one) => one.entry === id);
      return own ? [own] : [];
    });
    const lens = equipmentOf(kit).lenses.find(({ id }) => id === hour.lens);
    return { kit, hour, lights, steps: hourSteps(hour, chosen, lens ?? {}) };
  }, [kit]);
  const changeHour = (words: string | null, work: (hour: CalibrationHour) => CalibrationHour) =>
    change(words, (all) => ({ ...all, calibration: work(hourOf(all)) }));
  return {
    found,
    saving,
    change,
    changeHour,
    /** Keeps a reading of a step in place of an earlier one. */
    keep: (
      step: HourStep,
      read: Pick<CardReading, 'rgb' | 'luxSeconds' | 'frame'> & Partial<CardReading>,
    ) => {
      const { for: _, ...plan } = step;
      return changeHour(null, (hour) => ({
        ...hour,
        readings: [...hour.readings.filter(({ id }) => id !== step.id), { ...plan, ...read }],
      }));
    },
    takeOut: (id: string) =>
      changeHour('The reading is taken out.', (hour) => ({
        ...hour,
        readings: hour.readings.filter((one) => one.id !== id),
      })),
  };
}

/** Lights that a card tells something of, by their figures before any calibration. */
function lightsOf({ entries }: Kit): (HourLight & { name: string; calibratedOn: string | null })[] {
  return entries.flatMap((entry) => {
    if (entry.what !== 'light') return [];
    const light = entry.calibrated?.before ?? entry.thing;
    return canBeCalibrated(light)
      ? [{ entry: entry.id, name: entry.name, light, calibratedOn: entry.calibrated?.on ?? null }]
      : [];
  });
}
