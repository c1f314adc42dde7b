import {
  formatLength,
  formatStops,
  frostLampDistanceM,
  type GradientAnswer,
  type GradientWish,
  type NoGradient,
} from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { Choice } from '../../../../shared/Choice';
import { QuantityField } from '../../../../shared/QuantityField';
import { Section } from '../../../../shared/Section';
import { useSession } from '../../picture/useSession';
import { useBenchDispatch, useSet } from '../../state/hooks';
import { takeChange, useAnswer } from '../../state/useAnswer';
import { stopsQuantity } from '../stopsQuantity';
import { TaggedChoice } from '../TaggedChoice';
import { useDeskFigure } from '../useDeskFigure';

const ENDS: readonly GradientWish['bright'][] = ['bottom', 'top', 'left', 'right', 'middle'];

/** Stands a lamp behind frost for the gradient that is wanted. */
export function FrostSection() {
  const set = useSet();
  const session = useSession();
  const dispatch = useBenchDispatch();
  const frosts = set.sheets.filter(
    (sheet) =>
      'widthM' in sheet && 'heightM' in sheet && sheet.front.kind === 'translucent' && sheet.kind !== 'tent',
  );
  const lights = set.lights.filter(({ kind }) => kind !== 'surround' && kind !== 'window');
  const [tag, setTag] = useDeskFigure('frost tag', '');
  const [sheetTag, setSheetTag] = useDeskFigure('frost sheet tag', '');
  const [bright, setBright] = useDeskFigure<GradientWish['bright']>('frost bright', 'bottom');
  const [stops, setStops] = useDeskFigure('frost stops', 3);
  const { answer, busy, ask, drop } = useAnswer<GradientAnswer | NoGradient>();
  const light = lights.find((own) => own.tag === tag) ?? lights[0];
  const sheet = frosts.find((own) => own.tag === sheetTag) ?? frosts[0];
  if (!sheet || !light) {
    return (
      <Section title="Gradient by a lamp behind frost">
        <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
          Put a frame of frost and a light on the set first: press A and look for gradient.
        </Box>
      </Section>
    );
  }
  const length =
    'heightM' in sheet ? (bright === 'left' || bright === 'right' ? sheet.widthM : sheet.heightM) : 1;

  const solve = (wish: GradientWish) =>
    ask(async (_set, signal) => session?.ask({ kind: 'gradient', wish }, undefined, signal) ?? null);

  return (
    <Section title="Gradient by a lamp behind frost">
      <TaggedChoice label="lamp" things={lights} value={light.tag} onChoose={setTag} />
      <TaggedChoice label="frost" things={frosts} value={sheet.tag} onChoose={setSheetTag} />
      <Choice label="bright at its" shown value={bright} options={ENDS} onChoose={setBright} />
      <QuantityField
        label="bright over dark end"
        shown={formatStops(stops)}
        parse={(text) => {
          const value = stopsQuantity.parse(text);
          return value !== null && value > 0.1 && value < 12 ? value : null;
        }}
        example="3"
        onCommit={setStops}
      />
      <Box sx={{ fontSize: '0.75rem', color: 'text.secondary', my: 0.5 }}>
        By the ideal sheet (cos⁴/d²) the lamp would stand{' '}
        {formatLength(frostLampDistanceM(bright === 'middle' ? length / 2 : length, stops))} behind its bright
        end; its beam and the haze of the frost are then traced.
      </Box>
      <Button
        size="small"
        variant="outlined"
        disabled={busy}
        onClick={() => void solve({ light: light.tag, sheet: sheet.tag, bright, differenceStops: stops })}
      >
        Find the place
      </Button>
      {busy && (
        <Box sx={{ mt: 1, fontSize: '0.8125rem' }} role="status">
          Places behind the frost are being traced
          <LinearProgress aria-label="Places being traced" sx={{ my: 0.5 }} />
          <Button size="small" onClick={drop}>
            Stop
          </Button>
        </Box>
      )}
      {answer?.found && (
        <Box sx={{ mt: 1, fontSize: '0.8125rem' }} role="status" data-testid="gradient">
          {'refused' in answer.found ? refusalInWords(answer.found) : answerInWords(answer.found)}
          {answer.old && <Box>The set has moved since: find the place again.</Box>}
          {!('refused' in answer.found) && (
            <Button
              size="small"
              disabled={answer.old}
              onClick={() =>
                answer.found && 'change' in answer.found && dispatch(takeChange(answer.found.change))
              }
            >
              Stand it there
            </Button>
          )}
        </Box>
      )}
    </Section>
  );
}

function answerInWords({ lampDistanceM, reachedStops, limited, by, hiddenBy }: GradientAnswer): string {
  const why = {
    nearest:
      'It cannot fall off faster: the lamp stands as near as it can, or is too large or too well spread.',
    farthest: 'It falls off more than that even from far: take denser frost.',
    cramped: `It falls off more than that: ${by?.name ?? 'something'} stands close behind the frost. Move the frost away from it, or take denser frost.`,
  };
  return [
    `${formatLength(lampDistanceM)} behind the frost: ${formatStops(reachedStops)} from end to end, as traced in this set.`,
    ...(limited ? [why[limited]] : []),
    ...(hiddenBy ? [`The picture does not show this frost: ${hiddenBy.name} stands before it.`] : []),
  ].join(' ');
}

function refusalInWords({ refused, by }: NoGradient): string {
  const what = by?.name ?? 'something';
  switch (refused) {
    case 'opaque':
      return 'No light comes through this sheet: take frost, or a translucent background.';
    case 'no-room':
      return `There is no place for a lamp behind this frost: ${what} stands right behind it. Move the frost away from it, or take a translucent background in its place.`;
    case 'dark':
      return `None of the lamp's light comes through to the front: something stands in its way. Turn the frost, or clear what is between.`;
  }
}
