import type { Calibration, Kit, KitEntry } from '@fendrix/contract';
import type { KitLight } from '../plan/kitLight.js';
import {
  calibratedLight,
  calibratedLosses,
  calibratedResponse,
  type LightFigure,
} from './applyCalibration.js';

/** What of a calibration is taken over. */
export interface TakenOver {
  /** By entry of the kit. */
  lights: Readonly<Record<string, readonly LightFigure[]>>;
  body: boolean;
  lens: boolean;
}

/**
 * The kit with what an hour found in place of its figures; those from before are kept for the reset, and are what a second hour starts from.
 * @param on day, ISO 8601
 */
export function calibrateKit(kit: Kit, found: Calibration, taken: TakenOver, on: string): Kit {
  const { body, lens } = kit.calibration ?? {};
  const response = calibratedResponse(found);
  const losses = calibratedLosses(found);
  const entries = kit.entries.map((entry): KitEntry => {
    if (entry.what === 'light') {
      const own = found.lights.find((one) => one.entry === entry.id);
      const figures = taken.lights[entry.id] ?? [];
      if (!own || figures.length === 0) return entry;
      const before = entry.calibrated?.before ?? entry.thing;
      return {
        ...entry,
        thing: calibratedLight(before as KitLight, own, figures),
        calibrated: { on, before },
      };
    }
    if (entry.what !== 'equipment') return entry;
    const before = entry.calibrated?.before ?? entry.thing;
    if (taken.body && response && entry.id === body && before.kind === 'body')
      return { ...entry, thing: { ...before, response }, calibrated: { on, before } };
    if (taken.lens && losses && entry.id === lens && before.kind === 'lens')
      return { ...entry, thing: { ...before, losses }, calibrated: { on, before } };
    return entry;
  });
  return { ...kit, entries };
}

/** The kit with the figures from before any calibration. */
export function resetCalibration(kit: Kit): Kit {
  const entries = kit.entries.map((entry): KitEntry => {
    if (!('calibrated' in entry) || !entry.calibrated) return entry;
    const { calibrated, ...own } = entry;
    return { ...own, thing: calibrated.before } as KitEntry;
  });
  return { ...kit, entries };
}
