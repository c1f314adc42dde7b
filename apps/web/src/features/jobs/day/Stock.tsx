import type { Shot } from '@fendrix/contract';
import { type StockOf, stockOf } from '@fendrix/core';
import { durationWords } from '@fendrix/words';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { PlainTable } from '../../../shared/PlainTable';
import { Section } from '../../../shared/Section';
import { useDayAtHand } from './dayAtHand';

/** What is used up by being photographed, and how far it reaches. @param order pictures still to be taken */
export function Stock({ order }: { order: readonly Shot[] }) {
  const { job, act } = useDayAtHand();
  const taken = job.shots.filter(({ done }) => done);
  const all = job.products.flatMap((product) => stockOf(product, order, taken) ?? []);
  if (all.length === 0) return null;
  const use = ({ product: { id, usedUp } }: StockOf, by: 1 | -1) =>
    act({ kind: 'piece', product: id, usedUp: Math.max(0, usedUp + by) });
  return (
    <Section title="What is used up">
      {all.map(
        ({ product, endsAt, left, needed }) =>
          endsAt && (
            <Alert key={product.id} severity="warning" sx={{ mb: 1, maxWidth: 640 }}>
              “{product.name}” will come to an end with “{endsAt.name}”: {left} at hand,{' '}
              {Math.ceil(needed as number)} needed. Get more, plan less time under the lights, or take that
              picture sooner.
            </Alert>
          ),
      )}
      <PlainTable name="stock">
        <thead>
          <tr>
            <th scope="col">Product</th>
            <th scope="col">At hand</th>
            <th scope="col">Used up</th>
            <th scope="col">Still needed</th>
            <th scope="col">Why</th>
          </tr>
        </thead>
        <tbody>
          {all.map((stock) => (
            <tr key={stock.product.id}>
              <th scope="row">{stock.product.name}</th>
              <td className="number">{stock.left}</td>
              <td>
                <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.5 }}>
                  <span className="number">{stock.product.usedUp}</span>
                  <Button
                    size="small"
                    sx={{ minWidth: 32, py: 0 }}
                    aria-label={`${stock.product.name}: one more used up`}
                    onClick={() => use(stock, 1)}
                  >
                    +1
                  </Button>
                  <Button
                    size="small"
                    sx={{ minWidth: 32, py: 0 }}
                    disabled={stock.product.usedUp === 0}
                    aria-label={`${stock.product.name}: one less used up`}
                    onClick={() => use(stock, -1)}
                  >
                    −1
                  </Button>
                </Box>
              </td>
              <td className="number">{stock.needed === null ? 'not known' : Math.ceil(stock.needed)}</td>
              <td>{whyWords(stock, taken)}</td>
            </tr>
          ))}
        </tbody>
      </PlainTable>
    </Section>
  );
}

function whyWords({ product, perPicture, needed }: StockOf, taken: readonly Shot[]): string {
  const { minutesOnSet } = product;
  if (needed === null)
    return 'Say with the product how long it lasts on the set, or take two pictures first.';
  if (!perPicture) return 'No picture is left that shows it.';
  const done = taken.filter(({ products }) => products.includes(product.id)).length;
  return perPicture.by === 'taken'
    ? `${product.usedUp} used up for ${done} pictures taken.`
    : `It lasts ${durationWords(minutesOnSet as number)}; each picture takes a fresh one as often as its minutes ask for.`;
}
