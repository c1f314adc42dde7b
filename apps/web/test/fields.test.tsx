// @vitest-environment jsdom
import { parseLengthM } from '@fendrix/core';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, test, vi } from 'vitest';
import { Explained } from '../src/shared/Explained';
import { QuantityField } from '../src/shared/QuantityField';
import { Tag } from '../src/shared/Tag';

afterEach(cleanup);

function openField() {
  const onCommit = vi.fn();
  render(
    <QuantityField
      label="distance from centre"
      shown="45 cm"
      parse={(text) => parseLengthM(text)}
      example="78 cm"
      onCommit={onCommit}
    />,
  );
  const input = screen.getByLabelText('distance from centre') as HTMLInputElement;
  const type = (value: string) => fireEvent.change(input, { target: { value } });
  return { input, type, onCommit };
}

describe('a number with its unit', () => {
  test('Enter sets it, in metres', () => {
    const { input, type, onCommit } = openField();
    type('18 in');
    fireEvent.keyDown(input, { key: 'Enter' });
    expect(onCommit).toHaveBeenCalledWith(expect.closeTo(0.4572, 9));
  });

  test('leaving it sets it; leaving it as it was does nothing', () => {
    const { input, type, onCommit } = openField();
    fireEvent.blur(input);
    type('45 cm');
    fireEvent.blur(input);
    expect(onCommit).not.toHaveBeenCalled();
    type('1m20');
    fireEvent.blur(input);
    expect(onCommit).toHaveBeenCalledWith(expect.closeTo(1.2, 9));
  });

  test('what is not understood is told and not set; Escape takes it back', () => {
    const { input, type, onCommit } = openField();
    type('far');
    fireEvent.keyDown(input, { key: 'Enter' });
    expect(screen.getByRole('alert').textContent).toContain('78 cm');
    expect(input.getAttribute('aria-invalid')).toBe('true');
    fireEvent.keyDown(input, { key: 'Escape' });
    expect(screen.queryByRole('alert')).toBeNull();
    expect(input.value).toBe('45 cm');
    expect(onCommit).not.toHaveBeenCalled();
  });

  test('Escape leaves the field first, and what is around it only when nothing is being typed', () => {
    const around = vi.fn();
    render(
      <div onKeyDown={({ key }) => around(key)} role="dialog">
        <QuantityField label="high" shown="20 cm" parse={parseLengthM} example="30 cm" onCommit={vi.fn()} />
      </div>,
    );
    const input = screen.getByLabelText('high') as HTMLInputElement;
    fireEvent.change(input, { target: { value: '5 m' } });
    fireEvent.keyDown(input, { key: 'Escape' });
    expect(input.value).toBe('20 cm');
    expect(around).not.toHaveBeenCalled();
    fireEvent.keyDown(input, { key: 'm' });
    expect(around).not.toHaveBeenCalled();
    fireEvent.keyDown(input, { key: 'Escape' });
    expect(around).toHaveBeenCalledWith('Escape');
  });
});

test('a computed number explains itself when pressed', () => {
  render(
    <Explained label="close-focus loss" value="0.20 stop">
      2 log2(1 + m/p)
    </Explained>,
  );
  expect(screen.queryByText(/log2/)).toBeNull();
  fireEvent.click(screen.getByRole('button', { name: 'close-focus loss 0.20 stop' }));
  expect(screen.getByText(/log2/)).toBeTruthy();
});

test('a tag reads aloud as what it is', () => {
  render(<Tag>A</Tag>);
  expect(screen.getByRole('img', { name: 'tag A' })).toBeTruthy();
});
