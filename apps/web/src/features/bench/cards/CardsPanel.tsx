import { type CardAnswer, type CardWish, cardTries, offeredCards, type Region } from '@fendrix/core';
import { cardEffects, cardName, cardPlace } from '@fendrix/words';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { memo, useState } from 'react';
import { Choice } from '../../../shared/Choice';
import { useJudgedBy } from '../../kit';
import { TaggedChoice } from '../desk/TaggedChoice';
import { useSession } from '../picture/useSession';
import { benchActions, type CardsState } from '../state/benchSlice';
import { useBench, useBenchDispatch, useSetPart } from '../state/hooks';
import { type Answer, takeChange, useAnswer } from '../state/useAnswer';
import { ShowChange } from '../verdicts/ShowChange';
import { SideHeading } from '../verdicts/SideHeading';

import { useRegion } from './useRegion';

const WHAT: Readonly<Record<CardsState['what'], string>> = {
  'keep-off': 'keep a light off',
  lift: 'more light there',
  mirror: 'a card mirrored',
};
const BY: Readonly<Record<Region['by'], string>> = {
  part: 'label, cap, body',
  face: 'one face',
  thing: 'whole thing',
  brush: 'painted over',
};
const KINDS: Readonly<Record<CardsState['kind'], string>> = {
  white: 'white card',
  black: 'black card',
  frost: 'frame of frost',
  gradient: 'gradient card',
};
const STOPS = [0.3, 0.5, 1, 1.5, 2];

const optionsOf = <T extends string>(words: Readonly<Record<T, string>>) =>
  (Object.keys(words) as T[]).map((value) => ({ value, words: words[value] }));

/** Looks for a card or flag: what for, where in the picture, and what would do it, measured before it is taken. */
export const CardsPanel = memo(function CardsPanel() {
  const cards = useBench((bench) => bench.cards);
  return cards && <CardsForm cards={cards} />;
});

function CardsForm({ cards }: { cards: CardsState }) {
  const dispatch = useBenchDispatch();
  const lights = useSetPart((set) => set.lights);
  const aimed = lights.filter(({ kind, on }) => on && kind !== 'surround');
  const light = aimed.find(({ tag }) => tag === cards.light) ?? aimed[0];
  const change = (changes: Partial<CardsState>) => dispatch(benchActions.cardsChanged(changes));
  const wish = wishOf(cards, light?.tag ?? null);
  const { answer, busy, done, ask, drop } = useCards();
  return (
    <Box component="section" aria-label="Card or flag" sx={{ display: 'grid', gap: 1 }}>
      <Box sx={{ display: 'flex', alignItems: 'center' }}>
        <Box sx={{ flex: 1 }}>
          <SideHeading>Card or flag</SideHeading>
        </Box>
        <Button size="small" color="inherit" onClick={() => dispatch(benchActions.cardsClosed())}>
          Close
        </Button>
      </Box>
      <Choice
        label="What for"
        shown
        value={cards.what}
        options={optionsOf(WHAT)}
        onChoose={(what) => change({ what })}
      />
      {cards.what === 'keep-off' &&
        (light ? (
          <TaggedChoice
            label="Light"
            things={aimed}
            value={light.tag}
            onChoose={(tag) => change({ light: tag })}
          />
        ) : (
          <Box role="status">No light that is on stands anywhere: there is nothing to keep off.</Box>
        ))}
      {cards.what === 'lift' && (
        <Choice
          label="By stops"
          shown
          figures
          value={String(cards.stops)}
          options={STOPS.map((stops) => ({ value: String(stops), words: `+${stops}` }))}
          onChoose={(stops) => change({ stops: Number(stops) })}
        />
      )}
      {cards.what === 'mirror' && (
        <Choice
          label="Mirrors"
          shown
          value={cards.kind}
          options={optionsOf(KINDS)}
          onChoose={(kind) => change({ kind })}
        />
      )}
      <Choice
        label="Place"
        shown
        value={cards.by}
        options={optionsOf(BY)}
        onChoose={(by) => change({ by, pointing: 'region', region: null })}
      />
      <Pointing which="region" words="Point at the place" cards={cards} />
      {cards.what === 'keep-off' && (
        <Pointing which="spare" words="Point at what is left as it is" cards={cards} />
      )}
      <Box>
        <Button size="small" variant="contained" disabled={!wish || busy} onClick={() => wish && ask(wish)}>
          Work it out
        </Button>
      </Box>
      {busy && (
        <Box role="status" sx={{ fontSize: '0.75rem' }}>
          Places are being tried
          <LinearProgress variant="determinate" value={100 * done} aria-label="Places being tried" />
          <Button size="small" onClick={drop}>
            Stop
          </Button>
        </Box>
      )}
      {answer && <Answers answer={answer} />}
    </Box>
  );
}

