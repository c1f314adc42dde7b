import type { Verdict, VerdictCode } from '@fendrix/core';
import { figureWords } from './verdictFigures.js';

/** What is told of a verdict. */
export type Told = Pick<Verdict, 'code' | 'of' | 'figure'>;

interface VerdictWords {
  /** What is wrong, in few words. */
  title(verdict: Told): string;
  /** How much, and what would be well, with the user's own figures. */
  figures(verdict: Told): string;
  /** Why the limit is where it is. */
  why: string;
}

const nameOf = ({ of }: Told): string => (of ? `“${of.name}”` : 'the picture');
/** Lights by their tag; the name of a sheet has its tag in it. */
const tagOf = ({ of }: Told): string =>
  !of ? 'Something' : of.kind === 'light' ? `Light ${of.key}` : of.name;
const value = ({ figure }: Told) => figureWords(figure);
const limit = ({ figure }: Told) => figureWords({ ...figure, value: figure.limit });
const steps = (stops: number) => Math.abs(stops).toFixed(1);

/** The words of each kind of verdict. */
export const VERDICT_WORDS: Readonly<Record<VerdictCode, VerdictWords>> = {
  'hot-lamp': {
    title: (verdict) => `${tagOf(verdict)} is a hot lamp too near to a sheet`,
    figures: (verdict) =>
      `${value(verdict)} away; ${limit(verdict)} or more keeps paper and cloth from scorching.`,
    why: 'A halogen or filament lamp scorches paper and cloth within half a metre. What is printed on the lamp comes first, and local codes.',
  },
  'over-sync': {
    title: () => 'The shutter is too fast for the flash',
    figures: (verdict) =>
      `${steps(verdict.figure.value)} stops faster than the flash sync of this body: a part of the frame stays dark.`,
    why: 'Faster than its sync the shutter is never wholly open.',
  },
  'thing-in-frame': {
    title: (verdict) => `${tagOf(verdict)} is in the frame`,
    figures: (verdict) => `${value(verdict)} of what is kept of the frame.`,
    why: 'Counted within the crops where there are any, otherwise in the whole frame.',
  },
  'not-sharp': {
    title: (verdict) => `${nameOf(verdict)} is not sharp from front to back`,
    figures: (verdict) =>
      `Its nearest or farthest part is blurred over ${value(verdict)}; up to ${limit(verdict)} is sharp at the usual size.`,
    why: 'Blur by the circle of confusion on this sensor. Round things are counted to their outline.',
  },
  burnt: {
    title: (verdict) => `${nameOf(verdict)} is burnt out`,
    figures: (verdict) =>
      `${value(verdict)} of its own surface is paper white or more; ${limit(verdict)} may be.`,
    why: 'Images of lights and cards, and what is seen through glass, are not counted: they may be white.',
  },
  'product-dark': {
    title: (verdict) => `${nameOf(verdict)} is too dark`,
    figures: (verdict) =>
      `Where it is lit best it is ${steps(verdict.figure.value)} stops under its own tone in full light; ${steps(verdict.figure.limit)} may be.`,
    why: 'In full light a grey of 18 % is mid-tone. In dark pictures a stop less is meant. Metal, glass and labels are not counted.',
  },
  'lost-in-black': {
    title: (verdict) => `${nameOf(verdict)} is lost in black`,
    figures: (verdict) =>
      `${value(verdict)} of its own surface is darker than the darkest tone that is wished; ${limit(verdict)} may be.`,
    why: 'The darkest tone is one of the wishes. Products that are black themselves are not counted.',
  },
  'edge-lost': {
    title: (verdict) => `The edge of ${nameOf(verdict)} is lost in what is behind it`,
    figures: (verdict) =>
      `Along ${value(verdict)} of its outline the step is under a third of a stop; ${limit(verdict)} may be.`,
    why: 'An edge with less than a third of a stop against its ground is not seen.',
  },
  'seen-in-product': {
    title: (verdict) => `What should not be seen is mirrored in ${nameOf(verdict)}`,
    figures: (verdict) => `${value(verdict)} of what mirrors of it; ${limit(verdict)} is hardly found.`,
    why: 'Camera, tripod, persons and stands, where the surface sends back an eighth of the light or more.',
  },
  'dark-hole': {
    title: (verdict) => `${nameOf(verdict)} has a dark hole`,
    figures: (verdict) =>
      `${value(verdict)} of its mirroring surface shows nothing bright; ${limit(verdict)} may be.`,
    why: 'Metal is as bright as what it mirrors: four stops under mid-tone it looks like a hole.',
  },
  'ground-not-white': {
    title: () => 'The background is not white',
    figures: (verdict) => `It is at ${value(verdict)}; paper white is ${limit(verdict)}.`,
    why: 'Mean of all that is seen of background and walls.',
  },
  'ground-too-white': {
    title: () => 'The background is whiter than helps',
    figures: (verdict) =>
      `${value(verdict)} over the white of the products; half to ${steps(verdict.figure.limit)} is white.`,
    why: 'More light from behind wraps round the edges and veils the dark.',
  },
  'ground-not-black': {
    title: () => 'The background is not black',
    figures: (verdict) => `It is at ${value(verdict)}; black is ${limit(verdict)} or less.`,
    why: 'Five stops under mid-tone are black in print and on screens.',
  },
  'ground-off-grey': {
    title: () => 'The background is not the grey that is wished',
    figures: (verdict) =>
      `${steps(verdict.figure.value)} stops off; ${steps(verdict.figure.limit)} is not seen.`,
    why: 'The tone of the grey is one of the wishes.',
  },
  'ground-gradient': {
    title: () => 'The background does not fade as wished',
    figures: (verdict) =>
      `One end is ${steps(verdict.figure.value)} stops off its tone; ${steps(verdict.figure.limit)} is not seen.`,
    why: 'The mean tone of the first and the last fifth of the background, the way it is to fade.',
  },
  'ground-sharp': {
    title: () => 'The background is too sharp',
    figures: (verdict) => `It is blurred over ${value(verdict)} of the width; ${limit(verdict)} is wished.`,
    why: 'Blur of the middle depth of the background, by the circle of confusion on this sensor.',
  },
  'mixed-colour': {
    title: (verdict) => `${tagOf(verdict)} has another colour than the white balance`,
    figures: (verdict) =>
      `A grey under it alone is off by ${value(verdict)}; ${limit(verdict)} is where it is seen beside other light.`,
    why: 'Colour difference CIEDE2000 of a mid grey. Lights that give under a tenth of the picture are not counted.',
  },
  'room-light': {
    title: () => 'Lasting light shows in the flash picture',
    figures: (verdict) =>
      `It is ${steps(verdict.figure.value)} stops under the flash; ${steps(verdict.figure.limit)} or more keeps it out.`,
    why: 'Four stops are a sixteenth: colour and blur of the room are then hardly seen.',
  },
  'highlight-narrow': {
    title: (verdict) => `The highlight on ${nameOf(verdict)} is narrow`,
    figures: (verdict) =>
      `${value(verdict)} of the width is within a stop of the brightest; ${limit(verdict)} is broad.`,
    why: 'Read across the product at the height of its mirror band.',
  },
  'highlight-uneven': {
    title: (verdict) => `The two sides of ${nameOf(verdict)} are not alike`,
    figures: (verdict) =>
      `Left and right agree to ${value(verdict)}; from ${limit(verdict)} on they look alike.`,
    why: 'Each column against its mirror image at the height of the mirror band.',
  },
  'tone-missed': {
    title: (verdict) => `Spot ${nameOf(verdict)} is off its tone`,
    figures: (verdict) => `${steps(verdict.figure.value)} stops off the tone that is wanted there.`,
    why: 'The tone wanted is set at the spot itself.',
  },
  'words-glare': {
    title: (verdict) => `The words on ${nameOf(verdict)} are under glare`,
    figures: (verdict) =>
      `On ${value(verdict)} of the label ink and paper are less than 4.5 to 1 apart; ${limit(verdict)} may be.`,
    why: 'What the label mirrors lies over ink and paper alike. 4.5 to 1 is what reading needs by WCAG 2.2.',
  },
  'label-dark': {
    title: (verdict) => `The label of ${nameOf(verdict)} is dark`,
    figures: (verdict) => `It is at ${value(verdict)}; ${limit(verdict)} or more is read at a glance.`,
    why: 'Mean tone of all labels of the product. Dark papers, and dark moods, are not counted.',
  },
  'label-turned': {
    title: (verdict) => `The label of ${nameOf(verdict)} is turned from the lens`,
    figures: (verdict) =>
      `Its middle is ${value(verdict)} off the lens; up to ${limit(verdict)} it looks straight.`,
    why: 'Bearing of the middle of the first label. One that wraps round has no middle.',
  },
  'highlight-bent': {
    title: (verdict) => `The highlight on ${nameOf(verdict)} is bent`,
    figures: (verdict) =>
      `Its middle wanders by ${value(verdict)} of the width either way; up to ${limit(verdict)} looks straight.`,
    why: 'Of the largest light or sheet mirrored along the straight side; shoulders and necks bend everything.',
  },
  'highlight-broken': {
    title: (verdict) => `The highlight on ${nameOf(verdict)} ends too early`,
    figures: (verdict) =>
      `It is missing on ${value(verdict)} of the straight side; ${limit(verdict)} may be.`,
    why: 'Rows of the straight side, top to bottom, without the largest light or sheet mirrored.',
  },
  'highlight-width': {
    title: (verdict) => `The highlight on ${nameOf(verdict)} is not as wide as is wished`,
    figures: (verdict) =>
      `Its width is ${value(verdict)} off the one that is wished; ${limit(verdict)} may be.`,
    why: 'Middle width of the mirrored light or sheet over the rows of the straight side that show it.',
  },
  'highlight-doubled': {
    title: (verdict) => `${nameOf(verdict)} has more than one highlight`,
    figures: (verdict) => `${value(verdict)} lights or sheets are mirrored; one strip is wished.`,
    why: 'Those that make at least a seventh of the largest one.',
  },
  'highlight-hot': {
    title: (verdict) => `The highlight on ${nameOf(verdict)} is hot in the middle`,
    figures: (verdict) =>
      `Its brightest place is ${steps(verdict.figure.value)} stops over its middle tone; up to ${steps(verdict.figure.limit)} looks even.`,
    why: 'Read across the largest image of a light or sheet, at the height of the mirror band.',
  },
  'highlight-hard': {
    title: (verdict) => `The highlight on ${nameOf(verdict)} has a hard edge`,
    figures: (verdict) => `It changes by ${value(verdict)}; up to ${steps(verdict.figure.limit)} fades.`,
    why: 'Read across the product at the height of its mirror band; the outline itself is left out.',
  },
  'glass-base': {
    title: (verdict) => `The light table fills the base of ${nameOf(verdict)}`,
    figures: (verdict) =>
      `${value(verdict)} of its base shows the table, and shows it light; ${limit(verdict)} may be.`,
    why: 'The lowest seventh of the glass, by what is seen through it.',
  },
  'thick-rims': {
    title: (verdict) => `The rims of ${nameOf(verdict)} are thick and black`,
    figures: (verdict) =>
      `The wider one takes ${value(verdict)} of the width; up to ${limit(verdict)} it is a line.`,
    why: 'Columns two stops and more under the middle one, at the height of the mirror band.',
  },
  'liquid-dull': {
    title: (verdict) => `The liquid in ${nameOf(verdict)} does not glow`,
    figures: (verdict) => `It is ${value(verdict)} against its label; it glows from ${limit(verdict)} on.`,
    why: 'Mean tone of the liquid against that of the labels, or half a stop under mid-tone; less what its own colour takes of white light.',
  },
  'liquid-uneven': {
    title: (verdict) => `The liquid in ${nameOf(verdict)} is light here and dark there`,
    figures: (verdict) =>
      `Its lightest and darkest fifths are ${steps(verdict.figure.value)} stops apart; ${steps(verdict.figure.limit)} may be.`,
    why: 'Of the whole liquid seen through glass. Its rims are a part of it.',
  },
  'shadow-deep': {
    title: () => 'The shadow is deep',
    figures: (verdict) =>
      `It is ${steps(verdict.figure.value)} stops under the lit ground beside it; a soft one is up to ${steps(verdict.figure.limit)}.`,
    why: 'The darkest fifth of the shadow of the light that gives the ground most.',
  },
  'shadow-unwanted': {
    title: () => 'There is a shadow, and none is wished',
    figures: (verdict) =>
      `It is ${steps(verdict.figure.value)} stops under the lit ground beside it; under ${steps(verdict.figure.limit)} it is hardly seen.`,
    why: 'The darkest fifth of the shadow of the light that gives the ground most.',
  },
  'shadow-hard': {
    title: () => 'The shadow has a hard edge',
    figures: (verdict) => `Its soft edge is ${value(verdict)} wide; from ${limit(verdict)} on it looks soft.`,
    why: 'The face of the light drawn through the top of the product. Lights behind frost are not counted.',
  },
  'shadow-doubled': {
    title: () => 'There is more than one shadow',
    figures: (verdict) => `${value(verdict)} shadows are seen apart from each other.`,
    why: 'Of lights that take half a stop or more with them, with a soft edge under 8 cm.',
  },
  'shadow-direction': {
    title: () => 'The shadow falls another way than is wished',
    figures: (verdict) => `It is ${value(verdict)} off; up to ${limit(verdict)} still reads as that way.`,
    why: 'On the table, away from the light that gives the ground most.',
  },
  'shadow-across': {
    title: (verdict) => `${nameOf(verdict)} stands in the shadow of another`,
    figures: (verdict) =>
      `${value(verdict)} of its lit side does not see the light; ${limit(verdict)} may be.`,
    why: 'By lines to the middle of the light that gives the product most.',
  },
  'light-in-lens': {
    title: (verdict) => `${tagOf(verdict)} shines into the lens`,
    figures: (verdict) =>
      `It veils the picture at ${value(verdict)}; under ${limit(verdict)} black stays black.`,
    why: 'A hundredth of the light on the front of the lens, spread over the frame: a coated lens without a hood.',
  },
  moves: {
    title: () => 'What falls is blurred',
    figures: (verdict) => `${value(verdict)} after a fall of 10 cm; up to ${limit(verdict)} stands still.`,
    why: 'By the light that shines longest of those that give a tenth of the picture or more.',
  },
  shaken: {
    title: () => 'Pressing the button shakes the picture',
    figures: (verdict) =>
      `The shutter is open for ${value(verdict)} under lasting light; a hand may press it up to ${limit(verdict)}.`,
    why: 'On a tripod too. Self-timer or cable leaves the camera alone.',
  },
  flat: {
    title: (verdict) => `${nameOf(verdict)} looks flat`,
    figures: (verdict) =>
      `Light and shade on it are ${steps(verdict.figure.value)} stops apart; from ${steps(verdict.figure.limit)} on they show its form.`,
    why: 'The lightest and darkest tenths of its own surface. Bright moods and smooth textures are not counted.',
  },
  'contrast-off': {
    title: (verdict) => `The contrast on ${nameOf(verdict)} is not the one that is wished`,
    figures: (verdict) =>
      `It is ${steps(verdict.figure.value)} stops off; ${steps(verdict.figure.limit)} is hardly seen.`,
    why: 'Light and shade are the lightest and darkest tenths of its own surface; the contrast is one of the wishes.',
  },
  'lay-uneven': {
    title: () => 'The light falls unevenly over the lay',
    figures: (verdict) =>
      `Its lightest and darkest ninths are ${steps(verdict.figure.value)} stops apart; up to ${steps(verdict.figure.limit)} looks even.`,
    why: 'Means of the ground in nine parts of the frame.',
  },
  'row-uneven': {
    title: () => 'The row is lit unevenly',
    figures: (verdict) =>
      `Its lightest and darkest products are ${steps(verdict.figure.value)} stops apart; up to ${steps(verdict.figure.limit)} looks alike.`,
    why: 'Mean tones of products of one kind and material.',
  },
  'row-spacing': {
    title: () => 'The gaps of the row are not alike',
    figures: (verdict) =>
      `The widest is ${value(verdict)} wider than the narrowest; ${limit(verdict)} is not seen.`,
    why: 'Between outlines on the table, left to right.',
  },
  'row-line': {
    title: () => 'The row is not on one line',
    figures: (verdict) => `One front is ${value(verdict)} off the others; ${limit(verdict)} is not seen.`,
    why: 'Fronts on the table against the middle one.',
  },
  'row-mirrored': {
    title: (verdict) => `Other products are seen in ${nameOf(verdict)}`,
    figures: (verdict) => `In ${value(verdict)} of what mirrors of it; ${limit(verdict)} may be.`,
    why: 'Where the surface sends back a third of the light or more.',
  },
  touching: {
    title: (verdict) => `${nameOf(verdict)} seems to touch another`,
    figures: (verdict) =>
      `The gap is ${value(verdict)} of the width; from ${limit(verdict)} on they stand apart.`,
    why: 'Outlines that just touch look like one. Overlap them clearly, or leave room.',
  },
  'at-the-edge': {
    title: (verdict) => `${nameOf(verdict)} just reaches the edge of the frame`,
    figures: (verdict) =>
      `The gap is ${value(verdict)} of the width; from ${limit(verdict)} on it stands free.`,
    why: 'What just touches the frame looks like a mistake. Cut it clearly, or leave room.',
  },
  'no-room-for-words': {
    title: () => 'The room for words is not free',
    figures: (verdict) => `${value(verdict)} of it is even ground; ${limit(verdict)} is wanted.`,
    why: 'Of the first crop that keeps room for words.',
  },
  'horizon-through': {
    title: (verdict) => `A line behind cuts through ${nameOf(verdict)}`,
    figures: (verdict) =>
      `It runs ${value(verdict)} of the height from its middle; from ${limit(verdict)} on it leaves it whole.`,
    why: 'The edge between two grounds, where it meets the product from both sides.',
  },
  'off-centre': {
    title: (verdict) => `${nameOf(verdict)} is just off the middle`,
    figures: (verdict) => `By ${value(verdict)} of the width; ${limit(verdict)} is not seen.`,
    why: 'Of a product alone, without room for words. Farther than 8 % it is taken to be placed aside on purpose.',
  },
  tilted: {
    title: () => 'The camera is held askew',
    figures: (verdict) => `It is turned by ${value(verdict)} about its lens; ${limit(verdict)} is not seen.`,
    why: 'Turned by more than 6° it is taken to be wanted so.',
  },
  'not-raked': {
    title: (verdict) => `The light is too high to bring out the texture of ${nameOf(verdict)}`,
    figures: (verdict) =>
      `The main light stands ${value(verdict)} over it; up to ${limit(verdict)} it rakes.`,
    why: 'Of things that lie: the angle from them to the middle of the light that gives them most.',
  },
  'not-picked-out': {
    title: (verdict) => `Nothing picks out the detail of ${nameOf(verdict)}`,
    figures: (verdict) =>
      `The two sides of a slope of 5° differ by ${value(verdict)} of the light there; from ${limit(verdict)} on it is seen.`,
    why: 'Of the label, or of what faces the lens: twice the sine of the slope times the tangent of the angle of each light, added as ways. Light from the front flattens.',
  },
  'unlike-size': {
    title: (verdict) => `${nameOf(verdict)} is not as large as in the picture it is to be like`,
    figures: (verdict) => `Off by ${value(verdict)}; ${limit(verdict)} is not seen side by side.`,
    why: 'Its height in the frame against the height there, or the scale against the scale there: the one that is nearer counts, since a series keeps one or the other.',
  },
  'unlike-place': {
    title: (verdict) => `${nameOf(verdict)} is not at its place of the picture it is to be like`,
    figures: (verdict) =>
      `Off by ${value(verdict)} of the frame; ${limit(verdict)} is not seen side by side.`,
    why: 'Its middle across the frame, and its foot or its middle up and down, whichever is nearer.',
  },
  'unlike-angle': {
    title: () => 'The camera looks down otherwise than in the picture it is to be like',
    figures: (verdict) => `By ${value(verdict)}; ${limit(verdict)} is not seen side by side.`,
    why: 'Rims and edges of the table turn into other shapes. It cannot be retouched.',
  },
  'unlike-tone': {
    title: () => 'The tones are not those of the picture it is to be like',
    figures: (verdict) =>
      `Ground or label differ by ${steps(verdict.figure.value)} stops; ${steps(verdict.figure.limit)} are not seen side by side.`,
    why: 'The mean of table, background and walls, and the paper of the label; the larger of the two counts. Products may differ.',
  },
  'unlike-colour': {
    title: () => 'The ground has another colour than in the picture it is to be like',
    figures: (verdict) => `${value(verdict)}; ${limit(verdict)} is not seen side by side.`,
    why: 'CIEDE2000 of table, background and walls at one lightness, as they are recorded.',
  },
  'circuit-over': {
    title: () => 'The circuit is loaded for too long',
    figures: (verdict) => `${value(verdict)} more than it bears for hours.`,
    why: 'Four fifths of what the breaker is rated for. Modelling lamps count. Local codes and a licensed electrician come first.',
  },
};
