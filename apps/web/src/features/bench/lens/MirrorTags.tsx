import { TagMark } from '../../../shared/Tag';
import { surround } from '../../../shared/theme';
import type { RegionTag } from './regionTags';

interface Placed extends RegionTag {
  x: number;
  y: number;
}

/** Room between a tag and the images it stands beside, and between two tags, px. */
const ASIDE = 48;
const APART = 24;

/** Tags of the mirror images, beside the product with a line to the image each. */
export function MirrorTags({ tags, width, height }: { tags: RegionTag[]; width: number; height: number }) {
  return (
    <>
      {placeAside(tags, width, height).map(({ tag, across, down, x, y }) => (
        <g key={tag}>
          <path d={`M${x} ${y} L${across * width} ${down * height}`} stroke={surround.ink} strokeWidth={3} />
          <path
            d={`M${x} ${y} L${across * width} ${down * height}`}
            stroke={surround.paper}
            strokeWidth={1.2}
          />
          <circle cx={across * width} cy={down * height} r={3} fill={surround.paper} stroke={surround.ink} />
          <TagMark x={x} y={y}>
            {tag}
          </TagMark>
        </g>
      ))}
    </>
  );
}

/** Left images get their tags at the left, right ones at the right, one under the other. */
export function placeAside(tags: RegionTag[], width: number, height: number): Placed[] {
  const middle = tags.reduce((sum, { across }) => sum + across / tags.length, 0);
  const side = (isLeft: boolean) => {
    const own = tags.filter(({ across }) => across < middle === isLeft).sort((a, b) => a.down - b.down);
    const edges = own.map(({ across }) => across * width);
    const x = isLeft
      ? Math.max(20, Math.min(...edges) - ASIDE)
      : Math.min(width - 20, Math.max(...edges) + ASIDE);
    let lowest = Number.NEGATIVE_INFINITY;
    return own.map((tag): Placed => {
      const y = Math.max(tag.down * height, lowest + APART);
      lowest = y;
      return { ...tag, x, y };
    });
  };
  return [...side(true), ...side(false)];
}
