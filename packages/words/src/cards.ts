import type { SetDocument } from '@fendrix/contract';
import { applyChange, type CardAnswer, formatLength, formatStops, toStand } from '@fendrix/core';

/** What is to be put on the set: "Black flag, 12 × 18 cm, to be cut". */
export function cardName(set: SetDocument, { change, tag, fromKit, widthM, heightM }: CardAnswer): string {
  const sheet = applyChange(set, change)?.sheets.find((own) => own.tag === tag);
  const size = `${formatLength(widthM)} × ${formatLength(heightM)}`;
  return fromKit ? `${fromKit}, ${size}, from the kit` : `${sheet?.name ?? 'Card'}, to be cut to ${size}`;
}

/** Where it then stands, as people on set say it. */
export function cardPlace(set: SetDocument, { change, tag }: CardAnswer): string {
  const sheet = applyChange(set, change)?.sheets.find((own) => own.tag === tag);
  if (!sheet) return '';
  const { bearingDeg, distanceM, heightM } = toStand(sheet.positionM);
  const side = bearingDeg < -2 ? ' camera left' : bearingDeg > 2 ? ' camera right' : ' towards the camera';
  return `${Math.abs(Math.round(bearingDeg))}°${side}, ${formatLength(distanceM)} from the centre, its middle ${formatLength(heightM)} up`;
}

/** From this many stops on a light is taken off whole. */
const WHOLE_STOPS = 6;

/** What it does, most important first. */
export function cardEffects({
  regionStops,
  spareStops,
  mirroredPart,
  elsewhere,
  inFrame,
  mirrored,
}: Pick<
  CardAnswer,
  'regionStops' | 'spareStops' | 'mirroredPart' | 'elsewhere' | 'inFrame' | 'mirrored'
>): string[] {
  const words: string[] = [];
  if (mirroredPart !== null) words.push(`Mirrored by ${Math.round(100 * mirroredPart)} % of the place.`);
  if (regionStops !== null)
    words.push(
      regionStops <= -WHOLE_STOPS
        ? 'The place gets none of this light.'
        : `The place: ${formatStops(regionStops)}.`,
    );
  if (spareStops !== null) words.push(`What is left as it is: ${formatStops(spareStops)}.`);
  for (const { thing, stops } of elsewhere.slice(0, 3)) words.push(`${thing.name}: ${formatStops(stops)}.`);
  if (inFrame) words.push('It comes into the frame.');
  else if (mirrored) words.push('It is seen in a product.');
  return words;
}
