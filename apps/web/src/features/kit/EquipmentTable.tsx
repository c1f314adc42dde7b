import type { Equipment, KitEntry } from '@fendrix/contract';
import { formatLength, parseLengthM } from '@fendrix/core';
import Button from '@mui/material/Button';
import Skeleton from '@mui/material/Skeleton';
import { useCallback, useEffect, useMemo } from 'react';
import { EditableGrid, type GridColumn } from '../../shared/EditableGrid';
import { Page } from '../../shared/Page';
import { changeRow, freeId, withoutRow } from '../../shared/rows';
import { Section } from '../../shared/Section';
import { CsvButtons } from './CsvButtons';
import { useKitChanges } from './useKitChanges';

type Row = Record<string, unknown> & { id: string; name: string; kind: Equipment['kind'] };

const length = { format: formatLength, parse: (text: string) => parseLengthM(text) };
const lengthMm = {
  format: (m: number) => `${Math.round(m * 1e5) / 100} mm`,
  parse: (text: string) => parseLengthM(text, 'mm'),
};
const shutter = {
  format: (s: number) => (s < 0.4 ? `1/${Math.round(1 / s)} s` : `${s} s`),
  parse(text: string): number | null {
    const match = /^\s*(?:1\/)?\s*(\d+(?:[.,]\d+)?)\s*s?\s*$/.exec(text);
    if (!match) return null;
    const value = Number((match[1] as string).replace(',', '.'));
    return text.includes('/') ? 1 / value : value;
  },
};

const number = (field: string, title: string, more: Partial<GridColumn<Row>> = {}): GridColumn<Row> => ({
  field,
  title,
  kind: 'number',
  width: 104,
  ...more,
});
const NAME: GridColumn<Row> = { field: 'name', title: 'Name', flex: 1, minWidth: 180 };

const TABLES: { kind: Equipment['kind']; title: string; columns: GridColumn<Row>[]; fresh: Equipment }[] = [
  {
    kind: 'body',
    title: 'Bodies',
    columns: [
      NAME,
      number('sensorWidthM', 'Sensor wide', { quantity: lengthMm }),
      number('sensorHeightM', 'Sensor high', { quantity: lengthMm }),
      number('pixelsWide', 'Px across', { width: 90 }),
      number('pixelsHigh', 'Px up', { width: 80 }),
      number('syncSpeedS', 'Flash sync', { quantity: shutter }),
      number('baseIso', 'Base ISO', { width: 84 }),
      number('handShutterS', 'By hand, 50 mm', { quantity: shutter, width: 124 }),
    ],
    fresh: {
      kind: 'body',
      sensorWidthM: 0.036,
      sensorHeightM: 0.024,
      pixelsWide: 6000,
      pixelsHigh: 4000,
      syncSpeedS: 1 / 200,
      baseIso: 100,
      handShutterS: 1 / 125,
    },
  },
  {
    kind: 'lens',
    title: 'Lenses',
    columns: [
      NAME,
      number('shortestM', 'Shortest', { quantity: lengthMm }),
      number('longestM', 'Longest', { quantity: lengthMm }),
      number('closestFocusM', 'Focuses from', { quantity: length }),
      number('widestFNumber', 'Widest f/', { width: 90 }),
      number('smallestFNumber', 'Smallest f/', { width: 98 }),
      number('pupilRatio', 'Pupil ratio', {
        hint: 'Exit pupil over entrance pupil; 1 for a symmetrical lens',
        width: 96,
      }),
    ],
    fresh: {
      kind: 'lens',
      shortestM: 0.05,
      longestM: 0.05,
      closestFocusM: 0.45,
      widestFNumber: 2,
      smallestFNumber: 22,
      pupilRatio: 1,
    },
  },
  {
    kind: 'support',
    title: 'Supports',
    columns: [
      NAME,
      number('lowestM', 'Lowest', { quantity: length, width: 90 }),
      number('highestM', 'Highest', { quantity: length, width: 90 }),
      number('mostLoadKg', 'Bears, kg', { width: 92 }),
      number('ownKg', 'Own, kg', { width: 84 }),
      number('baseRadiusM', 'Base radius', { quantity: length }),
      number('boomM', 'Arm', { quantity: length, width: 90 }),
    ],
    fresh: {
      kind: 'support',
      lowestM: 0.4,
      highestM: 1.6,
      mostLoadKg: 5,
      ownKg: 2,
      baseRadiusM: 0.3,
      boomM: 0,
    },
  },
  {
    kind: 'filter',
    title: 'Filters',
    columns: [
      NAME,
      number('lossStops', 'Takes, stops'),
      { field: 'polarises', title: 'Polarises', kind: 'yes-no', width: 92 },
    ],
    fresh: { kind: 'filter', lossStops: 1, polarises: false },
  },
  {
    kind: 'meter',
    title: 'Meters',
    columns: [
      NAME,
      {
        field: 'receptor',
        title: 'Receptor',
        kind: 'choice',
        width: 110,
        options: [
          { value: 'flat', label: 'flat' },
          { value: 'dome', label: 'dome' },
        ],
      },
      { field: 'flash', title: 'Measures flash', kind: 'yes-no', width: 130 },
    ],
    fresh: { kind: 'meter', receptor: 'flat', flash: true },
  },
];

/** Bodies, lenses, supports and filters as tables that are edited where they stand; CSV out and in. */
export function EquipmentTable() {
  const { kit, change } = useKitChanges();
  useEffect(() => {
    document.title = 'Cameras and stands · Fendrix';
  }, []);
  const rows = useMemo(
    () =>
      (kit?.entries ?? []).flatMap((entry): Row[] =>
        entry.what === 'equipment' ? [{ ...entry.thing, id: entry.id, name: entry.name }] : [],
      ),
    [kit],
  );
  const save = useCallback(
    ({ id, name, ...thing }: Row) => {
      void change(`“${name}” is saved.`, (all) => ({
        ...all,
        entries: changeRow(all.entries, id, { name, thing } as Partial<KitEntry>),
      }));
      return true;
    },
    [change],
  );

  return (
    <Page title="Cameras and stands" wide>
      <CsvButtons name="equipment" of={(entry) => entry.what === 'equipment'} />
      {!kit && <Skeleton height={240} />}
      {kit &&
        TABLES.map(({ kind, title, columns, fresh }) => (
          <Section
            key={kind}
            title={title}
            action={
              <Button
                size="small"
                onClick={() => {
                  const name = `New ${kind}`;
                  const id = freeId(kit.entries, name, kind);
                  const entry: KitEntry = {
                    what: 'equipment',
                    id,
                    name,
                    count: 1,
                    purposes: [],
                    source: '',
                    thing: fresh,
                  };
                  void change(`“${name}” is in the kit.`, (all) => ({
                    ...all,
                    entries: [...all.entries, entry],
                  }));
                }}
              >
                Add
              </Button>
            }
          >
            <EditableGrid
              label={title}
              rows={rows.filter((row) => row.kind === kind)}
              columns={columns}
              onChange={save}
              onRemove={({ id, name }) =>
                void change(`“${name}” is deleted.`, (all) => ({
                  ...all,
                  entries: withoutRow(all.entries, id),
                }))
              }
              empty="None of its own: the usual ones are offered where a camera is chosen."
            />
          </Section>
        ))}
    </Page>
  );
}
