import type { OpaqueMaterial } from '@fendrix/contract';
import equal from 'fast-deep-equal';
import { Choice } from '../../../../shared/Choice';
import { kitApi } from '../../../kit';

const OPAQUE: ReadonlySet<string> = new Set(['matte', 'coated', 'cloth', 'mirror', 'metal']);
const OWN = 'own';

/** An opaque material by its name in the kit; one that is in none is its own. */
export function MaterialChoice({
  label,
  material,
  onChoose,
}: {
  label: string;
  material: OpaqueMaterial;
  onChoose(material: OpaqueMaterial): void;
}) {
  const { data } = kitApi.useReadKitQuery();
  const known = (data?.document.entries ?? []).flatMap((entry) =>
    entry.what === 'material' && OPAQUE.has(entry.thing.kind)
      ? [{ id: entry.id, name: entry.name, material: entry.thing as OpaqueMaterial }]
      : [],
  );
  const now = known.find((one) => equal(one.material, material))?.id ?? OWN;
  return (
    <Choice
      shown
      label={label}
      value={now}
      options={[
        ...(now === OWN ? [{ value: OWN, words: 'its own figures' }] : []),
        ...known.map(({ id, name }) => ({ value: id, words: name })),
      ]}
      onChoose={(id) => {
        const found = known.find((one) => one.id === id);
        if (found) onChoose(found.material);
      }}
    />
  );
}
