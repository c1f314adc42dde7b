import type { OpaqueMaterial } from '@fendrix/contract';
import { useMemo } from 'react';
import { kitApi } from '../../../kit';
import type { NamedMaterial } from './MaterialChoice';

const OPAQUE: ReadonlySet<string> = new Set(['matte', 'coated', 'cloth', 'mirror', 'metal']);

/** Opaque materials of the kit, by name. */
export function useKitMaterials(): readonly NamedMaterial[] {
  const { data } = kitApi.useReadKitQuery();
  return useMemo(
    () =>
      (data?.document.entries ?? []).flatMap((entry) =>
        entry.what === 'material' && OPAQUE.has(entry.thing.kind)
          ? [{ name: entry.name, material: entry.thing as OpaqueMaterial }]
          : [],
      ),
    [data],
  );
}
