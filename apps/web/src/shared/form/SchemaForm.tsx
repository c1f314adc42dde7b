import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Switch from '@mui/material/Switch';
import { useState } from 'react';
import { QuantityField } from '../QuantityField';
import { Row } from '../Row';
import { within } from '../useTyped';
import { Advanced, Group, SelectField } from './formParts';
import { PictureField } from './PictureField';
import { PointsField } from './PointsField';
import { choiceFor, choicesOf, firstValue, isWhole, kindsOf, type Schema } from './schema';
import { WordsField } from './WordsField';
import { ADVANCED, labelOf, partQuantity, quantityOf } from './words';

interface FormProps {
  schema: Schema;
  value: Record<string, unknown>;
  onChange(value: Record<string, unknown>): void;
  /** Fields that are set elsewhere. */
  hidden?: ReadonlySet<string>;
}

/**
 * Fields for all figures of a light, sheet, product or material, by its schema: what can be given, within which
 * limits and with which explanation stands there once.
 */
export function SchemaForm({ schema, value, onChange, hidden }: FormProps) {
  const own = schema.properties ? schema : choiceFor(schema, value.kind);
  if (!own?.properties) return null;
  const required = new Set(own.required ?? []);
  if (own.properties.rgbBase64 || own.properties.greyBase64) {
    return <PictureField colour={own.properties.rgbBase64 !== undefined} value={value} onChange={onChange} />;
  }
  const fieldsOf = (advanced: boolean) =>
    plainFirst(Object.entries(own.properties ?? {})).flatMap(([field, inner]) => {
      if (hidden?.has(field) || field === 'kind' || 'const' in inner) return [];
      if (ADVANCED.has(field) !== advanced) return [];
      return [
        <Field
          key={field}
          field={field}
          schema={inner}
          value={value[field]}
          optional={!required.has(field) && !('default' in inner)}
          onChange={(changed) => {
            const next = { ...value, [field]: changed };
            if (changed === undefined) delete next[field];
            onChange(next);
          }}
        />,
      ];
    });
  const advanced = fieldsOf(true);
  return (
    <>
      {fieldsOf(false)}
      {advanced.length > 0 && <Advanced>{advanced}</Advanced>}
    </>
  );
}

/** Single figures before groups of them, each in the schema's order. */
function plainFirst(fields: [string, Schema][]): [string, Schema][] {
  const isGroup = ([, schema]: [string, Schema]) =>
    !isColour(choicesOf(schema)) &&
    (schema.type === 'object' || schema.type === 'array' || choicesOf(schema).length > 1);
  return [...fields.filter((field) => !isGroup(field)), ...fields.filter(isGroup)];
}

interface FieldProps {
  field: string;
  schema: Schema;
  value: unknown;
  optional?: boolean;
  label?: string;
  onChange(value: unknown): void;
}

function Field({ field, schema, value, optional = false, label = labelOf(field), onChange }: FieldProps) {
  const choices = choicesOf(schema);
  /** Being added, with figures that are still to be typed: nothing is set before they are. */
  const [added, setAdded] = useState<{ value: unknown } | null>(null);
  const named = schema.type === 'string';
  // A figure that need not be there is typed, and taken back by emptying its field; a switch that was never set is off.
  if (schema.type === 'number' || schema.type === 'integer') {
    return (
      <NumberField
        {...{ field, label, onChange }}
        hint={schema.description}
        limits={schema}
        value={value as number | undefined}
        {...(optional ? { onClear: () => onChange(undefined) } : {})}
      />
    );
  }
  if (schema.type === 'boolean') {
    return (
      <Row label={label} hint={schema.description}>
        <Switch
          size="small"
          checked={value === true}
          onChange={(_, on) => onChange(on || !optional ? on : undefined)}
          slotProps={{ input: { 'aria-label': label } }}
        />
      </Row>
    );
  }
  if (optional && value === undefined && !added) {
    if (/base64/i.test(field)) return null;
    const add = () => {
      const first = firstValue(schema, field);
      if (isWhole(first)) onChange(first);
      else setAdded({ value: first });
    };
    return (
      <Row label={label} hint={schema.description}>
        <Button size="small" color="inherit" onClick={add}>
          Add
        </Button>
      </Row>
    );
  }
  if (added && value === undefined) {
    const put = (changed: unknown) => {
      if (!isWhole(changed)) return setAdded({ value: changed });
      setAdded(null);
      onChange(changed);
    };
    return (
      <Group label={label} onRemove={() => setAdded(null)}>
        <Box sx={{ fontSize: '0.75rem', color: 'text.secondary' }}>
          Counts once every figure is given, from its data sheet.
        </Box>
        <Value
          {...{ field, schema, choices }}
          value={added.value}
          label={named ? label : ''}
          onChange={put}
        />
      </Group>
    );
  }
  if (!optional) return <Value {...{ field, schema, choices, value, label, onChange }} />;
  return (
    <Group label={label} onRemove={() => onChange(undefined)}>
      <Value {...{ field, schema, choices, value, onChange }} label={named ? label : ''} />
    </Group>
  );
}

