import type { Room } from '@fendrix/contract';
import { surroundingSchema } from '../../../../shared/form/schema';
import { RoomSurfaces } from '../../../../shared/materials/RoomSurfaces';
import { changedSince } from '../../state/edit';
import { useBenchDispatch } from '../../state/hooks';
import { changeRoom, SURROUNDING_NAMES } from '../../state/surroundings';
import { edit } from '../../state/thunks';
import { LengthField } from './LengthField';
import { AllFigures, type PanelProps, RemoveButton, Title } from './ThingFields';

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
      <RoomSurfaces room={room} onChange={change} />
      <LengthField label="width" valueM={room.widthM} onCommit={(widthM) => change({ widthM })} />
      <LengthField label="depth" valueM={room.depthM} onCommit={(depthM) => change({ depthM })} />
      <LengthField label="height" valueM={room.heightM} onCommit={(heightM) => change({ heightM })} />
      <LengthField
        label="centre to left wall"
        valueM={room.markFromLeftM}
        onCommit={(markFromLeftM) => change({ markFromLeftM })}
      />
      <LengthField
        label="centre to front wall"
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
