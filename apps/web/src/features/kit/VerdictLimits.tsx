import type { Kit, OwnLimit } from '@fendrix/contract';
import { limitsWith, THRESHOLDS, VERDICT_CODES, type VerdictCode } from '@fendrix/core';
import { unitWords, verdictName, verdictReason } from '@fendrix/words';
import Typography from '@mui/material/Typography';
import { useMemo } from 'react';
import { EditableGrid, type GridColumn } from '../../shared/EditableGrid';
import { Section } from '../../shared/Section';
import type { useKitChanges } from './useKitChanges';

interface Row {
  id: VerdictCode;
  name: string;
  told: boolean;
  side: string;
  limit: number;
  unit: string;
  usual: number;
  minutesNow: number;
  minutesRetouching: number | null;
  reason: string;
}

const COLUMNS: readonly GridColumn<Row>[] = [
  { field: 'name', title: 'Verdict', flex: 1, minWidth: 170, readOnly: true },
  { field: 'told', title: 'Told', kind: 'yes-no', width: 72 },
  { field: 'side', title: 'When', width: 72, readOnly: true },
  { field: 'limit', title: 'Limit', kind: 'number', width: 88 },
  { field: 'unit', title: 'Of', width: 150, readOnly: true },
  { field: 'usual', title: 'Usual', width: 80, readOnly: true },
  { field: 'minutesNow', title: 'Min. at the set', kind: 'number', width: 112 },
  { field: 'minutesRetouching', title: 'Min. retouching', kind: 'number', width: 120, onlyIfThere: true },
  { field: 'reason', title: 'Why', flex: 2, minWidth: 260, readOnly: true },
];

const shown = (value: number, of: number): number => Number((value * of).toFixed(4));

function rowOf(code: VerdictCode, own: OwnLimit | undefined, kit: Kit): Row {
  const { unit, fault, limit } = THRESHOLDS[code];
  const { words, of } = unitWords(unit);
  const { minutes } = limitsWith(kit.verdicts)[code];
  return {
    id: code,
    name: verdictName(code),
    told: !own?.off,
    side: fault === 'above' ? 'over' : 'under',
    limit: shown(own?.limit ?? limit, of),
    unit: words,
    usual: shown(limit, of),
    minutesNow: minutes.now,
    minutesRetouching: minutes.retouching,
    reason: verdictReason(code),
  };
}

/** The row as it is kept: only what is not as usual. */
function ownOf(row: Row): OwnLimit | null {
  const { unit, minutes, limit } = THRESHOLDS[row.id];
  const { of } = unitWords(unit);
  const own: OwnLimit = {
    off: !row.told,
    ...(row.limit === shown(limit, of) ? {} : { limit: row.limit / of }),
    ...(row.minutesNow === minutes.now ? {} : { minutesNow: row.minutesNow }),
    ...(row.minutesRetouching === null || row.minutesRetouching === minutes.retouching
      ? {}
      : { minutesRetouching: row.minutesRetouching }),
  };
  return own.off || Object.keys(own).length > 1 ? own : null;
}

/** From where on each verdict is told, and what mending it takes: the usual figures, or the studio's own. */
export function VerdictLimits({
  kit,
  change,
}: {
  kit: Kit;
  change: ReturnType<typeof useKitChanges>['change'];
}) {
  const rows = useMemo(() => VERDICT_CODES.map((code) => rowOf(code, kit.verdicts[code], kit)), [kit]);
  const save = (row: Row) =>
    change(`The limit of “${row.name}” is saved.`, (all) => {
      const { [row.id]: _old, ...rest } = all.verdicts;
      const own = ownOf(row);
      return { ...all, verdicts: own ? { ...rest, [row.id]: own } : rest };
    });
  return (
    <Section title="When verdicts are told">
      <Typography sx={{ color: 'text.secondary', maxWidth: 640, mb: 1 }}>
        Usual practice, with the reason of each. A limit of your own counts on every set; to overrule one
        verdict on one set, press “I want this” there.
      </Typography>
      <EditableGrid label="When verdicts are told" rows={rows} columns={COLUMNS} onChange={save} empty="" />
    </Section>
  );
}