function Value({
  field,
  schema,
  choices,
  value,
  label,
  onChange,
}: FieldProps & { choices: readonly Schema[]; label: string }) {
  const [first] = choices;
  if (isColour(choices)) {
    return (
      <ColourField
        {...{ field, label, onChange }}
        hint={schema.description}
        part={choices.find(({ type }) => type === 'number') ?? {}}
        names={choices.find(({ axes }) => axes)?.axes ?? []}
        value={value as number | number[]}
      />
    );
  }
  if (first?.properties?.kind) {
    const record = value as Record<string, unknown>;
    const options = choices.flatMap((choice) => kindsOf(choice));
    return (
      <Group label={label}>
        <SelectField
          label="kind"
          options={options}
          value={String(record.kind)}
          onChange={(kind) => onChange(asKind(schema, record, kind))}
        />
        <SchemaForm schema={schema} value={record} onChange={onChange} />
      </Group>
    );
  }
  if (schema.enum) {
    return (
      <SelectField
        label={label}
        hint={schema.description}
        options={schema.enum.map(String)}
        value={String(value)}
        onChange={onChange}
      />
    );
  }
  switch (schema.type) {
    case 'object':
      return (
        <Group label={label}>
          <SchemaForm schema={schema} value={value as Record<string, unknown>} onChange={onChange} />
        </Group>
      );
    case 'array':
      return <ListField {...{ field, schema, label, onChange }} value={(value ?? []) as unknown[]} />;
    case 'string':
      if (/base64/i.test(field)) return null;
      return <WordsField label={label} value={String(value ?? '')} live={false} onCommit={onChange} />;
    default:
      return null;
  }
}

/** The same of another kind: what both have, as a picture, a tone, a colour, stays as it is. */
function asKind(schema: Schema, value: Record<string, unknown>, kind: string): Record<string, unknown> {
  const choice = choiceFor(schema, kind) ?? {};
  const first = firstValue(choice) as Record<string, unknown>;
  const kept = Object.entries(value).filter(([field]) => choice.properties?.[field] !== undefined);
  return { ...first, ...Object.fromEntries(kept), kind };
}

const isColour = (choices: readonly Schema[]): boolean =>
  choices.length === 2 &&
  choices.some(({ type }) => type === 'number') &&
  choices.some(({ type }) => type === 'array');

function NumberField({
  field,
  label,
  hint,
  limits,
  value,
  onChange,
  onClear,
}: {
  field: string;
  label: string;
  hint?: string | undefined;
  limits?: Schema;
  value: number | undefined;
  onChange(value: number): void;
  onClear?(): void;
}) {
  const { format, parse, example } = limits?.unit === 'part' ? partQuantity : quantityOf(field);
  return (
    <QuantityField
      label={label}
      hint={hint}
      shown={value === undefined ? '' : format(value)}
      {...(onClear ? { none: 'not given', onClear } : {})}
      parse={within(parse, format, { from: limits?.minimum, to: limits?.maximum })}
      example={example}
      onCommit={onChange}
    />
  );
}

/** One number for grey, or red, green and blue. */
function ColourField({
  field,
  label,
  hint,
  part,
  names: axes,
  value,
  onChange,
}: {
  field: string;
  label: string;
  hint?: string | undefined;
  /** Schema of one of the numbers, and what the three of a colour are. */
  part: Schema;
  names: readonly string[];
  value: number | number[];
  onChange(value: number | number[]): void;
}) {
  const values = Array.isArray(value) ? value : [value];
  const names = Array.isArray(value) ? axes : [''];
  return (
    <>
      {values.map((one, i) => (
        <NumberField
          key={names[i]}
          field={field}
          label={[label, names[i]].filter(Boolean).join(', ')}
          hint={hint}
          limits={part}
          value={one}
          onChange={(changed) =>
            onChange(Array.isArray(value) ? value.map((old, at) => (at === i ? changed : old)) : changed)
          }
        />
      ))}
      <Row label="">
        <Button
          size="small"
          color="inherit"
          onClick={() => onChange(Array.isArray(value) ? (value[1] ?? 0.5) : [value, value, value])}
        >
          {Array.isArray(value) ? 'Grey' : 'In colour'}
        </Button>
      </Row>
    </>
  );
}

function ListField({
  field,
  schema,
  label,
  value,
  onChange,
}: {
  field: string;
  schema: Schema;
  label: string;
  value: unknown[];
  onChange(value: unknown[]): void;
}) {
  if (schema.prefixItems) {
    const axes = schema.axes ?? [];
    const parts = schema.prefixItems;
    return (
      <>
        {value.map((part, i) => (
          <NumberField
            key={axes[i] ?? i}
            field={field}
            label={`${label}, ${axes[i] ?? i + 1}`}
            {...(parts[i] ? { limits: parts[i] } : {})}
            value={part as number}
            onChange={(changed) => onChange(value.map((old, at) => (at === i ? changed : old)))}
          />
        ))}
      </>
    );
  }
  const item = schema.items || {};
  if (item.prefixItems && field.endsWith('M')) {
    return (
      <PointsField
        label={label}
        value={value as number[][]}
        fewest={schema.minItems ?? 0}
        most={schema.maxItems ?? 100}
        onChange={onChange}
      />
    );
  }
  // Long tables, such as measured intensities, come from files.
  if (item.type === 'array' || (item.type === 'number' && value.length > 12)) return null;
  return (
    <Group label={`${label} (${value.length})`}>
      {value.map((part, i) => (
        <Group
          key={i}
          label={`${i + 1}`}
          {...(value.length > (schema.minItems ?? 0)
            ? { onRemove: () => onChange(value.filter((_, at) => at !== i)) }
            : {})}
        >
          <Field
            field={field.replace(/s$/, '')}
            label={item.type === 'object' ? '' : labelOf(field)}
            schema={item}
            value={part}
            onChange={(changed) => onChange(value.map((old, at) => (at === i ? changed : old)))}
          />
        </Group>
      ))}
      {value.length < (schema.maxItems ?? 100) && (
        <Row label="">
          <Button
            size="small"
            color="inherit"
            onClick={() => onChange([...value, value.at(-1) ?? firstValue(item, field.replace(/s$/, ''))])}
          >
            Add one
          </Button>
        </Row>
      )}
    </Group>
  );
}
