import type { SetDocument } from '@fendrix/contract';
import { formatLength, type ProductCaution, type SetCaution } from '@fendrix/core';

/** A caution of a set, as it is shown. */
export function setCautionWords(caution: SetCaution): string {
  switch (caution.code) {
    case 'hot-lamp': {
      const { light, near } = caution;
      return near
        ? `${light} is a hot lamp ${formatLength(near.awayM)} from ${near.kind} ${near.tag}: paper and cloth scorch and burn. Give it more room, never leave it on alone, let it cool before moving it.`
        : `${light} is a hot lamp: half a metre from paper, cloth and skin, never left on alone, cooled before it is moved.`;
    }
    case 'hazard':
      return HAZARDS[caution.hazard];
    case 'flash-with-people':
      return 'Flash with people about: ask whether anyone is sensitive to flashes before the first one.';
    case 'circuit': {
      const { drawW, without, mostW, breakerA, mainsV } = caution;
      const unknown = without.length > 0 ? `, without ${without.join(', ')}, whose draw is not given` : '';
      return `The lights that are on draw ${Math.round(drawW)} W${unknown}; one circuit lasts ${mostW} W (80 % of ${breakerA} A at ${mainsV} V). Put some on another circuit, or switch modelling lamps off.`;
    }
    case 'overhead': {
      const what = [caution.lights.join(', '), caution.camera ? 'the camera' : ''].filter(Boolean);
      return `Above the table: ${what.join(' and ')}. Boom with counterweight, sandbag and safety line, nobody's head below.`;
    }
    case 'head-height':
      return `At head height: ${caution.lights.join(', ')}. Mark the corners with something bright, sandbag the stand, tape its cable down.`;
    case 'high-camera':
      return `The camera is ${formatLength(caution.aboveFloorM)} above the floor: legs out first and the centre column down, a bag on its hook, and a step ladder to look through it.`;
    case 'liquid':
      return 'Liquid on the set: residual-current device, drip loops, packs and joints off the floor, dry hands. Flash heads and packs hold their charge: never open them.';
  }
}

const HAZARDS: Record<SetDocument['hazards'][number], string> = {
  flame:
    'Open flame: nothing that burns within an arm and nothing above it, extinguisher and fire blanket at hand, never alone, out before the next change.',
  'dry-ice':
    'Dry ice: thick gloves and tongs, windows open since its gas settles low and takes the air, never in a closed vessel, never in a drink that is drunk.',
  spray:
    'Sprays and dulling spray: window open, no flame or hot lamp near, not on food, not towards lens, lamps or faces; test where it does not show.',
  photosensitive:
    'Flashes can harm people who are sensitive to them: say so before the first one, no modelling strobe, no bursts, and let them leave the room.',
};

/** A caution of a product, as it is shown. */
export const productCautionWords: Record<ProductCaution, string> = {
  glass: 'Glass breaks: carry it in two hands, clear the path, sweep up before anyone kneels.',
  knives:
    'Knives lie flat with the edge away, and go back after each cut. Food that was glued, painted, oiled with anything not for eating, or left warm is not eaten.',
  liquid:
    'Liquids near electricity: lights above and away, drip loops in the cables, a residual-current device, dry hands.',
  'small-pieces':
    'Count small pieces out and in; hot glue and solvents mark stones and plating, and want air.',
  heat: 'It does not bear heat: flash or LED rather than hot lamps, modelling lamps off, and it comes on set last.',
  steam: 'Steam and irons burn skin and mark cloth: test on a seam, stand them upright, unplug them.',
};
