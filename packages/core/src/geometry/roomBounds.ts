import type { Room, SetDocument, Vector } from '@fendrix/contract';

/** Whether a point lies in the room, this far from its walls; everywhere without a room. */
export function standsInRoom(set: SetDocument, [x, y, z]: Vector, clearM = 0.05): boolean {
  const { room, mark } = set;
  if (!room) return true;
  const [low, high] = roomBounds(room, mark.heightAboveFloorM);
  return [x, y, z].every(
    (value, a) => value > (low[a] as number) + clearM && value < (high[a] as number) - clearM,
  );
}

function roomBounds(room: Room, markHeightM: number): [Vector, Vector] {
  const low: Vector = [-room.markFromLeftM, -room.markFromFrontM, -markHeightM];
  return [low, [low[0] + room.widthM, low[1] + room.depthM, low[2] + room.heightM]];
}
