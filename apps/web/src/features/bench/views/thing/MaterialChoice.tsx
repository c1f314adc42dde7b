import type { OpaqueMaterial } from '@fendrix/contract';
import equal from 'fast-deep-equal';
import { Choice } from '../../../../shared/Choice';

export interface NamedMaterial {
  name: string;
  material: OpaqueMaterial;
}

const OWN = 'its own figures';

/** An opaque material by the name that it is known by; one that is not known goes by its own figures. */
export function MaterialChoice({
  label,
  material,
  known,
  onChoose,
}: {
  label: string;
  material: OpaqueMaterial;
  known: readonly NamedMaterial[];
  onChoose(material: OpaqueMaterial): void;
}) {
  const now = known.find((one) => equal(one.material, material))?.name ?? OWN;
  const names = known.map(({ name }) => name);
  return (
    <Choice
      shown
      label={label}
      value={now}
      options={now === OWN ? [OWN, ...names] : names}
      onChoose={(name) => {
        const found = known.find((one) => one.name === name);
        if (found) onChoose(found.material);
      }}
    />
  );
}
