import type { WishName } from '@fendrix/words';
import type { ReactNode } from 'react';
import { wishTones } from '../../../shared/theme';

const { light, mid, dark, line } = wishTones;

/** What is drawn of a choice, 18 x 14: the frame behind, and what stands out of it. */
interface Drawing {
  behind?: string;
  over?: ReactNode;
}

const strip = (x: number, width = 2) => <rect x={x} y={2} width={width} height={10} fill={light} />;
const shape = (fill: string, stroke = 'none') => (
  <rect x={6} y={3} width={6} height={9} fill={fill} stroke={stroke} strokeWidth={1.4} />
);
const shadow = (blur: boolean) => (
  <>
    {shape(mid)}
    <ellipse cx={12} cy={12} rx={5} ry={1.4} fill={dark} opacity={blur ? 0.35 : 1} />
  </>
);

const falling = (cx: number, cy: number) => (
  <>
    <ellipse cx={cx} cy={cy} rx={4} ry={1.4} fill={dark} />
    {shape(mid)}
  </>
);

const DRAWINGS: Partial<Record<WishName, Record<string, Drawing>>> = {
  mood: { bright: { behind: light }, neutral: { behind: mid }, dark: { behind: dark } },
  ground: {
    white: { behind: light, over: shape(mid) },
    grey: { behind: mid, over: shape(light) },
    black: { behind: dark, over: shape(mid) },
    gradient: { behind: mid, over: <rect width={18} height={6} fill={light} /> },
  },
  edges: {
    'dark-line': { behind: light, over: shape(light, dark) },
    'bright-line': { behind: dark, over: shape(dark, light) },
  },
  highlight: {
    'one-strip': { behind: dark, over: strip(5) },
    'two-strips': {
      behind: dark,
      over: (
        <>
          {strip(4)}
          {strip(12)}
        </>
      ),
    },
    broad: { behind: dark, over: strip(4, 8) },
    'bright-front': { behind: dark, over: strip(7, 4) },
    'bright-back': {
      behind: dark,
      over: (
        <>
          {strip(1)}
          {strip(15)}
        </>
      ),
    },
    none: { behind: dark },
  },
  shadowTowards: {
    left: { behind: light, over: falling(4, 11) },
    right: { behind: light, over: falling(14, 11) },
    front: { behind: light, over: falling(9, 12.5) },
    back: { behind: light, over: falling(11, 4) },
  },
  centre: { dark: { behind: light, over: shape(dark) }, bright: { behind: dark, over: shape(light) } },
  shadow: { soft: { behind: light, over: shadow(true) }, hard: { behind: light, over: shadow(false) } },
};

/** Whether a wish is told by drawings: of the others words say all. */
export const isDrawn = (name: WishName): boolean => DRAWINGS[name] !== undefined;

/** A choice of a wish as a small drawing; a plain frame for what is left open. */
export function WishDrawing({ name, choice }: { name: WishName; choice: string }) {
  const { behind = 'none', over } = DRAWINGS[name]?.[choice] ?? {};
  return (
    <svg width={18} height={14} viewBox="0 0 18 14" aria-hidden>
      <rect x={0.5} y={0.5} width={17} height={13} fill={behind} stroke={line} />
      {over}
    </svg>
  );
}
