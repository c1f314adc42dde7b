import type { SetDocument } from '@fendrix/contract';
import { Choice } from '../../shared/Choice';

/** Stands for the frame of the set itself. */
const SET = '';

/** One of the frames that a picture is put together from; nothing where it is a single one. */
export function PlateChoice({
  label,
  set,
  plate,
  onChoose,
}: {
  label: string;
  set: Pick<SetDocument, 'plates'> | undefined;
  plate: string | null;
  onChoose(plate: string | null): void;
}) {
  const plates = set?.plates ?? [];
  if (plates.length === 0) return null;
  return (
    <Choice
      shown
      label={label}
      value={plates.some(({ id }) => id === plate) ? (plate as string) : SET}
      options={[
        { value: SET, words: 'the set as it stands' },
        ...plates.map(({ id, name }) => ({ value: id, words: `plate “${name}”` })),
      ]}
      onChoose={(id) => onChoose(id === SET ? null : id)}
    />
  );
}
