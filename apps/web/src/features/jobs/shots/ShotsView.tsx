import type { Shot } from '@fendrix/contract';
import { VIEW_TILT_DEG } from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Chip from '@mui/material/Chip';
import Typography from '@mui/material/Typography';
import { useMemo } from 'react';
import { Link, useSearchParams } from 'react-router';
import { EditableGrid, type GridColumn } from '../../../shared/EditableGrid';
import { WordsField } from '../../../shared/form/WordsField';
import { changeRow, freeId, withoutRow } from '../../../shared/rows';
import { Section } from '../../../shared/Section';
import { ReferenceStrip } from '../brief/ReferenceStrip';
import { minutesQuantity, tiltQuantity } from '../quantities';
import { useEditJob, useJob } from '../state/openJob';
import { VerdictsOfPictures } from './VerdictsOfPictures';
import { VIEW_WORDS, ViewAdvice } from './ViewAdvice';

const COLUMNS: readonly GridColumn<Shot>[] = [
  { field: 'name', title: 'Picture', flex: 2, minWidth: 140 },
  { field: 'purpose', title: 'Purpose', flex: 2, minWidth: 120 },
  {
    field: 'view',
    title: 'View',
    kind: 'choice',
    width: 140,
    options: Object.entries(VIEW_WORDS).map(([value, label]) => ({ value, label })),
  },
  {
    field: 'tiltDeg',
    title: 'Tilt',
    kind: 'number',
    quantity: tiltQuantity,
    width: 72,
    hint: 'How far the camera looks down',
  },
  { field: 'minutes', title: 'Time', kind: 'number', quantity: minutesQuantity, width: 80 },
  { field: 'done', title: 'Taken', kind: 'yes-no', width: 70 },
];

/** The pictures of a job, one row each; for the one chosen, which view suits and what stands in it. */
export function ShotsView() {
  const job = useJob();
  const edit = useEditJob();
  const [search, setSearch] = useSearchParams();
  const chosen = job.shots.find(({ id }) => id === search.get('of')) ?? job.shots[0];
  const choose = (id: string) => setSearch({ of: id }, { replace: true });
  const change = (id: string, changes: Partial<Shot>, gesture: string | null = null) =>
    edit((now) => ({ ...now, shots: changeRow(now.shots, id, changes) }), gesture);
  const [first] = job.products;

  function add() {
    if (!first) return;
    const product =
      job.products.find(({ id }) => !job.shots.some((shot) => shot.products.includes(id))) ?? first;
    const id = freeId(job.shots, product.name, 'picture');
    const shot: Shot = {
      id,
      name: product.name,
      products: [product.id],
      purpose: '',
      view: 'eye-level',
      tiltDeg: 0,
      blurGround: false,
      deliverables: [],
      look: '',
      props: '',
      plates: [],
      built: [],
      minutes: 30,
      after: [],
      last: false,
      done: false,
      tries: 0,
    };
    if (edit((now) => ({ ...now, shots: [...now.shots, shot] }))) choose(id);
  }

  return (
    <>
      <Section
        title={`Pictures (${job.shots.length})`}
        action={
          <Button size="small" disabled={!first} onClick={add}>
            Add a picture
          </Button>
        }
      >
        <EditableGrid
          label="Pictures"
          rows={job.shots}
          columns={COLUMNS}
          selected={chosen?.id}
          onOpen={({ id }) => choose(id)}
          onChange={(row) => {
            const old = job.shots.find(({ id }) => id === row.id);
            // Another view brings its tilt; a tilt typed is kept.
            const turned = old && old.view !== row.view ? { tiltDeg: VIEW_TILT_DEG[row.view] } : {};
            return change(row.id, { ...row, ...turned });
          }}
          onRemove={({ id }) => edit((now) => ({ ...now, shots: withoutRow(now.shots, id) }))}
          empty={
            first
              ? 'No picture listed yet. Add one for each picture that the client gets; the first products that have none come first.'
              : 'Add products first: a picture shows at least one of them.'
          }
        />
      </Section>
      <VerdictsOfPictures shots={job.shots} />
      {chosen && (
        <>
          <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, mb: 1.5, flexWrap: 'wrap' }}>
            <Typography variant="h2" sx={{ fontSize: '1.0625rem', flex: 1 }}>
              {chosen.name}
            </Typography>
            {chosen.setId && (
              <Button size="small" component={Link} to={`/sets/${chosen.setId}`}>
                Open its set
              </Button>
            )}
            <Button size="small" variant="contained" component={Link} to={chosen.id}>
              Lens and position
            </Button>
          </Box>
          <ViewAdvice
            job={job}
            shot={chosen}
            onChoose={(view) => change(chosen.id, { view, tiltDeg: VIEW_TILT_DEG[view] })}
          />
          <ReferenceStrip />
          <Contents shot={chosen} onChange={(changes, gesture) => change(chosen.id, changes, gesture)} />
        </>
      )}
    </>
  );
}

