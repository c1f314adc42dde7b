import type { ThingKind } from '@fendrix/core';

/** What it means that one thing stands in for another that is missing in the kit. */
export function standInWords(missing: ThingKind, instead: ThingKind): string {
  const own = STAND_INS[missing]?.[instead];
  return own ?? 'another size of the same: nearer or farther keeps its look';
}

const STAND_INS: Readonly<Partial<Record<ThingKind, Partial<Record<ThingKind, string>>>>> = {
  softbox: {
    octa: 'rounder edge of the highlight',
    umbrella: 'as soft, spills more: flag it',
    frame: 'a lamp behind frost of this size',
    card: 'a lamp turned into a white card of this size',
  },
  dish: {
    snoot: 'harder and narrower',
    softbox: 'with a grid, from farther',
  },
  panel: {
    softbox: 'flash in place of lasting light: the shutter no longer counts',
  },
  projector: {
    snoot: 'a plain spot; cut the shape out of card',
  },
  ring: {
    softbox: 'behind the lens, with a lens-hole card',
  },
  octa: {
    softbox: 'square edge of the highlight',
    umbrella: 'as soft, spills more: flag it',
  },
  umbrella: {
    softbox: 'as soft, spills less',
    card: 'a lamp turned into a white card',
  },
  frame: {
    roof: 'hung upright',
    card: 'tracing paper on a frame of card',
  },
  flag: {
    card: 'its black side',
  },
  card: {
    disc: 'a reflector of this size',
    fold: 'one wing of it',
  },
};
