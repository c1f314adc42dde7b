import type { MaskPiece, Plate, SetDocument } from '@fendrix/contract';
import {
  F_NUMBERS,
  formatLength,
  formatPower,
  ISO_SPEEDS,
  type PlannedFrame,
  type PlateFinding,
  plateFindings,
  printedSetting,
  SHUTTERS,
  setOfPlate,
} from '@fendrix/core';
import { changeWords, describeChange } from './changes.js';

/** What a plate is taken for. */
export const PLATE_GIVES: Readonly<Record<Plate['gives'], string>> = {
  label: 'label',
  liquid: 'liquid',
  outline: 'outline and rims',
  ground: 'ground',
  clean: 'free of dust',
  splash: 'splash',
  focus: 'focus step',
  other: 'something else',
};

/** What is other in a plate than on the set as it stands, on one line. */
export const plateChangeWords = (set: SetDocument, plate: Plate, most = 6): string =>
  changeWords(set, setOfPlate(set, plate), most);

/** A piece of a mask in words. */
export function maskPieceWords(
  set: Pick<SetDocument, 'products' | 'lights' | 'sheets'>,
  piece: MaskPiece,
): string {
  const { area } = piece;
  const nameOf = (key: string) => set.products.find(({ id }) => id === key)?.name ?? key;
  switch (area.by) {
    case 'products':
      return 'all products';
    case 'thing':
      return thingWords(set, area);
    case 'part':
      return `${partWords(area)} of ${nameOf(area.product)}`;
    case 'gradient':
      return 'a gradient';
    case 'brush':
      return `painted, ${area.strokes.length} ${area.strokes.length === 1 ? 'dab' : 'dabs'}`;
    case 'sharpest':
      return 'where it is the sharpest';
  }
}

function thingWords(
  { products }: Pick<SetDocument, 'products'>,
  { kind, key }: MaskPiece['area'] & { by: 'thing' },
): string {
  switch (kind) {
    case 'product':
      return products.find(({ id }) => id === key)?.name ?? key;
    case 'light':
      return `light ${key}`;
    case 'sheet':
      return `sheet ${key}`;
    case 'bench':
      return 'the table';
    case 'backdrop':
      return 'the background';
    case 'person':
      return key;
    default:
      return kind;
  }
}

const partWords = ({ part, index }: MaskPiece['area'] & { by: 'part' }): string =>
  part === 'part' ? (index === 0 ? 'cap' : `part ${index + 1}`) : index === 0 ? part : `${part} ${index + 1}`;

/** The whole mask on one line. */
export function maskWords(set: SetDocument, { mask }: Pick<Plate, 'mask'>): string {
  if (mask.length === 0) return 'the whole frame';
  const words = mask.map((piece) => `${piece.leaveOut ? 'without ' : ''}${maskPieceWords(set, piece)}`);
  return mask[0]?.leaveOut ? `the whole frame ${words.join(', ')}` : words.join(', ');
}

/** What there is to say against a plate. */
export function plateFindingWords(finding: PlateFinding): string {
  switch (finding.code) {
    case 'camera-moved':
      return `The camera stands elsewhere on its take, by ${formatLength(finding.byM)} and ${finding.byDeg.toFixed(1)} degrees: the frames do not lie on one another.`;
    case 'other-lens':
      return 'Another lens or zoom than on the set: the frames do not lie on one another.';
    case 'other-sensor':
      return 'Another camera body than on the set: the frames do not lie on one another.';
    case 'focus-moved':
      return `Focused elsewhere, everything is ${Math.abs(100 * finding.sizePart).toFixed(2)} % ${finding.sizePart > 0 ? 'larger' : 'smaller'} in the frame: edges do not meet. Lock the focus, or fit the frames to one another afterwards.`;
    case 'product-moved':
      return `${finding.product} stands ${formatLength(finding.byM)} elsewhere on its take: the frames do not lie on one another.`;
    case 'product-other':
      return finding.how === 'gone'
        ? `${finding.product} is not there on its take.`
        : finding.how === 'new'
          ? `${finding.product} is there on its take only.`
          : `${finding.product} is not the same on its take.`;
    case 'light-missing':
      return `Light ${finding.tag} is not there: what is said of it does nothing.`;
    case 'no-light':
      return 'No light is on for it: the frame is black.';
    case 'same-as-set':
      return 'It is the same as the frame of the set: change a light, the exposure, the focus or its take.';
    case 'blur-not-shown':
      return 'The picture shows no blur: switch the depth of field on at the camera to see what focus steps give.';
    case 'mask-of-nothing':
      return 'What its mask takes is not on the set: nothing of it is laid.';
  }
}