function wishOf(cards: CardsState, light: string | null): CardWish | null {
  const { region, spare } = cards;
  if (!region) return null;
  if (cards.what === 'keep-off') return light ? { what: 'keep-off', light, region, spare } : null;
  if (cards.what === 'lift') return { what: 'lift', region, stops: cards.stops };
  return { what: 'mirror', region, kind: cards.kind };
}

function Pointing({ which, words, cards }: { which: 'region' | 'spare'; words: string; cards: CardsState }) {
  const dispatch = useBenchDispatch();
  const own = cards[which];
  const found = useRegion(own);
  const pointing = cards.pointing === which;
  const now = cards.by === 'brush' ? 'now paint over it in the picture' : 'now press in the picture';
  return (
    <Box sx={{ fontSize: '0.75rem' }}>
      <Button
        size="small"
        variant="outlined"
        aria-pressed={pointing}
        onClick={() => dispatch(benchActions.cardsChanged({ pointing: pointing ? null : which }))}
      >
        {pointing ? now : words}
      </Button>
      {own && (
        <Button
          size="small"
          color="inherit"
          onClick={() => dispatch(benchActions.cardsChanged({ [which]: null, pointing: which }))}
        >
          Clear
        </Button>
      )}
      {found && (
        <Box role="status" sx={{ color: 'text.secondary' }}>
          {found.places.length === 0 ? 'Nothing is seen there.' : `On ${found.things.join(', ')}.`}
          {found.mirrorPart > 0.5 &&
            cards.what !== 'mirror' &&
            ' It mirrors: light on it does little. Choose “a card mirrored”.'}
        </Box>
      )}
    </Box>
  );
}

/** All ways to meet a wish, each a question of its own. */
function useCards() {
  const session = useSession();
  const { kit } = useJudgedBy();
  const { answer, busy, ask: asked, drop } = useAnswer<readonly CardAnswer[]>();
  const [done, setDone] = useState(0);
  const ask = (wish: CardWish) =>
    void asked(async (set, signal) => {
      if (!session) return null;
      setDone(0);
      const tries = cardTries(wish);
      let tried = 0;
      const found = await Promise.all(
        tries.map(async (one) => {
          const cards = await session.ask({ kind: 'card', wish, one, kit }, set, signal);
          tried++;
          setDone(tried / tries.length);
          return cards ?? [];
        }),
      );
      return offeredCards(found.flat(), wish);
    });
  return { answer, busy, done, ask, drop };
}

function Answers({ answer: { found, old, set } }: { answer: Answer<readonly CardAnswer[]> }) {
  const dispatch = useBenchDispatch();
  if (old) return <Box role="status">The set has moved since: work it out again.</Box>;
  if (!found || found.length === 0)
    return (
      <Box role="status">
        No card of a usual size does this from a place that is free. Try a smaller place, another light, or
        half of it.
      </Box>
    );
  return (
    <Box component="ul" data-testid="cards" sx={{ m: 0, p: 0, listStyle: 'none', fontSize: '0.75rem' }}>
      {found.map((card) => {
        const words = cardName(set, card);
        const place = cardPlace(set, card);
        return (
          <Box component="li" key={JSON.stringify(card.change)} sx={{ mb: 1 }}>
            <Box sx={{ fontWeight: 650 }}>{words}</Box>
            <Box sx={{ color: 'text.secondary' }}>{place}</Box>
            {cardEffects(card).map((effect) => (
              <Box key={effect}>{effect}</Box>
            ))}
            <Button
              size="small"
              variant="outlined"
              onClick={() => {
                dispatch(benchActions.cardsClosed());
                dispatch(takeChange(card.change));
              }}
            >
              Put it there
            </Button>
            <ShowChange change={card.change} words={words} />
          </Box>
        );
      })}
    </Box>
  );
}
