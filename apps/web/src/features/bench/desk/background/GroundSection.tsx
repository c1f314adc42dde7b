import type { Product, SetDocument, Vector } from '@fendrix/contract';
import {
  type FieldTrace,
  formatStops,
  groundLights,
  PAPER_WHITE_STOPS,
  productBounds,
  rimWrap,
  veiledStops,
  whiteParts,
} from '@fendrix/core';
import Box from '@mui/material/Box';
import { Choice } from '../../../../shared/Choice';
import { Explained } from '../../../../shared/Explained';
import { Section } from '../../../../shared/Section';
import { useReadings, useSet } from '../../state/hooks';
import { useDeskFigure } from '../useDeskFigure';
import { GroundCures } from './GroundCures';
import { levelsOf } from './readGround';
import { useFrameRead } from './useFrameRead';

/** Half to one stop over the product's white is white; more flares round the edges. Usual practice. */
const OVER_FROM = 0.5;
const OVER_TO = 1;
const BLACK_STOPS = -5;
/** Even enough: a third of a stop. */
const EVEN_STOPS = 1 / 3;
/** Stands for no spot among the names of spots. */
const ANY = '-';
const VEILS = [
  { value: '0.005', words: 'clean lens with hood, 0.5 %' },
  { value: '0.01', words: 'usual, 1 %' },
  { value: '0.02', words: 'no hood or dusty, 2 %' },
];

/** Level and evenness of the ground against the products, the wrap of a bright one and the veil it casts. */
export function GroundSection() {
  const set = useSet();
  const readings = useReadings();
  const read = useFrameRead();
  const [veil, setVeil] = useDeskFigure('ground veil', '0.01');
  const [white, setWhite] = useDeskFigure('ground white', '');
  if (!read) {
    return (
      <Section title="The background">
        <Box role="status" sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
          Being read
        </Box>
      </Section>
    );
  }
  const { ground, table, products, whole } = levelsOf(set, read.field);
  if (!ground) {
    return (
      <Section title="The background">
        <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
          No background or wall is in the frame: the table is the background here.
        </Box>
      </Section>
    );
  }
  const seen = readings.filter(({ stopsFromMidTone }) => stopsFromMidTone !== null);
  // Glass shows the ground behind it: a pinned spot on the products is a better white than their brightest place.
  const onGoods = seen.filter(({ pointM }) => set.products.some((product) => holds(product, pointM)));
  const brightest = [...onGoods].sort((a, b) => (b.stopsFromMidTone ?? 0) - (a.stopsFromMidTone ?? 0))[0];
  const spot = seen.find(({ name }) => name === white) ?? (white === '' ? brightest : undefined);
  const productWhite = spot?.stopsFromMidTone ?? products?.mostStops ?? 0;
  const over = ground.meanStops - productWhite;
  const own = new Set(groundLights(set, read.field).flatMap((light) => (light.own ? [light.tag] : [])));
  const wrap = rimWrap(set, read.rims, own);
  const dark = products ? veiledStops(products.leastStops, whole?.meanStops ?? 0, Number(veil)) : null;
  return (
    <Section title="The background">
      <Explained label="level" value={formatStops(ground.meanStops)}>
        Mean of {ground.places} places of background and walls in the frame, path-traced, from mid-tone. Paper
        white is {formatStops(PAPER_WHITE_STOPS)}.
      </Explained>
      <Explained label="unevenness" value={`${ground.rangeStops.toFixed(1)} stops`}>
        Brightest over darkest block of nine places, {formatStops(ground.leastStops)} to{' '}
        {formatStops(ground.mostStops)}. Left {half(ground.halves.left)}, right {half(ground.halves.right)},
        top {half(ground.halves.top)}, bottom {half(ground.halves.bottom)}.
      </Explained>
      <Choice
        label="white of the products is"
        shown
        value={spot?.name ?? ANY}
        options={[
          { value: ANY, words: 'their brightest place' },
          ...seen.map(({ name }) => ({ value: name, words: name })),
        ]}
        onChoose={setWhite}
      />
      <Explained label="background over that" value={formatStops(over)}>
        The background at {formatStops(ground.meanStops)}, the white of the products at{' '}
        {formatStops(productWhite)}.
      </Explained>
      {table && (
        <Explained label="table" value={formatStops(table.meanStops)}>
          Mean of what is seen of the table.
        </Explained>
      )}
      <Verdict level={ground.meanStops} over={over} even={ground.rangeStops} />
      <WhiteRegions set={set} field={read.field} />
      <GroundCures field={read.field} level={ground.meanStops} white={productWhite} veil={Number(veil)} />
      {wrap && (
        <Explained
          label="edges get from behind"
          value={
            wrap.mostStops < 0.05
              ? 'nothing'
              : `${formatStops(wrap.meanStops)}, most ${formatStops(wrap.mostStops)}`
          }
        >
          How much brighter the rim of the products is for the background behind it: what mirrors the
          background there, and all light of the lamps that are the background's own. Most at the {wrap.side}{' '}
          edge of {set.products.find(({ id }) => id === wrap.product)?.name ?? 'the products'}. Above about a
          third of a stop edges begin to melt: a smaller background, further back, or black cards at its
          sides.
        </Explained>
      )}
      <Choice label="veil of the lens" shown value={veil} options={VEILS} onChoose={setVeil} />
      {dark !== null && products && (
        <Explained
          label="darkest part of the products"
          value={`${formatStops(products.leastStops)} → ${formatStops(dark)}`}
        >
          A part of the mean of the frame, {formatStops(whole?.meanStops ?? 0)}, is spread over all of it
          (veiling glare). The figure is that of usual lenses; measure yours against a black hole before a
          white wall.
        </Explained>
      )}
    </Section>
  );
}

