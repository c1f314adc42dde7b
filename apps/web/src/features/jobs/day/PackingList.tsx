import { type PackedThing, packingList } from '@fendrix/core';
import { backdropWords } from '@fendrix/words';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { PlainTable } from '../../../shared/PlainTable';
import { Section } from '../../../shared/Section';
import { kitApi } from '../../kit';
import type { PictureSteps } from './useBuildSteps';

const KINDS: Readonly<Record<PackedThing['what'], string>> = {
  body: 'Camera',
  lens: 'Lens',
  light: 'Light',
  sheet: 'Card, flag or frost',
  background: 'Background',
  product: 'Product',
};

/** What has to be there on the day, what the kit has not first. */
export function PackingList({ pictures }: { pictures: readonly PictureSteps[] }) {
  const { data: kit } = kitApi.useReadKitQuery();
  if (!kit) return null;
  const all = packingList(
    pictures.map(({ shot, set }) => ({ name: shot.name, set })),
    kit.document,
  );
  return (
    <Section title="Packing list">
      <PlainTable name="packing">
        <thead>
          <tr>
            <th scope="col">What</th>
            <th scope="col">How many</th>
            <th scope="col">Name</th>
            <th scope="col">For</th>
          </tr>
        </thead>
        <tbody>
          {all.map(({ what, name, count, pictures: needed, inKit, instead }) => (
            <tr key={`${what} ${inKit} ${name}`}>
              <td>{KINDS[what]}</td>
              <td className="number">{count}</td>
              <th scope="row" style={{ fontWeight: 500 }}>
                {what === 'background' ? backdropWords(name) : name}
                {inKit === false && (
                  <Box component="div" sx={{ color: 'warning.main', fontWeight: 400 }}>
                    Not in the kit{instead.length > 0 && `; could stand in: ${instead.join(', ')}`}
                  </Box>
                )}
              </th>
              <td>{needed.length === pictures.length ? 'all pictures' : needed.join(', ')}</td>
            </tr>
          ))}
        </tbody>
      </PlainTable>
      <Typography sx={{ color: 'text.secondary', fontSize: '0.75rem', mt: 1, maxWidth: 640 }}>
        Besides: charged batteries and a spare, an empty memory card, stands, clamps and sandbags, tape and a
        tape measure, cloths, gloves and a blower.
      </Typography>
    </Section>
  );
}
