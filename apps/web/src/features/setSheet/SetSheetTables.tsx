import type { SetSheetWords } from '@fendrix/words';
import Box from '@mui/material/Box';
import { PlainTable } from '../../shared/PlainTable';
import { Section } from '../../shared/Section';

const small = { color: 'text.secondary', fontSize: '0.8125rem', maxWidth: 720 } as const;

/** What a set sheet says beside its picture, and what it says for building. */
export function SetSheetTables({ words, part }: { words: SetSheetWords; part: 'picture' | 'building' }) {
  if (part === 'picture')
    return (
      <Box>
        <Section title="Camera">
          <PlainTable name="sheet camera">
            <tbody>
              {words.camera.map(({ label, value }) => (
                <tr key={label}>
                  <th scope="row">{label}</th>
                  <td className="number">{value}</td>
                </tr>
              ))}
            </tbody>
          </PlainTable>
        </Section>
        <Section title="Tones at the spots, stops from mid-tone">
          {words.tones.length === 0 ? (
            <Box sx={small}>
              No spot is pinned. Pin one on the bench (point at it, press P): the sheet then says its tone,
              and how far each light may be off before it changes.
            </Box>
          ) : (
            <PlainTable name="sheet tones">
              <tbody>
                {words.tones.map(({ spot, tone, wanted }) => (
                  <tr key={spot}>
                    <th scope="row">{spot}</th>
                    <td className="number">{tone}</td>
                    <td>{wanted && `wanted ${wanted}`}</td>
                  </tr>
                ))}
              </tbody>
            </PlainTable>
          )}
        </Section>
      </Box>
    );
  return (
    <>
      <Section title="Where things stand">
        <Box sx={small}>
          Distances from the centre of the set, heights over the table; bearings from the centre: front is the
          side of the camera. {words.tapes}
        </Box>
        <PlainTable name="sheet things">
          <thead>
            <tr>
              {['Thing', 'Stands', 'Two tapes', 'Height', 'Faces', 'Set to', 'May be off by'].map((head) => (
                <th key={head} scope="col">
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {words.things.map((thing) => (
              <tr key={`${thing.name} ${thing.stands}`}>
                <th scope="row">{thing.name}</th>
                <td className="number">{thing.stands}</td>
                <td className="number">{thing.tapes}</td>
                <td className="number">{thing.height}</td>
                <td className="number">{thing.faces}</td>
                <td>{thing.set}</td>
                <td>{thing.mayBeOff}</td>
              </tr>
            ))}
          </tbody>
        </PlainTable>
      </Section>
      {words.closest.length > 0 && (
        <Section title="To be held closest">
          <Lines lines={words.closest} />
          <Box sx={small}>
            Each taken alone. What is moved stays aimed at the same point; a change is taken to grow evenly.
          </Box>
        </Section>
      )}
      <Section title="Order of building">
        <Lines lines={words.order} />
      </Section>
      {words.cautions.length > 0 && (
        <Section title="Cautions">
          {words.cautions.map((caution) => (
            <Box key={caution} sx={{ maxWidth: 720, mb: 0.5 }}>
              {caution}
            </Box>
          ))}
          <Box sx={small}>Local codes and qualified people come first.</Box>
        </Section>
      )}
    </>
  );
}

function Lines({ lines }: { lines: readonly string[] }) {
  return (
    <Box component="ol" sx={{ my: 0, pl: 3, maxWidth: 720 }}>
      {lines.map((line, i) => (
        <li key={`${i} ${line}`}>{line}</li>
      ))}
    </Box>
  );
}