/** A frame of a picture as it is taken at the table. @param before the frame taken before it; null for the first */
export function frameStepWords(
  { plate, set }: PlannedFrame,
  before: PlannedFrame | null,
): { title: string; numbers: { label: string; value: string }[]; notes: string[] } {
  const { fNumber, shutterS, iso, focusM } = set.camera;
  const refocused = before !== null && before.set.camera.focusM !== focusM;
  const changed = before ? describeChange(before.set, set) : [];
  return {
    title: plate ? `Take the plate “${plate.name}”` : 'Take the frame of the set as it stands',
    numbers: [
      { label: 'f-stop', value: `f/${printedSetting(F_NUMBERS, fNumber)}` },
      { label: 'shutter', value: `${printedSetting(SHUTTERS, shutterS)} s` },
      refocused
        ? { label: 'focus at', value: formatLength(focusM) }
        : { label: 'ISO', value: printedSetting(ISO_SPEEDS, iso) },
    ],
    notes: [
      ...(changed.length > 0 ? [`First: ${changed.join(', ')}.`] : []),
      'Camera and products are not touched.',
      ...(plate?.note ? [plate.note] : []),
    ],
  };
}

/** What is put back after the last plate, on one line; empty where nothing is. */
export function putBackWords(frames: readonly PlannedFrame[]): string {
  const [first, last] = [frames[0], frames.at(-1)];
  if (!first || !last || first === last) return '';
  const changes = describeChange(last.set, first.set);
  return changes.length === 0 ? '' : `Then back as the set has it: ${changes.join(', ')}.`;
}

/** A list to read beside the files of the plates: which gives what, how it is taken and where it goes. */
export function plateList(set: SetDocument): string {
  const { camera } = set;
  const settings = ({ fNumber, shutterS, iso }: SetDocument['camera']) =>
    `f/${fNumber.toFixed(1)}, ${printedSetting(SHUTTERS, shutterS)}, ISO ${Math.round(iso)}`;
  const lights = (of: SetDocument) =>
    of.lights.map(({ tag, on, powerStops }) => `${tag} ${on ? formatPower(powerStops) : 'off'}`).join(', ');
  const lines = [
    set.name,
    '',
    'Camera locked, nothing on the set touched between the frames. Lowest first; each mask is straight: white is taken whole.',
    'Mix by the values of the files as they are, sRGB.',
    '',
    '0  the set as it stands',
    `   ${settings(camera)}`,
    `   lights: ${lights(set)}`,
  ];
  set.plates.forEach((plate, index) => {
    const own = setOfPlate(set, plate);
    lines.push(
      '',
      `${index + 1}  ${plate.name}: ${PLATE_GIVES[plate.gives]}${plate.laid ? '' : ', left out'}`,
      `   other than the set: ${plateChangeWords(set, plate, 20)}`,
      `   ${settings(own.camera)}, focus at ${formatLength(own.camera.focusM)}`,
      `   lights: ${lights(own)}`,
      `   takes: ${maskWords(set, plate)}; fades over ${(100 * plate.featherPart).toFixed(1)} % of the width to either side`,
      ...(plate.note ? [`   ${plate.note}`] : []),
      ...plateFindings(set, plate).map((finding) => `   ! ${plateFindingWords(finding)}`),
    );
  });
  return `${lines.join('\n')}\n`;
}
