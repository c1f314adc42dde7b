import type { Report } from './report.js';
import type { Room } from './standing.js';
import type { Studio } from './studio.js';

/** The mark, where products stand, lies within the walls and below the ceiling. */
export function checkMark(room: Room, heightAboveFloorM: number, report: Report): void {
  if (room.markFromLeftM >= room.widthM) {
    report(
      ['room', 'markFromLeftM'],
      'puts the centre outside of the room. Keep it below the width of the room.',
    );
  }
  if (room.markFromFrontM >= room.depthM) {
    report(
      ['room', 'markFromFrontM'],
      'puts the centre outside of the room. Keep it below the depth of the room.',
    );
  }
  if (heightAboveFloorM >= room.heightM) {
    report(['mark', 'heightAboveFloorM'], 'lies above the ceiling. Keep it below the height of the room.');
  }
}

/**
 * Whether a new set could stand in a studio. Not a rule of the kit's document: a kit that was kept with such a room stays
 * readable, to be put right.
 */
export function checkStudio({ room, benchHeightM }: Studio, report: Report): void {
  checkMark(room, benchHeightM, (path, message) =>
    report(path[0] === 'mark' ? ['benchHeightM'] : path, message),
  );
}
