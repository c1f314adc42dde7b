// @vitest-environment jsdom
import { defaultKit } from '@fendrix/catalogue';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { afterEach, describe, expect, test, vi } from 'vitest';
import { SchemaForm } from '../src/shared/form/SchemaForm';
import { cameraSchema, type Schema, surroundingSchema, thingSchema } from '../src/shared/form/schema';

afterEach(cleanup);

type Values = Record<string, unknown>;

function entry(id: string) {
  const found = defaultKit().entries.find((candidate) => candidate.id === id);
  if (!found) throw new Error(`the kit has ${id}`);
  return found;
}

/** The form over a value of its own; what it was last told. */
function open(id: string, hidden: string[] = []) {
  const { what, thing } = entry(id);
  const told = vi.fn<(value: Values) => void>();
  function Held() {
    const [value, setValue] = useState(thing as unknown as Values);
    const change = (next: Values) => {
      told(next);
      setValue(next);
    };
    return <SchemaForm schema={thingSchema(what)} value={value} hidden={new Set(hidden)} onChange={change} />;
  }
  render(<Held />);
  const type = (label: string, text: string) => {
    const input = screen.getByLabelText(label, { exact: true });
    fireEvent.change(input, { target: { value: text } });
    fireEvent.keyDown(input, { key: 'Enter' });
  };
  return { told, type, last: () => told.mock.lastCall?.[0] as Values };
}

