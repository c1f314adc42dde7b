import {
  atTheEdge,
  horizonThrough,
  noRoomForWords,
  offCentre,
  tilted,
  touching,
} from './kinds/arrangement.js';
import { burnt } from './kinds/burnt.js';
import { circuitOver } from './kinds/circuitOver.js';
import { darkHole } from './kinds/darkHole.js';
import { edgeLost } from './kinds/edgeLost.js';
import { contrastOff, flat } from './kinds/flat.js';
import { glassBase, liquidDull, liquidUneven, thickRims } from './kinds/glass.js';
import { groundGradient } from './kinds/groundGradient.js';
import { groundSharp } from './kinds/groundSharp.js';
import { groundNotBlack, groundNotWhite, groundOffGrey, groundTooWhite } from './kinds/grounds.js';
import {
  highlightBent,
  highlightBroken,
  highlightDoubled,
  highlightHard,
  highlightHot,
} from './kinds/highlightShapes.js';
import { highlightNarrow, highlightUneven } from './kinds/highlights.js';
import { highlightWidth } from './kinds/highlightWidth.js';
import { hotLamp } from './kinds/hotLamp.js';
import { labelDark, labelTurned, wordsGlare } from './kinds/labels.js';
import { lightInLens } from './kinds/lightInLens.js';
import { lostInBlack } from './kinds/lostInBlack.js';
import { mixedColour } from './kinds/mixedColour.js';
import { moves, shaken } from './kinds/movement.js';
import { notPickedOut } from './kinds/notPickedOut.js';
import { notRaked } from './kinds/notRaked.js';
import { notSharp } from './kinds/notSharp.js';
import { overSync } from './kinds/overSync.js';
import { productDark } from './kinds/productDark.js';
import { roomLight } from './kinds/roomLight.js';
import { layUneven, rowLine, rowMirrored, rowSpacing, rowUneven } from './kinds/rowsOfProducts.js';
import { seenInProduct } from './kinds/seenInProduct.js';
import { shadowDirection } from './kinds/shadowDirection.js';
import { shadowAcross, shadowDeep, shadowDoubled, shadowHard, shadowUnwanted } from './kinds/shadows.js';
import { thingInFrame } from './kinds/thingInFrame.js';
import { toneMissed } from './kinds/toneMissed.js';
import { unlikeAngle, unlikeColour, unlikePlace, unlikeSize, unlikeTone } from './kinds/unlike.js';
import type { VerdictCode } from './thresholds.js';
import type { Judge } from './verdict.js';

/** All judges, by what they find. */
export const JUDGES: { readonly [C in VerdictCode]: Judge<C> } = {
  'hot-lamp': hotLamp,
  'over-sync': overSync,
  'thing-in-frame': thingInFrame,
  'not-sharp': notSharp,
  burnt,
  'product-dark': productDark,
  'lost-in-black': lostInBlack,
  'edge-lost': edgeLost,
  'seen-in-product': seenInProduct,
  'dark-hole': darkHole,
  'ground-not-white': groundNotWhite,
  'ground-too-white': groundTooWhite,
  'ground-not-black': groundNotBlack,
  'ground-off-grey': groundOffGrey,
  'ground-gradient': groundGradient,
  'ground-sharp': groundSharp,
  'mixed-colour': mixedColour,
  'room-light': roomLight,
  'highlight-narrow': highlightNarrow,
  'highlight-uneven': highlightUneven,
  'tone-missed': toneMissed,
  'words-glare': wordsGlare,
  'label-dark': labelDark,
  'label-turned': labelTurned,
  'highlight-bent': highlightBent,
  'highlight-broken': highlightBroken,
  'highlight-doubled': highlightDoubled,
  'highlight-width': highlightWidth,
  'highlight-hot': highlightHot,
  'highlight-hard': highlightHard,
  'glass-base': glassBase,
  'thick-rims': thickRims,
  'liquid-dull': liquidDull,
  'liquid-uneven': liquidUneven,
  'shadow-deep': shadowDeep,
  'shadow-unwanted': shadowUnwanted,
  'shadow-hard': shadowHard,
  'shadow-doubled': shadowDoubled,
  'shadow-direction': shadowDirection,
  'shadow-across': shadowAcross,
  'light-in-lens': lightInLens,
  moves,
  shaken,
  flat,
  'contrast-off': contrastOff,
  'lay-uneven': layUneven,
  'row-uneven': rowUneven,
  'row-spacing': rowSpacing,
  'row-line': rowLine,
  'row-mirrored': rowMirrored,
  touching,
  'at-the-edge': atTheEdge,
  'no-room-for-words': noRoomForWords,
  'horizon-through': horizonThrough,
  'off-centre': offCentre,
  tilted,
  'not-raked': notRaked,
  'not-picked-out': notPickedOut,
  'unlike-size': unlikeSize,
  'unlike-place': unlikePlace,
  'unlike-angle': unlikeAngle,
  'unlike-tone': unlikeTone,
  'unlike-colour': unlikeColour,
  'circuit-over': circuitOver,
};
