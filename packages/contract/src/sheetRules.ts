import type { Report } from './report.js';
import type { Sheet } from './sheet.js';

const SEE_THROUGH = new Set(['translucent', 'net']);

/** Rules within one sheet. */
export function checkSheet(sheet: Sheet, path: PropertyKey[], report: Report): void {
  const passes = SEE_THROUGH.has(sheet.front.kind) || SEE_THROUGH.has(sheet.back.kind);
  if (passes && JSON.stringify(sheet.front) !== JSON.stringify(sheet.back)) {
    report(
      [...path, 'back'],
      'must be the same as front: what lets light through has one material on both sides.',
    );
  }
  const hole = 'holeDiameterM' in sheet ? (sheet.holeDiameterM ?? 0) : 0;
  const side =
    sheet.kind === 'disc' ? sheet.diameterM : 'widthM' in sheet ? Math.min(sheet.widthM, sheet.heightM) : 0;
  if (hole > 0 && hole >= side) {
    report([...path, 'holeDiameterM'], 'leaves nothing of the sheet. Make the hole smaller.');
  }
  if (sheet.kind === 'cut-out') {
    const { outline } = sheet;
    const falls = outline.findIndex(({ heightM }, i) => heightM <= (outline[i - 1]?.heightM ?? -1));
    if (falls >= 0) {
      report(
        [...path, 'outline', falls, 'heightM'],
        'must lie above the point before it. Raise it, or take it out.',
      );
    } else if (outline[0]?.heightM !== 0) {
      report([...path, 'outline', 0, 'heightM'], 'must be 0: the outline starts at the lower edge.');
    } else if (outline.every(({ halfWidthM }) => halfWidthM < 1e-4)) {
      report([...path, 'outline'], 'has no width. Make it 0.1 mm wide or more somewhere.');
    }
  }
  if (sheet.kind === 'tent') {
    if (sheet.opening.widthM > sheet.widthM) {
      report([...path, 'opening', 'widthM'], 'is wider than the tent. Make the opening narrower.');
    }
    if (sheet.opening.heightM > sheet.heightM) {
      report([...path, 'opening', 'heightM'], 'is higher than the tent. Make the opening lower.');
    }
  }
}
