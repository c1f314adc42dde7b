import type { SetDocument } from '@fendrix/contract';

/**
 * A set with nothing on it but what is kept: no room, bench, backdrop, people or camera body. For asking about one
 * thing alone, whatever stands round it.
 */
export function bareSet(
  set: SetDocument,
  kept: Partial<Pick<SetDocument, 'products' | 'lights' | 'sheets'>>,
): SetDocument {
  const { format, version, name, mark, camera, wishes } = set;
  return {
    format,
    version,
    name,
    note: '',
    mark,
    products: [],
    lights: [],
    sheets: [],
    ...kept,
    people: [],
    camera: { ...camera, rig: undefined },
    spots: [],
    hazards: [],
    highlights: [],
    allowedOverlaps: [],
    wishes,
    settled: [],
    takes: [],
    plates: [],
  };
}
