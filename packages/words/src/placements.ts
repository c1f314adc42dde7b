import { formatLength, type PlacementWay } from '@fendrix/core';

/** Which way a placement goes, as one says it at the table: short for an axis, whole for a table. */
export function placementWords(way: PlacementWay): { short: string; whole: string } {
  const both = (words: string) => ({ short: words, whole: words });
  switch (way.code) {
    case 'as-it-is':
      return both('as it is');
    case 'from-aim': {
      const away = formatLength(way.distanceM);
      return { short: away, whole: `${away} from its aim` };
    }
    case 'height':
      return both(`${formatLength(Math.abs(way.upM))} ${way.upM > 0 ? 'higher' : 'lower'}`);
    case 'back': {
      const by = formatLength(way.byM);
      return { short: `+${by}`, whole: `${by} further back` };
    }
    case 'round': {
      const { side, faces } = way;
      const deg = Math.round(way.deg);
      const facing = { more: ', towards the products', less: ', away from the products', same: '' }[faces];
      return { short: `${deg}° ${side}`, whole: `${deg}° to camera ${side}${facing}` };
    }
  }
}
