import type { OpaqueMaterial, Room } from '@fendrix/contract';
import { MaterialChoice } from './MaterialChoice';
import type { NamedMaterial } from './materialGroups';

/** Matte paints and wood by about what they send back, a part of the light; a wall that was metered has its own figures. */
const FINISHES: readonly NamedMaterial<OpaqueMaterial>[] = [
  { name: 'white', material: { kind: 'matte', reflectance: 0.8 } },
  { name: 'off-white', material: { kind: 'matte', reflectance: 0.7 } },
  { name: 'cream', material: { kind: 'matte', reflectance: [0.78, 0.72, 0.6] } },
  { name: 'light grey', material: { kind: 'matte', reflectance: 0.5 } },
  { name: 'mid grey', material: { kind: 'matte', reflectance: 0.18 } },
  { name: 'dark', material: { kind: 'matte', reflectance: 0.05 } },
  { name: 'light wood', material: { kind: 'matte', reflectance: [0.45, 0.35, 0.24] } },
  { name: 'wood', material: { kind: 'matte', reflectance: [0.32, 0.24, 0.17] } },
  { name: 'dark wood', material: { kind: 'matte', reflectance: [0.14, 0.09, 0.06] } },
  { name: 'red', material: { kind: 'matte', reflectance: [0.5, 0.12, 0.1] } },
  { name: 'green', material: { kind: 'matte', reflectance: [0.2, 0.4, 0.2] } },
  { name: 'blue', material: { kind: 'matte', reflectance: [0.15, 0.25, 0.5] } },
];

const SURFACES = ['walls', 'ceiling', 'floor'] as const;

/** What the walls, the ceiling and the floor of a room are painted or made of, by name. */
export function RoomSurfaces({ room, onChange }: { room: Room; onChange(changes: Partial<Room>): void }) {
  return SURFACES.map((surface) => (
    <MaterialChoice
      key={surface}
      label={surface}
      known={FINISHES}
      material={room[surface]}
      onChoose={(material) => onChange({ [surface]: material })}
    />
  ));
}
