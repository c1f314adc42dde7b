import type { Kit } from '@fendrix/contract';
import { type ChangeStep, pricesWith, USUAL_PRICES } from '@fendrix/core';
import { stepName } from '@fendrix/words';
import Typography from '@mui/material/Typography';
import { useMemo } from 'react';
import { EditableGrid, type GridColumn } from '../../shared/EditableGrid';
import { Section } from '../../shared/Section';
import type { useKitChanges } from './useKitChanges';

interface Row {
  id: ChangeStep;
  name: string;
  minutes: number;
  usual: number;
}

const COLUMNS: readonly GridColumn<Row>[] = [
  { field: 'name', title: 'Step', flex: 1, minWidth: 200, readOnly: true },
  { field: 'minutes', title: 'Minutes', kind: 'number', width: 100 },
  { field: 'usual', title: 'Usual', width: 90, readOnly: true },
];

/** What each step from one set to the next takes: the usual minutes, or the studio's own. */
export function ChangeMinutes({
  kit,
  change,
}: {
  kit: Kit;
  change: ReturnType<typeof useKitChanges>['change'];
}) {
  const rows = useMemo(() => {
    const prices = pricesWith(kit.changeMinutes);
    return (Object.keys(USUAL_PRICES) as ChangeStep[]).map(
      (id): Row => ({ id, name: stepName(id), minutes: prices[id], usual: USUAL_PRICES[id] }),
    );
  }, [kit]);
  const save = ({ id, name, minutes }: Row) =>
    change(`The minutes of “${name}” are saved.`, (all) => {
      const { [id]: _old, ...rest } = all.changeMinutes;
      const isOwn = Number.isFinite(minutes) && minutes !== USUAL_PRICES[id];
      return { ...all, changeMinutes: isOwn ? { ...rest, [id]: minutes } : rest };
    });
  return (
    <Section title="Minutes from one set to the next">
      <Typography sx={{ color: 'text.secondary', maxWidth: 640, mb: 1 }}>
        By these the order of a day is worked out. Usual ones of somebody alone who knows the set; put in what
        it takes you.
      </Typography>
      <EditableGrid
        label="Minutes from one set to the next"
        rows={rows}
        columns={COLUMNS}
        onChange={save}
        empty=""
      />
    </Section>
  );
}
