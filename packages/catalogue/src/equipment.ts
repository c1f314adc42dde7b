import type { EquipmentOf, KitEntryInput } from '@fendrix/contract';

type EquipmentEntry = Extract<KitEntryInput, { what: 'equipment' }>;

const USUAL = 'Usual for its class: read yours from its manual or data sheet.';

const entry = (
  id: string,
  name: string,
  purposes: string[],
  thing: EquipmentEntry['thing'],
  source = USUAL,
): EquipmentEntry => ({ what: 'equipment', id, name, purposes, source, thing });

const body = (sizeM: [number, number], pixels: [number, number]): EquipmentOf<'body'> => ({
  kind: 'body',
  sensorWidthM: sizeM[0],
  sensorHeightM: sizeM[1],
  pixelsWide: pixels[0],
  pixelsHigh: pixels[1],
  syncSpeedS: 1 / 200,
  baseIso: 100,
  handShutterS: 1 / 125,
});

const lens = (
  rangeM: [number, number],
  closestFocusM: number,
  stops: [number, number],
): EquipmentOf<'lens'> => ({
  kind: 'lens',
  shortestM: rangeM[0],
  longestM: rangeM[1],
  closestFocusM,
  widestFNumber: stops[0],
  smallestFNumber: stops[1],
  pupilRatio: 1,
});

export const equipment: EquipmentEntry[] = [
  entry(
    'body-24',
    'Body, 36 x 24 mm, 24 megapixels',
    ['camera', 'full frame'],
    body([0.036, 0.024], [6000, 4000]),
  ),
  entry(
    'body-45',
    'Body, 36 x 24 mm, 45 megapixels',
    ['camera', 'detail'],
    body([0.036, 0.024], [8192, 5464]),
  ),
  entry(
    'body-aps',
    'Body, 23.5 x 15.6 mm, 24 megapixels',
    ['camera', 'small sensor'],
    body([0.0235, 0.0156], [6000, 4000]),
  ),
  entry('macro-100', 'Macro lens 100 mm', ['macro', 'detail'], lens([0.1, 0.1], 0.3, [2.8, 32])),
  entry('prime-50', 'Lens 50 mm', ['wide', 'flat lay'], lens([0.05, 0.05], 0.45, [1.8, 16])),
  entry('prime-85', 'Lens 85 mm', ['blur', 'portrait'], lens([0.085, 0.085], 0.85, [1.8, 16])),
  entry('zoom-24-70', 'Zoom 24 to 70 mm', ['flat lay', 'zoom'], lens([0.024, 0.07], 0.38, [2.8, 22])),
  entry('zoom-70-200', 'Zoom 70 to 200 mm', ['flat', 'far'], lens([0.07, 0.2], 1.2, [4, 32])),
  entry('tripod', 'Tripod', ['level', 'steady'], {
    kind: 'support',
    highestM: 1.65,
    lowestM: 0.35,
    mostLoadKg: 8,
    ownKg: 2.4,
    baseRadiusM: 0.28,
    boomM: 0,
  }),
  entry('boom-stand', 'Stand with boom arm', ['overhead', 'straight down'], {
    kind: 'support',
    highestM: 2.6,
    lowestM: 0.9,
    mostLoadKg: 5,
    ownKg: 6.5,
    baseRadiusM: 0.42,
    boomM: 1.2,
  }),
  entry('polariser', 'Circular polariser', ['glare', 'label'], {
    kind: 'filter',
    lossStops: 1.5,
    polarises: true,
  }),
  entry('nd-3', 'Grey filter, 3 stops', ['slow shutter', 'pour'], {
    kind: 'filter',
    lossStops: 3,
    polarises: false,
  }),
  entry('meter', 'Hand-held meter', ['exposure', 'stops'], { kind: 'meter', receptor: 'flat', flash: true }),
];
