import type { FrameAgainstPlan } from '@fendrix/contract';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import { PlainTable } from '../../../shared/PlainTable';
import { Note } from './Note';

/** Nothing of a product is sharp if it is so much more blurred than its sharpest part was planned to be. */
const SOFTER = 2;

const names = new Intl.ListFormat('en', { type: 'conjunction' });

/** How sharp the products of a frame are. */
export function FrameSharpness({ found: { sharpness } }: { found: FrameAgainstPlan }) {
  const { products, resolvedPx, isTooSmall, limitPx } = sharpness;
  if (products.length === 0)
    return (
      <Box sx={{ my: 1 }}>
        {isTooSmall
          ? 'This file is too small to tell how sharp the frame is.'
          : 'No clear edge tells how sharp the frame is.'}
      </Box>
    );
  const soft = products.filter(
    ({ blurPx, plannedPx }) => blurPx > Math.max(limitPx, resolvedPx, SOFTER * plannedPx),
  );
  const px = (value: number) =>
    value < resolvedPx ? `under ${resolvedPx.toFixed(0)} px` : `${value.toFixed(0)} px`;
  return (
    <Box component="section" aria-label="Sharpness" sx={{ my: 1 }}>
      {soft.length > 0 && (
        <Alert severity="warning" sx={{ mb: 1 }}>
          Nothing of {names.format(soft.map(({ name }) => name))} is sharp. See to the focus by the live view
          at full size, and to what may have shaken.
        </Alert>
      )}
      <PlainTable name="sharpness of the frame">
        <thead>
          <tr>
            <th scope="col">Its sharpest edges</th>
            <th scope="col">are blurred by</th>
            <th scope="col">planned</th>
          </tr>
        </thead>
        <tbody>
          {products.map(({ name, blurPx, plannedPx }) => (
            <tr key={name}>
              <th scope="row">{name}</th>
              <td className="number">{px(blurPx)}</td>
              <td className="number">{px(plannedPx)}</td>
            </tr>
          ))}
        </tbody>
      </PlainTable>
      <Note>
        Circles of blur on the sensor, by outlines and print; over {limitPx.toFixed(0)} px is seen as soft.
        Whether each part is as sharp as planned is not told: shading is soft in focus too.
      </Note>
    </Box>
  );
}
