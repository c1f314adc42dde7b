import { defaultKit } from '@fendrix/catalogue';
import type { Equipment, EquipmentOf, Kit, Studio } from '@fendrix/contract';
import { useMemo } from 'react';
import { kitApi } from './api';

/** One piece of equipment with its name in the kit. */
export type NamedEquipment<K extends Equipment['kind'] = Equipment['kind']> = EquipmentOf<K> & {
  id: string;
  name: string;
};

/**
 * Bodies, lenses, supports, lights and the room of the studio; the catalogue's where the kit has none of a kind, as kits from
 * before they were kept have.
 */
export function equipmentOf(kit: Kit) {
  const usual = defaultKit();
  const named = ({ entries }: Kit) =>
    entries.flatMap((entry) =>
      entry.what === 'equipment' ? [{ ...entry.thing, id: entry.id, name: entry.name }] : [],
    );
  const [own, others] = [named(kit), named(usual)];
  const ofKind = <K extends Equipment['kind']>(kind: K): NamedEquipment<K>[] => {
    const is = (thing: Equipment): thing is EquipmentOf<K> & Equipment => thing.kind === kind;
    const found = own.filter(is);
    return (found.length > 0 ? found : others.filter(is)) as unknown as NamedEquipment<K>[];
  };
  return {
    bodies: ofKind('body'),
    lenses: ofKind('lens'),
    supports: ofKind('support'),
    lights: kit.entries.flatMap((entry) => (entry.what === 'light' ? [entry.thing] : [])),
    studio: (kit.studio ?? usual.studio) as Studio,
  };
}

/** The same of the stored kit; null while it is read. */
export function useEquipment() {
  const { data } = kitApi.useReadKitQuery();
  return useMemo(() => (data ? equipmentOf(data.document) : null), [data]);
}
