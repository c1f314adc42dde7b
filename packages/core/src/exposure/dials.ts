import type { Light } from '@fendrix/contract';
import { dialGives } from '../photometry/output.js';
import { formatPower } from './flash.js';

/** One power, said in the ways that heads say it. */
export interface PowerWords {
  /** "1/4 −0.3". */
  fraction: string;
  /** Joules (watt-seconds) for a flash given by its energy, null otherwise. */
  wattSeconds: number | null;
  /** On a dial whose highest figure is full power and whose units are whole stops, in tenths. */
  numbered: string;
}

/** Highest figure of a numbered dial where nothing else is said. */
export const FULL_ON_DIAL = 10;

/** A power in watt-seconds, as a fraction and on a numbered dial. @param fullOnDial figure that means full power */
export function powerWords(light: Light, powerStops: number, fullOnDial = FULL_ON_DIAL): PowerWords {
  const { output } = light;
  return {
    fraction: formatPower(powerStops),
    wattSeconds: output.kind === 'flash-energy' ? output.energyJ * 2 ** powerStops : null,
    numbered: (fullOnDial + powerStops).toFixed(1),
  };
}

/**
 * Stops from full of a power as typed: "1/4", "1/4 -0.3", "100 Ws", "100 J", "8.3" on a numbered dial, "-1.3".
 * @returns null for what is no power, or above full
 */
export function parsePower(text: string, light: Light, fullOnDial = FULL_ON_DIAL): number | null {
  const stops = readPower(text.trim().replaceAll('−', '-'), light, fullOnDial);
  return stops !== null && stops <= 1e-9 && stops >= -20 ? Math.min(0, stops) : null;
}

function readPower(text: string, { output }: Light, fullOnDial: number): number | null {
  const joules = /^(\d+(?:[.,]\d+)?)\s*(?:ws|j)$/i.exec(text);
  if (joules) {
    const energy = Number(joules[1]?.replace(',', '.'));
    return output.kind === 'flash-energy' && energy > 0 ? Math.log2(energy / output.energyJ) : null;
  }
  const fraction = /^1\/(\d+(?:\.\d+)?)(?:\s*([+-])\s*(\d+(?:\.\d+)?))?$/.exec(text);
  if (fraction) {
    const part = Number(fraction[1]);
    if (!(part > 0)) return null;
    const more = Number(fraction[3] ?? 0) * (fraction[2] === '+' ? 1 : -1);
    return -Math.log2(part) + more;
  }
  if (text === 'full') return 0;
  if (/^-\d+(?:\.\d+)?$/.test(text)) return Number(text);
  return /^\d+(?:\.\d+)?$/.test(text) ? Number(text) - fullOnDial : null;
}

/** The setting of a light's dial at which it gives so many stops more than now, as near as the dial has it. */
export const brighter = (light: Light, byStops: number): number =>
  onDial(light, light.powerStops + byStops / dialGives(light));

/** The setting of a light's dial nearest to a power, stops from full: within its range, on its steps. */
export function onDial({ dial }: Light, powerStops: number): number {
  const least = dial?.leastStops ?? -20;
  const step = dial?.stepStops ?? 0.01;
  const kept = Math.max(least, Math.min(0, powerStops));
  return Math.max(least, Math.min(0, Number((Math.round(kept / step) * step).toFixed(4))));
}
