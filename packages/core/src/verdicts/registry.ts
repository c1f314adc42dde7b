import { burnt } from './kinds/burnt.js';
import { darkHole } from './kinds/darkHole.js';
import { edgeLost } from './kinds/edgeLost.js';
import { groundNotBlack, groundNotWhite, groundOffGrey, groundTooWhite } from './kinds/grounds.js';
import { highlightNarrow, highlightUneven } from './kinds/highlights.js';
import { hotLamp } from './kinds/hotLamp.js';
import { lostInBlack } from './kinds/lostInBlack.js';
import { mixedColour } from './kinds/mixedColour.js';
import { notSharp } from './kinds/notSharp.js';
import { overSync } from './kinds/overSync.js';
import { roomLight } from './kinds/roomLight.js';
import { seenInProduct } from './kinds/seenInProduct.js';
import { thingInFrame } from './kinds/thingInFrame.js';
import { toneMissed } from './kinds/toneMissed.js';
import type { VerdictCode } from './thresholds.js';
import type { Judge } from './verdict.js';

/** All judges, by what they find. */
export const JUDGES: { readonly [C in VerdictCode]: Judge<C> } = {
  'hot-lamp': hotLamp,
  'over-sync': overSync,
  'thing-in-frame': thingInFrame,
  'not-sharp': notSharp,
  burnt,
  'lost-in-black': lostInBlack,
  'edge-lost': edgeLost,
  'seen-in-product': seenInProduct,
  'dark-hole': darkHole,
  'ground-not-white': groundNotWhite,
  'ground-too-white': groundTooWhite,
  'ground-not-black': groundNotBlack,
  'ground-off-grey': groundOffGrey,
  'mixed-colour': mixedColour,
  'room-light': roomLight,
  'highlight-narrow': highlightNarrow,
  'highlight-uneven': highlightUneven,
  'tone-missed': toneMissed,
};
