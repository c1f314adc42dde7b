import type { Equipment, KitEntry } from '@fendrix/contract';
import { formatLength, parseLengthM } from '@fendrix/core';
import Button from '@mui/material/Button';
import Skeleton from '@mui/material/Skeleton';
import { useCallback, useEffect, useMemo } from 'react';
import { EditableGrid, type GridColumn } from '../../shared/EditableGrid';
import { Page } from '../../shared/Page';
import { changeRow, freeId, withoutRow } from '../../shared/rows';
import { Section } from '../../shared/Section';
import { ChangeMinutes } from './ChangeMinutes';
import { CsvButtons } from './CsvButtons';
import { useKitChanges } from './useKitChanges';
import { VerdictLimits } from './VerdictLimits';

type Row = Record<string, unknown> & {
  id: string;
  name: string;
  what: KitEntry['what'];
  count: number;
  kind: string;
};

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
const COUNT = number('count', 'There are', {
  hint: 'What a set uses beyond this is told on its bench',
  width: 88,
});

/** What stands on a set: its figures differ by kind, the usual ones are here and all of them on the kit page. */
const ON_SET: { what: KitEntry['what']; title: string; columns: GridColumn<Row>[] }[] = [
  {
    what: 'light',
    title: 'Lights and modifiers',
    columns: [
      NAME,
      { field: 'kind', title: 'Kind', width: 120, readOnly: true },
      COUNT,
      number('widthM', 'Width', { quantity: length, onlyIfThere: true }),
      number('heightM', 'Height', { quantity: length, onlyIfThere: true }),
      number('diameterM', 'Diameter', { quantity: length, onlyIfThere: true }),
    ],
  },
  {
    what: 'sheet',
    title: 'Cards, flags and frost',
    columns: [
      NAME,
      { field: 'kind', title: 'Kind', width: 120, readOnly: true },
      COUNT,
      number('widthM', 'Width', { quantity: length, onlyIfThere: true }),
      number('heightM', 'Height', { quantity: length, onlyIfThere: true }),
    ],
  },
];

const TABLES: { kind: Equipment['kind']; title: string; columns: GridColumn<Row>[]; fresh: Equipment }[] = [
  {
    kind: 'body',
    title: 'Bodies',
    columns: [
      NAME,
      number('sensorWidthM', 'Sensor wide', { quantity: lengthMm }),
      number('sensorHeightM', 'Sensor high', { quantity: lengthMm }),
      number('pixelsWide', 'Width, px', { width: 90 }),
      number('pixelsHigh', 'Height, px', { width: 80 }),
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
        advanced: true,
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

/** The kit as tables that are edited where they stand; its equipment as CSV out and in. */
export function KitTables() {
  const { kit, change } = useKitChanges();
  useEffect(() => {
    document.title = 'Kit tables · Fendrix';
  }, []);
  const rows = useMemo(
    () =>
      (kit?.entries ?? []).flatMap((entry): Row[] => {
        const { id, name, what, count, thing } = entry;
        return [{ ...(thing as object), id, name, what, count, kind: thing.kind }];
      }),
    [kit],
  );
  const save = useCallback(
    ({ id, name, what, count, ...figures }: Row) => {
      // Things on a set carry name and id themselves.
      const own = what === 'equipment' ? {} : { name, ...(what === 'product' ? { id } : {}) };
      const thing = { ...figures, ...own };
      return change(`“${name}” is saved.`, (all) => ({
        ...all,
        entries: changeRow(all.entries, id, { name, count, thing } as unknown as Partial<KitEntry>),
      }));
    },
    [change],
  );

  return (
    <Page title="Kit tables" wide>
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
              rows={rows.filter((row) => row.what === 'equipment' && row.kind === kind)}
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
      {kit &&
        ON_SET.map(({ what, title, columns }) => (
          <Section key={what} title={title}>
            <EditableGrid
              label={title}
              rows={rows.filter((row) => row.what === what)}
              columns={columns}
              onChange={save}
              empty="None: the kit page adds them by copying what comes near."
            />
          </Section>
        ))}
      {kit && <VerdictLimits kit={kit} change={change} />}
      {kit && <ChangeMinutes kit={kit} change={change} />}
    </Page>
  );
}
