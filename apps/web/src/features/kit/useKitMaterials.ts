import {
  type Dielectric,
  type Material,
  materialKinds,
  type OpaqueMaterial,
  type SheetMaterial,
  type TabletopMaterial,
} from '@fendrix/contract';
import { useMemo } from 'react';
import type { NamedMaterial } from '../../shared/materials/materialGroups';
import { kitApi } from './api';

interface Fitting {
  opaque: OpaqueMaterial;
  tabletop: TabletopMaterial;
  sheet: SheetMaterial;
  body: Material;
  liquid: Dielectric;
}

/** Materials of the kit by name, of those that something can be made of. */
export function useKitMaterials<W extends keyof Fitting>(what: W): readonly NamedMaterial<Fitting[W]>[] {
  const { data } = kitApi.useReadKitQuery();
  return useMemo(() => {
    const fitting = (data?.document.entries ?? []).flatMap((entry) =>
      entry.what === 'material' && materialKinds[what].has(entry.thing.kind)
        ? [{ name: entry.name, material: entry.thing as Fitting[W], purposes: entry.purposes }]
        : [],
    );
    if (what !== 'liquid') return fitting;
    // Any clear material can fill a body; what is poured comes first.
    const isPoured = ({ purposes }: NamedMaterial) => purposes?.includes('liquid') ?? false;
    return [...fitting.filter(isPoured), ...fitting.filter((one) => !isPoured(one))];
  }, [data, what]);
}
