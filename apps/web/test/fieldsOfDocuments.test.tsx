// @vitest-environment jsdom
import { checkDocument, setDocument } from '@fendrix/contract';
import { parseLengthM } from '@fendrix/core';
import { demoSet } from '@fendrix/demo';
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { afterEach, describe, expect, test, vi } from 'vitest';
import { problemWords } from '../src/shared/document/problemWords';
import { SchemaForm } from '../src/shared/form/SchemaForm';
import { thingSchema } from '../src/shared/form/schema';
import { WordsField } from '../src/shared/form/WordsField';
import { settlePending, useAnyPending } from '../src/shared/pending';
import { QuantityField } from '../src/shared/QuantityField';
import { tellRefusal } from '../src/shared/refusals';
import { within } from '../src/shared/useTyped';
import { useWords } from '../src/shared/useWords';
import { WordsInput } from '../src/shared/WordsInput';

vi.mock('notistack', () => ({ enqueueSnackbar: vi.fn() }));
afterEach(cleanup);

const centimetres = (m: number) => `${100 * m} cm`;
const put = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
const press = (label: string, key: string, more: object = {}) =>
  fireEvent.keyDown(screen.getByLabelText(label), { key, ...more });
const shownIn = (label: string) => (screen.getByLabelText(label) as HTMLInputElement).value;

function Length({ label = 'high', onCommit = vi.fn() }: { label?: string; onCommit?: (m: number) => void }) {
  return (
    <QuantityField
      label={label}
      shown="20 cm"
      parse={within(parseLengthM, centimetres, { from: 0, to: 1 })}
      example="30 cm"
      onCommit={onCommit}
    />
  );
}

/** A name that others go by: set when it is left, not with each key. */
function Name({ onCommit }: { onCommit: (name: string) => void }) {
  const words = useWords('shelf', onCommit, { live: false });
  return <WordsInput words={words} label="name" refusalId="why" />;
}