describe('fields from the schema', () => {
  test('numbers carry the unit of their field and are typed with it', () => {
    const { type, last } = open('softbox-40x60');
    expect((screen.getByLabelText('width') as HTMLInputElement).value).toBe('40 cm');
    type('width', '18 in');
    expect(last().widthM).toBeCloseTo(0.4572, 9);
    type('modifier efficiency', '40 %');
    expect((last().output as Values).modifierEfficiency).toBeCloseTo(0.4, 9);
  });

  test('every number of a fixed list says what it is, and a part of a whole is in percent whatever its name', () => {
    const lists: Schema[] = [];
    const walk = (schema: Schema): void => {
      if (schema.prefixItems) lists.push(schema);
      for (const inner of Object.values(schema)) {
        if (typeof inner === 'object' && inner !== null) walk(inner as Schema);
      }
    };
    for (const what of ['light', 'sheet', 'product', 'material'] as const) walk(thingSchema(what));
    for (const what of ['bench', 'backdrop', 'room'] as const) walk(surroundingSchema(what));
    walk(cameraSchema());
    expect(lists.length).toBeGreaterThan(10);
    for (const { axes, prefixItems } of lists) {
      // Points of a path are drawn, not typed number by number.
      if (axes) expect(axes.length).toBeGreaterThanOrEqual(prefixItems?.length ?? 0);
      else expect(prefixItems).toHaveLength(2);
    }
    const { type, last } = open('reflective-tape');
    expect((screen.getByLabelText('returned') as HTMLInputElement).value).toBe('35 %');
    type('returned', '50 %');
    expect(last()).toMatchObject({ returned: 0.5 });
  });

  test('a direction is told by where it leads, never as a colour', () => {
    const towards = [0.5, 0.5, -0.7];
    const sun = { towards, temperatureK: 5500, illuminanceLx: 40000 };
    const { thing } = entry('window-overcast');
    render(<SchemaForm schema={thingSchema('light')} value={{ ...thing, sun }} onChange={() => {}} />);
    for (const axis of ['right', 'away', 'up'])
      expect(screen.getByLabelText(`towards, ${axis}`)).toBeTruthy();
    expect(screen.queryByLabelText(/towards, (red|green|blue)/)).toBeNull();
  });

  test('points of a path are changed, put in and taken out', () => {
    const { type, last } = open('chain');
    const before = (entry('chain').thing as unknown as { pathM: number[][] }).pathM;
    type('point 2', '1 cm / 2 cm / 3 cm');
    expect((last().pathM as number[][])[1]).toEqual([0.01, 0.02, 0.03]);
    fireEvent.click(screen.getByRole('button', { name: 'Add a point after point 1' }));
    expect(last().pathM as number[][]).toHaveLength(before.length + 1);
    fireEvent.click(screen.getByRole('button', { name: 'Remove point 2' }));
    expect((last().pathM as number[][])[1]).toEqual([0.01, 0.02, 0.03]);
  });

  test('what is not understood is told and changes nothing', () => {
    const { type, told } = open('softbox-40x60');
    type('hot centre', 'very');
    expect(screen.getByRole('alert').textContent).toContain('Not understood');
    expect(told).not.toHaveBeenCalled();
  });

  test('hidden fields are not there; what can be left out is added and removed', () => {
    const { last } = open('softbox-40x60', ['name', 'positionM']);
    expect(screen.queryByLabelText('name')).toBeNull();
    expect(screen.queryByLabelText('position, right')).toBeNull();
    const row = screen.getByText('grid').parentElement as HTMLElement;
    fireEvent.click(row.querySelector('button') as HTMLElement);
    expect(last().grid).toMatchObject({ cutoffDeg: 60, lossStops: 0.5 });
    fireEvent.click(screen.getByRole('button', { name: 'Remove grid' }));
    expect(last()).not.toHaveProperty('grid');
  });

  test('a figure that need not be there says so when it is not, and goes when its field is emptied', () => {
    const { type, last } = open('softbox-40x60', ['modelling']);
    type('draws from the mains', '');
    expect(last()).not.toHaveProperty('drawW');
    const field = screen.getByLabelText('draws from the mains') as HTMLInputElement;
    expect([field.value, field.placeholder]).toEqual(['', 'not given']);
    type('draws from the mains', '650');
    expect(last().drawW).toBe(650);
    expect(field.value).toBe('650 W');
    type('draws from the mains', '-1');
    expect(screen.getByRole('alert').textContent).not.toBe('');
    expect(last().drawW).toBe(650);
  });

  test('another kind of output starts with figures of its own', () => {
    const { last } = open('softbox-40x60');
    fireEvent.change(screen.getAllByLabelText('kind')[0] as HTMLElement, {
      target: { value: 'guide-number' },
    });
    expect(last().output).toEqual({ kind: 'guide-number', guideNumberM: 40 });
  });

  test('a reflectance is grey, or red, green and blue', () => {
    const { type, last } = open('white-paper');
    fireEvent.click(screen.getByRole('button', { name: 'In colour' }));
    expect(last().reflectance).toEqual([0.82, 0.82, 0.82]);
    type('reflectance, blue', '60 %');
    expect(last().reflectance).toEqual([0.82, 0.82, 0.6]);
    fireEvent.click(screen.getByRole('button', { name: 'Grey' }));
    expect(last().reflectance).toBe(0.82);
  });

  test('lists grow and shrink, words in them too', () => {
    const { last } = open('round-bottle', ['profile']);
    const words = screen.getAllByLabelText('lines')[1] as HTMLElement;
    fireEvent.change(words, { target: { value: 'STORE' } });
    fireEvent.blur(words);
    const [label] = last().labels as { material: { tone: { lines: string[] } } }[];
    expect(label?.material.tone.lines).toEqual(['ODDVANE', 'STORE']);
  });

  test('the camera has its own: balance, filter, depth of field', () => {
    const told = vi.fn();
    const value = { whiteBalanceK: 5500, depthOfField: false };
    render(
      <SchemaForm
        schema={cameraSchema()}
        value={value}
        hidden={
          new Set(
            'body lens positionM aimM keepsDirection rollDeg focusM focusOn focusLocked fNumber shutterS iso rig crops'.split(
              ' ',
            ),
          )
        }
        onChange={told}
      />,
    );
    fireEvent.click(screen.getByRole('switch', { name: 'depth of field' }));
    expect(told).toHaveBeenLastCalledWith({ ...value, depthOfField: true });
    fireEvent.click(screen.getByRole('button', { name: 'Add' }));
    expect(told.mock.lastCall?.[0]).toHaveProperty('polariser');
  });
});

describe('seldom figures', () => {
  test.each([
    ['amber-glass', 'refractive index', 'roughness'],
    ['gloss-label', 'coat, refractive index', 'roughness'],
    ['beet-filling', 'mean free path', 'roughness'],
  ])('of %s stand under Advanced, closed: %s; %s does not', (id, seldom, usual) => {
    open(id);
    const advanced = screen.getByText('Advanced').closest('details');
    expect(advanced?.open).toBe(false);
    expect(advanced?.contains(screen.getByLabelText(seldom, { exact: true }))).toBe(true);
    expect(advanced?.contains(screen.getByLabelText(usual, { exact: true }))).toBe(false);
  });

  test('where there are none there is no such part', () => {
    open('white-paper');
    expect(screen.queryByText('Advanced')).toBeNull();
  });
});