const NINTHS = [
  'top left',
  'top',
  'top right',
  'left',
  'middle',
  'right',
  'bottom left',
  'bottom',
  'bottom right',
];
/** Of a region that is to be white, this much may be grey. */
const WHITE_ENOUGH = 0.98;

/** How much of the frame is paper white, and where the ground is not. */
function WhiteRegions({ set, field }: { set: SetDocument; field: FieldTrace }) {
  const { ground, white, ninths } = whiteParts(set, field);
  if (white < 0.02) return null;
  const grey = NINTHS.filter((_, i) => {
    const part = ninths[i];
    return part !== null && part !== undefined && part < WHITE_ENOUGH;
  });
  return (
    <Explained label="paper white in the frame" value={`${Math.round(100 * white)} %`}>
      Places of background and walls at {formatStops(PAPER_WHITE_STOPS)} and over:{' '}
      {Math.round((100 * white) / ground)} % of the background, ninth by ninth.{' '}
      {grey.length === 0 ? 'All of it is white.' : `Not white: ${grey.join(', ')}.`}
    </Explained>
  );
}

const NEAR_M = 2e-3;

/** Whether a point lies on a product, by its bounds. */
function holds(product: Product, point: Vector): boolean {
  const { low, high } = productBounds(product);
  return point.every(
    (value, a) => value >= (low[a] as number) - NEAR_M && value <= (high[a] as number) + NEAR_M,
  );
}

const half = (stops: number | null) => (stops === null ? '–' : formatStops(stops));

function Verdict({ level, over, even }: { level: number; over: number; even: number }) {
  const words = groundInWords(level, over, even);
  return (
    <Box
      role="status"
      data-testid="ground-verdict"
      sx={{ fontSize: '0.8125rem', borderLeft: 3, borderColor: 'primary.main', pl: 1, my: 1 }}
    >
      {words}
    </Box>
  );
}

function groundInWords(level: number, over: number, even: number): string {
  if (level >= PAPER_WHITE_STOPS) {
    if (over > OVER_TO && level - (over - OVER_TO) < PAPER_WHITE_STOPS)
      return `White, and ${over.toFixed(1)} stops over the products: they are dark for it. Raise the light on them by ${(over - OVER_TO).toFixed(1)} or more.`;
    if (over > OVER_TO)
      return `White, but ${(over - OVER_TO).toFixed(1)} stops more than helps: light wraps the edges and veils the dark. Lower its light by as much.`;
    if (over < OVER_FROM)
      return `White, but only ${over.toFixed(1)} stops over the white of the products: their light edges may sink into it. Lower the light on the products, or raise the background by ${(OVER_FROM - over).toFixed(1)}.`;
    const uneven =
      even > EVEN_STOPS
        ? `; ${even.toFixed(1)} stops uneven, which is not seen from ${formatStops(PAPER_WHITE_STOPS)} on`
        : '';
    return `White, and between half and one stop over the products${uneven}.`;
  }
  if (level <= BLACK_STOPS) return 'Black: five stops under mid-tone or more.';
  return level > 0.5
    ? `Light grey: ${(PAPER_WHITE_STOPS - level).toFixed(1)} stops to paper white. Give it a light of its own, so that the products stay as they are.`
    : `Grey: ${(level - BLACK_STOPS).toFixed(1)} stops above black. Take it further from the light, flag the light off it, or turn the light across.`;
}
