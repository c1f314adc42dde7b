import type { SetDocument, Vector } from '@fendrix/contract';

/** Places to look at the set from. */
export const VIEWPOINTS = [
  'over the shoulder',
  'from the lens',
  'from above',
  'from camera left',
  'from behind',
] as const;
export type Viewpoint = (typeof VIEWPOINTS)[number];

/** Where the viewer stands and looks, m from the mark. */
export function placeOf(
  viewpoint: Viewpoint,
  { camera }: Pick<SetDocument, 'camera'>,
): { eye: Vector; target: Vector } {
  const target: Vector = camera.aimM;
  const away = Math.max(1, Math.hypot(camera.positionM[0] - target[0], camera.positionM[1] - target[1]));
  switch (viewpoint) {
    case 'from the lens':
      return { eye: camera.positionM, target };
    case 'from above':
      return { eye: [target[0], target[1] - 0.01, target[2] + 2.4], target };
    case 'from camera left':
      return { eye: [target[0] - 1.6 * away, target[1], target[2] + 0.4], target };
    case 'from behind':
      return { eye: [target[0] + 0.5, target[1] + 1.6 * away, target[2] + 0.9], target };
    case 'over the shoulder':
      return { eye: [target[0] + 0.8 * away, target[1] - 1.4 * away, target[2] + 0.9 * away], target };
  }
}
