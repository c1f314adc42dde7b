import { type BandLength, formatLength, type MirrorBand } from '@fendrix/core';
import Box from '@mui/material/Box';
import { memo, useId } from 'react';
import { TagMark } from '../../../shared/Tag';
import { surround } from '../../../shared/theme';
import { useBench, useSetPart } from '../state/hooks';
import { hatchOf, shortName } from './hatch';

const WIDTH = 560;
const HEIGHT = 44;
const LEAD = 26;

/** What each column of the product mirrors at the band's height, with percent of its visible width. */
export const MirrorBandView = memo(function MirrorBandView() {
  const products = useSetPart((set) => set.products);
  const bands = useBench((bench) => bench.bands);
  const selected = useBench((bench) => bench.selected);
  const band =
    bands.find(({ product }) => selected?.kind === 'product' && product === selected.key) ?? bands[0];
  if (!band) {
    return (
      <Box sx={{ color: surround.quiet, py: 1 }}>
        No product shows the lens an upright side. Press M to see what every spot mirrors.
      </Box>
    );
  }
  const name = products.find(({ id }) => id === band.product)?.name ?? band.product;
  return (
    <Box component="section" aria-label="Mirror band">
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'baseline', color: surround.text }}>
        <Box component="h2" sx={{ m: 0, fontSize: '0.8125rem', fontWeight: 650 }}>
          Mirror band
        </Box>
        <Box sx={{ color: surround.quiet, fontSize: '0.8125rem' }}>
          {name}, {formatLength(band.heightM)} above its foot
        </Box>
      </Box>
      <BandDrawing band={band} />
      <BandTable band={band} />
    </Box>
  );
});

function BandDrawing({ band }: { band: MirrorBand }) {
  const prefix = useId();
  return (
    <svg viewBox={`0 0 ${WIDTH} ${LEAD + HEIGHT + 18}`} width="100%" aria-hidden style={{ display: 'block' }}>
      <path
        d={`M${band.left * WIDTH} 0 L0.5 ${LEAD} M${band.right * WIDTH} 0 L${WIDTH - 0.5} ${LEAD}`}
        stroke={surround.quiet}
        strokeWidth={1}
        strokeDasharray="2 3"
      />
      {band.lengths.map((length, index) => (
        <Length key={`${length.from}`} id={`${prefix}-${index}`} length={length} />
      ))}
      <rect x={0.5} y={LEAD} width={WIDTH - 1} height={HEIGHT} fill="none" stroke="#1a1a1a" />
    </svg>
  );
}

function Length({ id, length }: { id: string; length: BandLength }) {
  const { tone, angleDeg, gapPx } = hatchOf(length.kind, length.what);
  const x = length.from * WIDTH;
  const width = (length.to - length.from) * WIDTH;
  const tagged = length.kind === 'light' || length.kind === 'sheet';
  const percent = Math.round(100 * (length.to - length.from));
  const dark = ['dark', 'matte', 'hidden'].includes(length.kind);
  return (
    <g>
      {angleDeg !== null && (
        <pattern
          id={id}
          width={gapPx}
          height={gapPx}
          patternUnits="userSpaceOnUse"
          patternTransform={`rotate(${angleDeg})`}
        >
          <rect width={1.4} height={gapPx} fill="rgba(0,0,0,0.55)" />
        </pattern>
      )}
      <rect x={x} y={LEAD} width={width} height={HEIGHT} fill={tone} />
      {angleDeg !== null && <rect x={x} y={LEAD} width={width} height={HEIGHT} fill={`url(#${id})`} />}
      <path
        d={`M${x} ${LEAD} v${HEIGHT}`}
        stroke={tagged ? surround.accent : '#2a2a2a'}
        strokeWidth={tagged ? 2.5 : 1}
      />
      {tagged && width > 12 && length.what && (
        <TagMark x={x + width / 2} y={LEAD + HEIGHT / 2}>
          {length.what}
        </TagMark>
      )}
      {!tagged && width > 44 && (
        <text
          x={x + width / 2}
          y={LEAD + HEIGHT / 2 + 4}
          textAnchor="middle"
          fontSize={11}
          fill={dark ? '#d8d8d8' : '#1c1c1c'}
        >
          {shortName(length.kind, length.what)}
        </text>
      )}
      {width > 20 && (
        <text
          x={x + width / 2}
          y={LEAD + HEIGHT + 14}
          textAnchor="middle"
          fontSize={11}
          fontFamily='"JetBrains Mono Variable", monospace'
          fill={tagged ? surround.text : surround.quiet}
        >
          {percent} %
        </text>
      )}
    </g>
  );
}

/** The same in words, for those who hear the page. */
function BandTable({ band }: { band: MirrorBand }) {
  return (
    <Box
      component="ol"
      data-testid="band"
      sx={{
        position: 'absolute',
        width: '1px',
        height: '1px',
        overflow: 'hidden',
        clipPath: 'inset(50%)',
        m: 0,
        p: 0,
      }}
    >
      {band.lengths.map((length) => (
        <li key={length.from}>
          {shortName(length.kind, length.what)} {length.front ? '' : 'from behind '}
          {(100 * length.from).toFixed(1)} to {(100 * length.to).toFixed(1)} %
        </li>
      ))}
    </Box>
  );
}