describe('what cannot be', () => {
  test('is told at the field with the limits, and stays to be mended', () => {
    const onCommit = vi.fn();
    render(<Length onCommit={onCommit} />);
    put('high', '-5 cm');
    press('high', 'Enter');
    expect(screen.getByRole('alert').textContent).toBe('It goes from 0 cm to 100 cm.');
    expect(shownIn('high')).toBe('-5 cm');
    expect(onCommit).not.toHaveBeenCalled();
    put('high', '50 cm');
    press('high', 'Enter');
    expect(screen.queryByRole('alert')).toBeNull();
    expect(onCommit).toHaveBeenCalledWith(0.5);
  });

  test('for the document is told at the field too, not beside it', () => {
    render(<Length onCommit={() => tellRefusal('Light A: its place is outside of the room.')} />);
    put('high', '90 cm');
    press('high', 'Enter');
    expect(screen.getByRole('alert').textContent).toContain('outside of the room');
    expect(shownIn('high')).toBe('90 cm');
  });

  test('is said without names of fields and in the unit of the field', () => {
    const set = demoSet('mill');
    const words = (path: string, more: object) =>
      problemWords({ path, message: 'must be at most 3600.', ...more }, set);
    expect(words('camera.shutterS', { limit: { word: 'at most', value: 3600 } })).toBe(
      'Camera: shutter must be at most 3600 s.',
    );
    expect(words('lights[0].widthM', { limit: { word: 'at least', value: 1e-4 } })).toBe(
      'Light A: width must be at least 0.1 mm.',
    );
    const dull = checkDocument(setDocument, {
      ...set,
      lights: set.lights.map((light) => ({
        ...light,
        output: { kind: 'lumens', lumens: 900, modifierEfficiency: 2 },
      })),
    });
    expect(!dull.ok && dull.problems[0] && problemWords(dull.problems[0], set)).toMatch(
      /must be at most 100 %/,
    );
    const all = [
      'lights[0].positionM[0]',
      'products[0].hollow.wallM',
      'sheets[0].front.reflectance',
      'takes[1].id',
    ];
    for (const path of all) expect(words(path, {})).not.toMatch(/\[|[a-z][A-Z]/);
  });
});

test('what means the same as what stands there sets nothing', () => {
  const onCommit = vi.fn();
  render(<Length onCommit={onCommit} />);
  put('high', '200 mm');
  press('high', 'Enter');
  expect(onCommit).not.toHaveBeenCalled();
  expect(shownIn('high')).toBe('20 cm');
});

describe('keys in a field', () => {
  test('Escape goes back to where one came from, with the value as it was', () => {
    render(
      <>
        <button type="button">the plan</button>
        <Length />
      </>,
    );
    const plan = screen.getByRole('button');
    act(() => plan.focus());
    act(() => screen.getByLabelText('high').focus());
    put('high', '44');
    press('high', 'Escape');
    expect(shownIn('high')).toBe('20 cm');
    expect(document.activeElement).toBe(plan);
  });

  test.each([
    ['what could be set', '44'],
    ['what is refused', '-5'],
    ['what is not understood', 'tall'],
  ])('Escape takes back %s, also where focus goes elsewhere by it: nothing is set', (_name, typed) => {
    const onCommit = vi.fn();
    const onName = vi.fn();
    render(
      <>
        <button type="button">the plan</button>
        <Length onCommit={onCommit} />
        <Name onCommit={onName} />
      </>,
    );
    for (const [label, was] of [
      ['high', '20 cm'],
      ['name', 'shelf'],
    ] as const) {
      act(() => screen.getByRole('button').focus());
      act(() => screen.getByLabelText(label).focus());
      put(label, typed);
      press(label, 'Escape');
      expect(document.activeElement).toBe(screen.getByRole('button'));
      expect(shownIn(label)).toBe(was);
      expect(screen.getByLabelText(label).getAttribute('aria-invalid')).toBe('false');
    }
    expect(onCommit).not.toHaveBeenCalled();
    expect(onName).not.toHaveBeenCalled();
    // Leaving it in another way sets it, as ever.
    act(() => screen.getByLabelText('high').focus());
    put('high', '44');
    act(() => screen.getByRole('button').focus());
    expect(onCommit).toHaveBeenCalledWith(0.44);
  });

  test('Escape goes back to before the first of the fields one went through, not to the field before', () => {
    render(
      <>
        <button type="button">the plan</button>
        <Length />
        <Length label="wide" />
      </>,
    );
    act(() => screen.getByRole('button').focus());
    act(() => screen.getByLabelText('high').focus());
    act(() => screen.getByLabelText('wide').focus());
    press('wide', 'Escape');
    expect(document.activeElement).toBe(screen.getByRole('button'));
  });

  test('undo belongs to the text while something is typed, to the document once it is set', () => {
    const around = vi.fn();
    render(
      <div onKeyDown={around} role="toolbar">
        <Length />
      </div>,
    );
    put('high', '44');
    press('high', 'z', { ctrlKey: true });
    expect(around).not.toHaveBeenCalled();
    expect('settled' in screen.getByLabelText('high').dataset).toBe(false);
    press('high', 'Enter');
    press('high', 'z', { ctrlKey: true });
    expect(around).toHaveBeenCalledTimes(1);
    expect('settled' in screen.getByLabelText('high').dataset).toBe(true);
  });
});

describe('what is half typed', () => {
  test('is told, and set when the page is left or the field goes', () => {
    const onCommit = vi.fn();
    function Page({ open }: { open: boolean }) {
      return (
        <>
          <span>{useAnyPending() ? 'being typed' : 'saved'}</span>
          {open && <Length onCommit={onCommit} />}
        </>
      );
    }
    const { rerender } = render(<Page open />);
    expect(screen.getByText('saved')).toBeTruthy();
    put('high', '30 cm');
    expect(screen.getByText('being typed')).toBeTruthy();
    act(settlePending);
    expect(onCommit).toHaveBeenLastCalledWith(0.3);
    put('high', '40 cm');
    rerender(<Page open={false} />);
    expect(onCommit).toHaveBeenLastCalledWith(0.4);
    expect(screen.getByText('saved')).toBeTruthy();
  });

  test('never moves to another thing: it is set on the one it was typed for', () => {
    const set = vi.fn();
    const of = (thing: string) => <Length key={thing} onCommit={(m) => set(thing, m)} />;
    const { rerender } = render(of('A'));
    put('high', '30 cm');
    rerender(of('B'));
    expect(set.mock.calls).toEqual([['A', 0.3]]);
    expect(shownIn('high')).toBe('20 cm');
  });

  test('words count from the first key, as one step; Escape goes back to those before', () => {
    const commits: [string, string][] = [];
    function Notes() {
      const [note, setNote] = useState('dust');
      const put = (words: string, gesture: string) => {
        commits.push([words, gesture]);
        if (words === '') tellRefusal('There must be some.');
        else setNote(words);
      };
      return <WordsField label="notes" value={note} onCommit={put} />;
    }
    render(<Notes />);
    fireEvent.focus(screen.getByLabelText('notes'));
    put('notes', 'dust,');
    put('notes', 'dust, seam');
    expect(commits.map(([words]) => words)).toEqual(['dust,', 'dust, seam']);
    expect(commits[0]?.[1]).toBe(commits[1]?.[1]);
    put('notes', '');
    expect(screen.getByRole('alert').textContent).toBe('There must be some.');
    press('notes', 'Escape');
    expect(commits.at(-1)?.[0]).toBe('dust');
    expect(shownIn('notes')).toBe('dust');
  });
});

describe('a flash duration', () => {
  const light = demoSet('mill').lights[0] as unknown as Record<string, unknown>;
  function Form({ onChange }: { onChange: (value: Record<string, unknown>) => void }) {
    const [value, setValue] = useState<Record<string, unknown>>({ ...light, duration: undefined });
    const hidden = { has: (field: string) => field !== 'duration' } as ReadonlySet<string>;
    return (
      <SchemaForm
        schema={thingSchema('light')}
        value={value}
        hidden={hidden}
        onChange={(next) => {
          setValue(next);
          onChange(next);
        }}
      />
    );
  }
  const FULL = 'at full power, t0.1';

  test('starts empty, counts once it is whole, and is typed as data sheets say it; 0 is refused', () => {
    const onChange = vi.fn();
    render(<Form onChange={onChange} />);
    fireEvent.click(screen.getByRole('button', { name: 'Add' }));
    expect(shownIn(FULL)).toBe('');
    expect(onChange).not.toHaveBeenCalled();
    put(FULL, '0');
    press(FULL, 'Enter');
    expect(screen.getByRole('alert').textContent).toContain('1/1000000 to 1 s');
    put(FULL, '1.25 ms');
    press(FULL, 'Enter');
    expect(shownIn(FULL)).toBe('1/800');
    expect(onChange).not.toHaveBeenCalled();
    put('longer or shorter with power', '-1/5');
    press('longer or shorter with power', 'Enter');
    expect(onChange.mock.calls.at(-1)?.[0].duration).toEqual({ fullS: 0.00125, stopsPerStop: -0.2 });
  });
});
