import type { Studio } from '@fendrix/contract';
import { LASTING_PART, lastingLoadW } from '@fendrix/core';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Skeleton from '@mui/material/Skeleton';
import Typography from '@mui/material/Typography';
import { useEffect } from 'react';
import { Explained } from '../../shared/Explained';
import { SchemaForm } from '../../shared/form/SchemaForm';
import { studioSchema } from '../../shared/form/schema';
import { Page } from '../../shared/Page';
import { Section } from '../../shared/Section';
import { useEquipment, useKitChanges } from '../kit';
import { RoomPlan } from './RoomPlan';

/** The room the studio works in: walls, windows, table, mains. New sets stand in it. */
export function RoomView() {
  const equipment = useEquipment();
  const { change } = useKitChanges();
  useEffect(() => {
    document.title = 'Room · Fendrix';
  }, []);
  const save = (studio: Studio, words: string) => void change(words, (kit) => ({ ...kit, studio }));
  return (
    <Page title="Room" wide>
      <Typography sx={{ color: 'text.secondary', maxWidth: 640, mb: 2 }}>
        Measure your room once: where the camera can stand, what the walls send back and what the circuit
        bears follows from it. New sets stand in this room; sets that are there keep theirs.
      </Typography>
      {!equipment && <Skeleton height={320} />}
      {equipment && (
        <Box sx={{ display: 'grid', gridTemplateColumns: { md: 'minmax(0, 1fr) 380px' }, gap: 4 }}>
          <Box sx={{ minWidth: 0 }}>
            <RoomPlan
              studio={equipment.studio}
              onMoveTable={(centreM) =>
                save(
                  { ...equipment.studio, bench: { ...equipment.studio.bench, centreM } },
                  'The table is moved.',
                )
              }
            />
            <Mains studio={equipment.studio} />
          </Box>
          <Box sx={{ minWidth: 0 }}>
            <Section title="Figures">
              <SchemaForm
                schema={studioSchema()}
                value={equipment.studio as unknown as Record<string, unknown>}
                onChange={(studio) => save(studio as unknown as Studio, 'The room is saved.')}
              />
            </Section>
          </Box>
        </Box>
      )}
    </Page>
  );
}

function Mains({ studio }: { studio: Studio }) {
  const { breakerA, mainsV, sockets } = studio;
  return (
    <Section title="Mains">
      <Explained label="lamps together at most" value={`${lastingLoadW(studio)} W`}>
        {breakerA} A × {mainsV} V × {LASTING_PART * 100} %, from {sockets} sockets on one breaker. Count
        modelling lamps, heaters and computers too.
      </Explained>
      <Alert severity="warning" icon={false} sx={{ mt: 1 }}>
        A residual-current device on every circuit near water; no extension joints on the floor; tape cables
        down. Flash heads and packs hold charge after they are unplugged: never open them. Local rules and a
        licensed electrician come first.
      </Alert>
    </Section>
  );
}
