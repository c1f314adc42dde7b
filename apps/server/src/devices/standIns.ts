import { EventEmitter } from 'node:events';
import type {
  Devices,
  StandInCamera,
  StandInRail,
  StandInTrigger,
  StandInTurntable,
  takeFramesBody,
} from '@fendrix/contract';
import type { z } from 'zod';
import type { JobStore } from '../domain/jobs.js';
import type { KitStore } from '../domain/kit.js';
import type { SetStore } from '../domain/sets.js';
import { type Camera, createCamera } from './camera.js';
import { createMeter, type Meter } from './meter.js';
import { createMovers } from './movers.js';
import { createPieces } from './pieces.js';
import type { SetLight } from './setLight.js';
import { createTrigger } from './trigger.js';

/** All stand-ins for outside devices, and whoever is told when one of them changes. */
export interface StandIns {
  state(): Devices;
  setCamera(state: StandInCamera): void;
  setTrigger(state: StandInTrigger): void;
  setTurntable(state: StandInTurntable): void;
  setRail(state: StandInRail): void;
  take(what: z.output<typeof takeFramesBody>): Promise<string[]>;
  live: Camera['live'];
  readMeter: Meter['read'];
  /** @returns what ends it */
  onChange(listener: (state: Devices) => void): () => void;
}

export function createStandIns(
  stores: { jobs: JobStore; sets: SetStore; kit: KitStore },
  light: SetLight,
  folder: string,
): StandIns {
  const trigger = createTrigger();
  const pieces = createPieces(stores.kit);
  const movers = createMovers();
  const camera = createCamera(stores, light, folder, { trigger, movers, pieces });
  const meter = createMeter(stores, light, () => camera.state(), { trigger, pieces });
  const changes = new EventEmitter<{ change: [Devices] }>();
  changes.setMaxListeners(0);
  let taking: Devices['taking'] = null;
  let misfired: string[] = [];
  const state = (): Devices => ({
    camera: camera.state(),
    trigger: trigger.state(),
    turntable: movers.turntable(),
    rail: movers.rail(),
    taking,
    misfired,
  });
  const tell = () => changes.emit('change', state());
  const told =
    <T>(set: (next: T) => void) =>
    (next: T) => {
      set(next);
      tell();
    };

  return {
    state,
    setCamera: told(camera.set),
    setTrigger: told(trigger.set),
    setTurntable: told(movers.setTurntable),
    setRail: told(movers.setRail),
    async take(what) {
      const of = (what.turnsDeg ?? what.railM ?? [0]).length * what.bracketStops.length;
      taking = { done: 0, of };
      misfired = [];
      tell();
      try {
        return await camera.take(what, (done, all, missing) => {
          taking = { done, of: all };
          misfired = missing;
          tell();
        });
      } finally {
        taking = null;
        tell();
      }
    },
    live: camera.live,
    readMeter: meter.read,
    onChange(listener) {
      changes.on('change', listener);
      return () => changes.off('change', listener);
    },
  };
}
