import { chanceOfMoment, triesFor } from '@fendrix/core';
import { Explained } from '../../../../shared/Explained';
import { timeQuantity } from '../../../../shared/form/words';
import { QuantityField } from '../../../../shared/QuantityField';
import { Section } from '../../../../shared/Section';
import { within } from '../../../../shared/useTyped';
import { countQuantity } from '../stopsQuantity';
import type { MovementFigures } from './kinds';

interface TriesSectionProps {
  figures: MovementFigures;
  onChange(changes: Partial<MovementFigures>): void;
}

/** The chance of a try, and how many tries and portions it takes. */
export function TriesSection({ figures: own, onChange: put }: TriesSectionProps) {
  const chance = chanceOfMoment(own.lastsS, own.windowS, Math.max(1, Math.round(own.frames)));
  const tries = triesFor(Math.min(1, Math.max(1e-4, chance)), own.confidence);
  return (
    <Section title="Tries and spares">
      <QuantityField
        label="the movement lasts"
        shown={timeQuantity.format(own.lastsS)}
        parse={within(timeQuantity.parse, timeQuantity.format, { from: 1e-4 })}
        example="3 s"
        onCommit={(lastsS) => put({ lastsS })}
      />
      <QuantityField
        label="of it is wanted"
        shown={timeQuantity.format(own.windowS)}
        parse={within(timeQuantity.parse, timeQuantity.format, { from: 1e-4 })}
        example="0.3 s"
        onCommit={(windowS) => put({ windowS })}
      />
      <QuantityField
        label="frames in one try"
        shown={countQuantity.format(own.frames)}
        parse={countQuantity.parse}
        example="5"
        onCommit={(frames) => put({ frames })}
      />
      <QuantityField
        label="sure to, %"
        shown={String(Math.round(100 * own.confidence))}
        parse={(text) => {
          const value = Number(text.replace('%', '').trim());
          return value > 0 && value < 100 ? value / 100 : null;
        }}
        example="90"
        onCommit={(confidence) => put({ confidence })}
      />
      <Explained label="chance of a try" value={`${(100 * chance).toFixed(0)} %`}>
        1 − (1 − w/T)ⁿ: {own.windowS} s wanted of {own.lastsS} s, {Math.round(own.frames)} frames at times
        nobody controls. A flash that recycles in time, or a trigger, raises it.
      </Explained>
      <Explained label="tries, so portions to have ready" value={String(tries)}>
        ln(1 − c) / ln(1 − p), rounded up. One portion each, and one spare to set the focus on.
      </Explained>
    </Section>
  );
}
