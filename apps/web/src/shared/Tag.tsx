import { surround } from './theme';

interface TagProps {
  /** Letter of a light or number of a sheet. */
  children: string;
  x?: number;
  y?: number;
  selected?: boolean;
}

const torn = 'M1 2 L3 0 L23 0 L25 2 L24 5 L26 8 L24 11 L25 14 L23 16 L3 16 L1 14 L2 11 L0 8 L2 5 Z';

/** A strip of spike tape with the tag of a light (letter, tinted) or sheet (number), as an SVG group. */
export function TagMark({ children, x = 0, y = 0, selected = false }: TagProps) {
  const isLight = /[A-Z]/.test(children);
  return (
    <g transform={`translate(${x - 13} ${y - 8}) rotate(-3 13 8)`} style={{ pointerEvents: 'none' }}>
      <path
        d={torn}
        fill={isLight ? surround.lamp : surround.paper}
        stroke={selected ? surround.accent : surround.seam}
        strokeWidth={selected ? 2 : 0.75}
      />
      <text
        x={13}
        y={12}
        textAnchor="middle"
        fontSize={11}
        fontWeight={700}
        fontFamily='"JetBrains Mono Variable", monospace'
        fill={surround.ink}
      >
        {children}
      </text>
    </g>
  );
}

/** The same strip on its own, for lists and panels. */
export function Tag({ children }: { children: string }) {
  return (
    <svg
      width={28}
      height={19}
      viewBox="-1 -1.5 28 19"
      role="img"
      aria-label={`tag ${children}`}
      style={{ verticalAlign: 'middle' }}
    >
      <TagMark x={13} y={8}>
        {children}
      </TagMark>
    </svg>
  );
}