/** What stands in a picture, what is cut from it, and how it should look. */
function Contents({
  shot,
  onChange,
}: {
  shot: Shot;
  onChange(changes: Partial<Shot>, gesture?: string): void;
}) {
  const { products, brief } = useJob();
  const toggled = (list: readonly string[], id: string) =>
    list.includes(id) ? list.filter((own) => own !== id) : [...list, id];
  const plates = useMemo(() => shot.plates.join(', '), [shot.plates]);
  return (
    <Section title="In this picture">
      <ChoiceRow
        label="products"
        options={products}
        chosen={shot.products}
        onToggle={(id) => {
          const next = toggled(shot.products, id);
          if (next.length > 0) onChange({ products: next });
        }}
      />
      <ChoiceRow
        label={shot.deliverables.length > 0 ? 'formats' : 'formats (none chosen: all)'}
        options={brief.deliverables}
        chosen={shot.deliverables}
        onToggle={(id) => onChange({ deliverables: toggled(shot.deliverables, id) })}
      />
      <ChoiceRow
        label="background"
        options={[{ id: 'blur', name: 'background blurred' }]}
        chosen={shot.blurGround ? ['blur'] : []}
        onToggle={() => onChange({ blurGround: !shot.blurGround })}
      />
      <WordsField
        label="look"
        multiline
        value={shot.look}
        onCommit={(look, gesture) => onChange({ look }, gesture)}
      />
      <WordsField
        label="props"
        multiline
        value={shot.props}
        onCommit={(props, gesture) => onChange({ props }, gesture)}
      />
      <WordsField
        label="plates it is put together from, with commas"
        multiline
        value={plates}
        onCommit={(text, gesture) => {
          const named = text.split(',').map((plate) => plate.trim());
          onChange({ plates: named.filter(Boolean) }, gesture);
        }}
      />
    </Section>
  );
}

function ChoiceRow({
  label,
  options,
  chosen,
  onToggle,
}: {
  label: string;
  options: readonly { id: string; name: string }[];
  chosen: readonly string[];
  onToggle(id: string): void;
}) {
  return (
    <Box
      role="group"
      aria-label={label}
      sx={{
        display: 'flex',
        gap: 1,
        flexWrap: 'wrap',
        alignItems: 'center',
        py: 0.75,
        borderBottom: 1,
        borderColor: 'divider',
      }}
    >
      <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem', minWidth: 180 }}>{label}</Box>
      {options.length === 0 && (
        <Box sx={{ fontSize: '0.8125rem', color: 'text.secondary' }}>none in the brief yet</Box>
      )}
      {options.map(({ id, name }) => (
        <Chip
          key={id}
          size="small"
          label={name}
          aria-pressed={chosen.includes(id)}
          color={chosen.includes(id) ? 'primary' : 'default'}
          variant={chosen.includes(id) ? 'filled' : 'outlined'}
          onClick={() => onToggle(id)}
        />
      ))}
    </Box>
  );
}
