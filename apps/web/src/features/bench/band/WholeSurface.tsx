import { mirrorShares } from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useMemo } from 'react';
import { Tag } from '../../../shared/Tag';
import { surround } from '../../../shared/theme';
import { useFigure } from '../figures/figureStore';
import { hatchOf } from '../lens/hatch';
import { useBench, useSetPart } from '../state/hooks';
import { DomeMap } from './DomeMap';
import { useShortName } from './useShortName';

/** What the whole visible surface mirrors, for domes and all that has no upright side: areas in percent. */
export function WholeSurface({ onBand }: { onBand?: () => void }) {
  const nameOf = useShortName();
  const products = useSetPart((set) => set.products);
  const selected = useBench((bench) => bench.selected);
  const mirrors = useFigure('mirrors');
  const product =
    products.find(({ id }) => selected?.kind === 'product' && id === selected.key) ?? products[0];
  const shares = useMemo(
    () => (mirrors && product ? mirrorShares(mirrors.map, mirrors.things, product.id) : []),
    [mirrors, product],
  );
  if (!product) {
    return <Box sx={{ color: surround.quiet, py: 1 }}>Put a product on the set first: press A.</Box>;
  }
  return (
    <Box
      component="section"
      aria-label="What it mirrors"
      sx={{ color: surround.text, fontSize: '0.8125rem' }}
    >
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'baseline' }}>
        <Box component="h2" sx={{ m: 0, fontSize: '0.8125rem', fontWeight: 650 }}>
          What it mirrors
        </Box>
        <Box sx={{ color: surround.quiet }}>
          {product.name}: areas of all that the lens sees of it{onBand ? '.' : ', which has no upright side.'}
        </Box>
      </Box>
      {onBand && (
        <Button size="small" onClick={onBand} sx={{ color: surround.accent, py: 0, px: 0 }}>
          One height of it
        </Button>
      )}
      {mirrors && shares.length === 0 && (
        <Box sx={{ color: surround.quiet, py: 1 }}>It is matte: it mirrors nothing.</Box>
      )}
      {mirrors && shares.length > 0 && <DomeMap overlay={mirrors} product={product.id} />}
      <Box sx={{ display: 'flex', height: 18, mt: 0.5 }} aria-hidden>
        {shares.map(({ thing, share }) => (
          <Box
            key={thing ? `${thing.kind} ${thing.key}` : 'dark'}
            sx={{
              width: `${100 * share}%`,
              bgcolor: hatchOf(thing?.kind ?? 'dark', thing?.key ?? null).tone,
              borderRight: `1px solid ${surround.seam}`,
            }}
          />
        ))}
      </Box>
      <Box
        component="ol"
        data-testid="areas"
        sx={{ m: 0, p: 0, listStyle: 'none', display: 'flex', flexWrap: 'wrap', columnGap: 2 }}
      >
        {shares.map(({ thing, share }) => (
          <Box
            component="li"
            key={thing ? `${thing.kind} ${thing.key}` : 'dark'}
            sx={{ display: 'flex', gap: 0.5, alignItems: 'center' }}
          >
            {thing && (thing.kind === 'light' || thing.kind === 'sheet') ? (
              <Tag>{thing.key}</Tag>
            ) : (
              nameOf(thing?.kind ?? 'dark', thing?.key ?? null)
            )}
            <span className="number">{(100 * share).toFixed(1)} %</span>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
