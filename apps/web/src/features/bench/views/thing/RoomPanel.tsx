import type { OpaqueMaterial, Room } from '@fendrix/contract';
import { surroundingSchema } from '../../../../shared/form/schema';
import { MaterialChoice } from '../../../../shared/materials/MaterialChoice';
import type { NamedMaterial } from '../../../../shared/materials/materialGroups';
import { changedSince } from '../../state/edit';
import { useBenchDispatch } from '../../state/hooks';
import { changeRoom, SURROUNDING_NAMES } from '../../state/surroundings';
import { edit } from '../../state/thunks';
import { LengthField } from './LengthField';
import { AllFigures, type PanelProps, RemoveButton, Title } from './ThingFields';

/** Matte paints and wood by about what they send back, a part of the light; a wall that was metered has its own figures. */
const FINISHES: readonly NamedMaterial<OpaqueMaterial>[] = [
  { name: 'white', material: { kind: 'matte', reflectance: 0.82 } },
  { name: 'cream', material: { kind: 'matte', reflectance: [0.78, 0.72, 0.6] } },
  { name: 'light grey', material: { kind: 'matte', reflectance: 0.5 } },
  { name: 'mid grey', material: { kind: 'matte', reflectance: 0.18 } },
  { name: 'dark', material: { kind: 'matte', reflectance: 0.05 } },
  { name: 'light wood', material: { kind: 'matte', reflectance: [0.45, 0.35, 0.24] } },
  { name: 'dark wood', material: { kind: 'matte', reflectance: [0.14, 0.09, 0.06] } },
  { name: 'red', material: { kind: 'matte', reflectance: [0.5, 0.12, 0.1] } },
  { name: 'green', material: { kind: 'matte', reflectance: [0.2, 0.4, 0.2] } },
  { name: 'blue', material: { kind: 'matte', reflectance: [0.15, 0.25, 0.5] } },
];

const SURFACES = [
  ['walls', 'walls'],
  ['ceiling', 'ceiling'],
  ['floor', 'floor'],
] as const;

const SHOWN = new Set([
  'widthM',
  'depthM',
  'heightM',
  'markFromLeftM',
  'markFromFrontM',
  'walls',
  'ceiling',
  'floor',
]);

/** The room that this set stands in: its size, where the mark is in it, and what its walls send back. */
export function RoomPanel({ set, thing }: PanelProps) {
  const dispatch = useBenchDispatch();
  const { room } = set;
  if (!room) return null;
  const change = (changes: Partial<Room>) => dispatch(edit(changeRoom(changes)));
  return (
    <>
      <Title name={SURROUNDING_NAMES.room} kind="changes here are for this set alone" />
      {SURFACES.map(([surface, words]) => (
        <MaterialChoice
          key={surface}
          label={words}
          known={FINISHES}
          material={room[surface]}
          onChoose={(material) => change({ [surface]: material })}
        />
      ))}
      <LengthField label="width" valueM={room.widthM} onCommit={(widthM) => change({ widthM })} />
      <LengthField label="depth" valueM={room.depthM} onCommit={(depthM) => change({ depthM })} />
      <LengthField label="height" valueM={room.heightM} onCommit={(heightM) => change({ heightM })} />
      <LengthField
        label="mark to left wall"
        valueM={room.markFromLeftM}
        onCommit={(markFromLeftM) => change({ markFromLeftM })}
      />
      <LengthField
        label="mark to front wall"
        valueM={room.markFromFrontM}
        onCommit={(markFromFrontM) => change({ markFromFrontM })}
      />
      <AllFigures
        schema={surroundingSchema('room')}
        value={room}
        hidden={SHOWN}
        onChange={(changed) =>
          dispatch(
            edit((old) => (old.room ? { ...old, room: changedSince(room, changed as Room, old.room) } : old)),
          )
        }
      />
      <RemoveButton thing={thing} />
    </>
  );
}
