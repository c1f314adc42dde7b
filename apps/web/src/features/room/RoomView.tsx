import { type Bench, checkStudio, fieldPath, type Problem, type Room, type Studio } from '@fendrix/contract';
import { LASTING_PART, lastingLoadW } from '@fendrix/core';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Skeleton from '@mui/material/Skeleton';
import Typography from '@mui/material/Typography';
import { useEffect } from 'react';
import { problemWords } from '../../shared/document/problemWords';
import { Explained } from '../../shared/Explained';
import { SchemaForm } from '../../shared/form/SchemaForm';
import { studioSchema, surroundingSchema } from '../../shared/form/schema';
import { MaterialChoice } from '../../shared/materials/MaterialChoice';
import { RoomSurfaces } from '../../shared/materials/RoomSurfaces';
import { Page } from '../../shared/Page';
import { tellRefusal } from '../../shared/refusals';
import { Section } from '../../shared/Section';
import { useEquipment, useKitChanges, useKitMaterials } from '../kit';
import { RoomPlan } from './RoomPlan';

/** The room the studio works in: walls, windows, table, mains. New sets stand in it. */
export function RoomView() {
  const equipment = useEquipment();
  const { change } = useKitChanges();
  useEffect(() => {
    document.title = 'Room · Fendrix';
  }, []);
  const save = (studio: Studio, words: string) => {
    const problems: Problem[] = [];
    checkStudio(studio, (path, message) => problems.push({ path: fieldPath(path), message }));
    const [problem] = problems;
    if (problem) return tellRefusal(problemWords(problem, studio));
    void change(words, (kit) => ({ ...kit, studio }));
  };
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
            <StudioFigures
              studio={equipment.studio}
              onChange={(studio) => save(studio, 'The room is saved.')}
            />
          </Box>
        </Box>
      )}
    </Page>
  );
}

const BY_NAME: ReadonlySet<string> = new Set(['walls', 'ceiling', 'floor', 'material']);
const ELSEWHERE: ReadonlySet<string> = new Set(['room', 'bench']);

/** All figures of the studio: walls and tabletop by name, the rest by measure. */
function StudioFigures({ studio, onChange }: { studio: Studio; onChange(studio: Studio): void }) {
  const tops = useKitMaterials('tabletop');
  const { room, bench } = studio;
  return (
    <>
      <Section title="Walls, ceiling, floor">
        <RoomSurfaces
          room={room}
          onChange={(changes) => onChange({ ...studio, room: { ...room, ...changes } })}
        />
        <SchemaForm
          schema={surroundingSchema('room')}
          value={room}
          hidden={BY_NAME}
          onChange={(changed) => onChange({ ...studio, room: changed as Room })}
        />
      </Section>
      <Section title="Table">
        <MaterialChoice
          label="tabletop"
          known={tops}
          material={bench.material}
          onChoose={(material) => onChange({ ...studio, bench: { ...bench, material } })}
        />
        <SchemaForm
          schema={surroundingSchema('bench')}
          value={bench}
          hidden={BY_NAME}
          onChange={(changed) => onChange({ ...studio, bench: changed as Bench })}
        />
      </Section>
      <Section title="Windows and mains">
        <SchemaForm
          schema={studioSchema()}
          value={studio as unknown as Record<string, unknown>}
          hidden={ELSEWHERE}
          onChange={(changed) => onChange(changed as unknown as Studio)}
        />
      </Section>
    </>
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
