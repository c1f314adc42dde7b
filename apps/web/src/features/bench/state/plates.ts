import type { MaskArea, MaskPiece, Plate, SetDocument } from '@fendrix/contract';
import { type ProposedPlate, startedPlate } from '@fendrix/core';
import type { Edit } from './edit';

/** Most discs of one painted piece, see the contract. */
const MOST_STROKES = 4000;

/** A plate as it begins, with a name and an id that no other has. */
export function newPlate(plates: readonly Plate[], proposed: ProposedPlate, name: string): Plate {
  const taken = (id: string, own: string) => plates.some((plate) => plate.id === id || plate.name === own);
  let [id, own] = [`plate-${plates.length + 1}`, name];
  for (let i = 2; taken(id, own); i++) [id, own] = [`plate-${plates.length + i}`, `${name} ${i}`];
  return startedPlate({ id, name: own }, proposed);
}

export const addPlates =
  (added: readonly Plate[]): Edit =>
  (set) => ({ ...set, plates: [...set.plates, ...added] });

export const removePlate =
  (id: string): Edit =>
  (set) => ({ ...set, plates: set.plates.filter((plate) => plate.id !== id) });

/** A field that is given as undefined is as the set has it from then on. */
export const changePlate =
  (id: string, change: (plate: Plate) => { [Field in keyof Plate]?: Plate[Field] | undefined }): Edit =>
  (set) => ({
    ...set,
    plates: set.plates.map((plate) => (plate.id === id ? given({ ...plate, ...change(plate) }) : plate)),
  });

const given = (plate: { [Field in keyof Plate]?: Plate[Field] | undefined }): Plate =>
  Object.fromEntries(Object.entries(plate).filter(([, value]) => value !== undefined)) as Plate;

/** Lays a plate one place higher or lower among the others. */
export const movePlate =
  (id: string, by: 1 | -1): Edit =>
  (set) => {
    const from = set.plates.findIndex((plate) => plate.id === id);
    const to = from + by;
    if (from < 0 || to < 0 || to >= set.plates.length) return set;
    const plates = [...set.plates];
    plates.splice(to, 0, ...plates.splice(from, 1));
    return { ...set, plates };
  };

type OwnLight = Omit<Plate['lights'][number], 'tag'>;

/** Sets a light otherwise for a plate; null for as the set has it. */
export const setPlateLight = (id: string, tag: string, light: OwnLight | null): Edit =>
  changePlate(id, ({ lights }) => ({
    lights: [...lights.filter((own) => own.tag !== tag), ...(light ? [{ tag, ...light }] : [])].sort((a, b) =>
      a.tag.localeCompare(b.tag),
    ),
  }));

export const addPiece = (id: string, area: MaskArea, leaveOut: boolean): Edit =>
  changePlate(id, ({ mask }) => ({ mask: [...mask, { area, leaveOut }] }));

export const changePiece = (id: string, at: number, change: (piece: MaskPiece) => MaskPiece | null): Edit =>
  changePlate(id, ({ mask }) => ({
    mask: mask.flatMap((piece, index) => (index === at ? (change(piece) ?? []) : piece)),
  }));

/** A disc more of what is being painted: goes on with the last piece where that is painted alike. */
export function paintOver(
  id: string,
  stroke: { across: number; down: number; radius: number },
  leaveOut: boolean,
): Edit {
  return changePlate(id, ({ mask }) => {
    const last = mask.at(-1);
    if (last?.area.by !== 'brush' || last.leaveOut !== leaveOut) {
      return { mask: [...mask, { area: { by: 'brush', strokes: [stroke] }, leaveOut }] };
    }
    if (last.area.strokes.length >= MOST_STROKES) return {};
    const area = { by: 'brush' as const, strokes: [...last.area.strokes, stroke] };
    return { mask: [...mask.slice(0, -1), { area, leaveOut }] };
  });
}

export const plateOf = ({ plates }: Pick<SetDocument, 'plates'>, id: string | null): Plate | undefined =>
  plates.find((plate) => plate.id === id);
