import type { PrintedWedge } from '@fendrix/contract';
import { WEDGE_GREYS } from '../calibrate/fitPrinter.js';
import { decodeSrgb } from '../exposure/display.js';
import { createNormal } from './asItStands.js';
import { ownRecorder } from './ownGear.js';
import { recordedValue, USUAL_RECORDER } from './recordFrame.js';

/** Ink, paper and how the steps between them are laid: usual spreads between printers and papers, one deviation. */
const PRINTERS_DIFFER = { ink: 0.25, paper: 0.03, power: 0.15 };
const USUAL = { ink: 0.035, paper: 0.84 };
/** How unevenly a sheet is lit from left to right and from top to bottom, stops, and patches of one value are printed, part. */
const SHEET = { acrossStops: 0.15, upStops: 0.1, printed: 0.004 };
/** Bare paper is exposed to this part of paper white. */
const PAPER_AT = 0.7;

/** What this printer makes of a value of 255; the usual one for seed 0. */
export function ownPrinter(seed: number): (grey: number) => number {
  const normal = seed > 0 ? createNormal(seed ^ 0x70726e74) : () => 0;
  const ink = USUAL.ink * 2 ** (PRINTERS_DIFFER.ink * normal());
  const paper = Math.min(0.92, USUAL.paper * (1 + PRINTERS_DIFFER.paper * normal()));
  const power = 2 ** (PRINTERS_DIFFER.power * normal());
  return (grey) => ink + (paper - ink) * decodeSrgb(grey / 255) ** power;
}

/** The wedge of this printer beside a card as this camera sees them, lit not quite evenly. @param count of the frame, so that two differ */
export function ownWedge(seed: number, count: number, cardReflectance: number): PrintedWedge {
  const normal = createNormal((seed * 7919 + count) | 0);
  const printed = ownPrinter(seed);
  const { response } = seed > 0 ? ownRecorder(seed) : USUAL_RECORDER;
  const [across, up] = [SHEET.acrossStops * normal(), SHEET.upStops * normal()];
  const shown = (reflectance: number, right: number, upper: number) => {
    const light = (PAPER_AT * reflectance * 2 ** (across * right + up * upper)) / USUAL.paper;
    const uneven = 1 + SHEET.printed * normal();
    return Math.round(10 * 255 * recordedValue(light * uneven, response)) / 10;
  };
  const last = WEDGE_GREYS.length - 1;
  return {
    cardReflectance,
    card: shown(cardReflectance, 0, 0),
    patches: WEDGE_GREYS.map((grey, i) => {
      const right = (2 * i) / last - 1;
      return {
        grey,
        upper: shown(printed(grey), right / 2, 0.5),
        lower: shown(printed(grey), -right / 2, -0.5),
      };
    }),
  };
}
