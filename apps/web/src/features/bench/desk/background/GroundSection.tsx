import type { SetDocument } from '@fendrix/contract';
import {
  type FieldTrace,
  formatStops,
  frameLevels,
  greyNinths,
  groundLights,
  judgeGround,
  PAPER_WHITE_STOPS,
  productWhite,
  rimWrap,
  veiledDarkest,
  whiteGroundStops,
  whiteParts,
} from '@fendrix/core';
import { groundVerdictWords, ninthsWords } from '@fendrix/words';
import Box from '@mui/material/Box';
import { Choice } from '../../../../shared/Choice';
import { Explained } from '../../../../shared/Explained';
import { Section } from '../../../../shared/Section';
import { useReadings, useSet } from '../../state/hooks';
import { useDeskFigure } from '../useDeskFigure';
import { GroundCures } from './GroundCures';
import { useFrameRead } from './useFrameRead';

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
  const [chosen, setChosen] = useDeskFigure('ground white', '');
  if (!read) {
    return (
      <Section title="The background">
        <Box role="status" sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
          Being read
        </Box>
      </Section>
    );
  }
  const levels = frameLevels(set, read.field);
  const { ground, table, products, whole } = levels;
  if (!ground) {
    return (
      <Section title="The background">
        <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
          No background or wall is in the frame: the table is the background here.
        </Box>
      </Section>
    );
  }
  const white = productWhite(set, readings, levels, chosen === '' ? null : chosen);
  const own = new Set(groundLights(set, read.field).flatMap((light) => (light.own ? [light.tag] : [])));
  const wrap = rimWrap(set, read.rims, own);
  const dark = veiledDarkest(levels, Number(veil));
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
        value={white?.spot ?? ANY}
        options={[
          { value: ANY, words: 'their brightest place' },
          ...readings.flatMap(({ name, stopsFromMidTone }) =>
            stopsFromMidTone === null ? [] : [{ value: name, words: name }],
          ),
        ]}
        onChoose={setChosen}
      />
      {white && (
        <Explained label="background over that" value={formatStops(ground.meanStops - white.stops)}>
          The background at {formatStops(ground.meanStops)}, the white of the products at{' '}
          {formatStops(white.stops)}.
        </Explained>
      )}
      {table && (
        <Explained label="table" value={formatStops(table.meanStops)}>
          Mean of what is seen of the table.
        </Explained>
      )}
      <Box
        role="status"
        data-testid="ground-verdict"
        sx={{ fontSize: '0.8125rem', borderLeft: 3, borderColor: 'primary.main', pl: 1, my: 1 }}
      >
        {groundVerdictWords(judgeGround(ground, white))}
      </Box>
      <WhiteRegions set={set} field={read.field} />
      <GroundCures
        field={read.field}
        level={ground.meanStops}
        wanted={whiteGroundStops(white?.stops ?? null)}
        veil={Number(veil)}
      />
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

/** Less white in the frame than this is not told. */
const LEAST_WHITE = 0.02;

/** How much of the frame is paper white, and where the ground is not. */
function WhiteRegions({ set, field }: { set: SetDocument; field: FieldTrace }) {
  const parts = whiteParts(set, field);
  const { ground, white } = parts;
  if (white < LEAST_WHITE) return null;
  const grey = greyNinths(parts);
  return (
    <Explained label="paper white in the frame" value={`${Math.round(100 * white)} %`}>
      Places of background and walls at {formatStops(PAPER_WHITE_STOPS)} and over:{' '}
      {Math.round((100 * white) / ground)} % of the background, ninth by ninth.{' '}
      {grey.length === 0 ? 'All of it is white.' : `Not white: ${ninthsWords(grey)}.`}
    </Explained>
  );
}

const half = (stops: number | null) => (stops === null ? '–' : formatStops(stops));
