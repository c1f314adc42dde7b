// @vitest-environment jsdom
import { defaultKit } from '@fendrix/catalogue';
import type { Product } from '@fendrix/contract';
import { MEASURED_FORMS } from '@fendrix/core';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, test, vi } from 'vitest';
import { EntryPicture } from '../src/features/kit/EntryPicture';
import { pointAfter, pointQuantity } from '../src/shared/form/PointsField';
import { MeasuredProduct } from '../src/shared/measured/MeasuredProduct';
import { productOfForm } from '../src/shared/measured/productOfForm';
import { productPreview } from '../src/shared/render/productPreview';
import { press, type } from './hands';
import { standInBrowser } from './openBench';

standInBrowser();
afterEach(cleanup);

function open(takes = true) {
  const onTake = vi.fn<(product: Product) => boolean>(() => takes);
  const onClose = vi.fn();
  render(<MeasuredProduct takeWords="Put it on the set" onTake={onTake} onClose={onClose} />);
  const choose = (form: string) => fireEvent.click(screen.getByRole('radio', { name: form }));
  return { onTake, onClose, choose };
}

describe('a product by its measures', () => {
  test('a form is chosen, measured in millimetres or with units, and put on the set', () => {
    const { onTake, onClose, choose } = open();
    choose('Drinks can');
    type('width', '58');
    type('height', '14.5 cm');
    press('Put it on the set');
    const [can] = onTake.mock.lastCall ?? [];
    if (can?.kind !== 'turned') throw new Error('a can is turned');
    expect(Math.max(...can.profile.map(({ radiusM }) => radiusM))).toBeCloseTo(0.029, 9);
    expect(can.profile.at(-1)?.heightM).toBeCloseTo(0.145, 9);
    expect(onClose).toHaveBeenCalled();
  });

  test('measures that do not go together are refused at the field, in words, and the form stays as it was', () => {
    const { onTake } = open();
    type('neck height', '40 cm');
    expect(screen.getByText(/With 40 cm it cannot be: /).textContent).not.toMatch(/profile\[|heightM/);
    fireEvent.keyDown(screen.getByLabelText('neck height'), { key: 'Escape' });
    press('Put it on the set');
    expect(onTake.mock.lastCall?.[0]).toEqual(
      (productOfForm(MEASURED_FORMS[0] as never, {}) as { product: Product }).product,
    );
  });

  test('another form starts from its own usual measures; where the set refuses it the dialog stays', () => {
    const { onClose, choose } = open(false);
    type('width', '90');
    choose('Jar');
    expect(screen.getByLabelText<HTMLInputElement>('width').value).toBe('7.5 cm');
    press('Put it on the set');
    expect(onClose).not.toHaveBeenCalled();
  });

  test.each(MEASURED_FORMS.map((form) => [form.id, form] as const))(
    '%s has a preview of it alone',
    (_id, form) => {
      const { product } = productOfForm(form, {}) as { product: Product };
      const preview = productPreview(product);
      expect(preview.products).toEqual([product]);
      expect(preview.camera.positionM[1]).toBeLessThan(0);
    },
  );
});

describe('pictures in lists', () => {
  const drawn = defaultKit().entries.filter(({ what }) => what === 'light' || what === 'sheet');
  test.each(drawn.map((entry) => [entry.id, entry] as const))(
    '%s is drawn within its place',
    (_id, entry) => {
      const { container } = render(<EntryPicture entry={entry} />);
      const paths = [...container.querySelectorAll('path')];
      expect(paths.length).toBeGreaterThan(0);
      for (const path of paths) {
        const figures = (path.getAttribute('d') ?? '').match(/-?[\d.]+/g)?.map(Number) ?? [];
        expect(figures.every((value) => value >= -1 && value <= 73)).toBe(true);
      }
    },
  );

  test('products and materials are made when they are looked at, not before; equipment has none', () => {
    const of = (what: string) => defaultKit().entries.find((entry) => entry.what === what);
    for (const what of ['product', 'material', 'equipment']) {
      const entry = of(what);
      if (!entry) throw new Error(`the kit has ${what}`);
      const { container } = render(<EntryPicture entry={entry} />);
      expect(container.querySelector('canvas')).toBeNull();
      cleanup();
    }
  });
});

describe('points of a path', () => {
  test('are shown and typed as three lengths', () => {
    expect(pointQuantity.format([0.02, 0, -0.05])).toBe('2 cm / 0 cm / -5 cm');
    expect(pointQuantity.parse('2 cm / 0 / -50 mm')).toEqual([0.02, 0, -0.05]);
    expect(pointQuantity.parse('2,5 cm; 1 cm; 3 cm')).toEqual([0.025, 0.01, 0.03]);
    expect([pointQuantity.parse('2 cm / 3 cm'), pointQuantity.parse('a / b / c')]).toEqual([null, null]);
  });

  test('one more stands half way to the next, after the last on by the last step', () => {
    const path = [
      [0, 0, 0],
      [0.02, 0, 0.04],
    ];
    expect(pointAfter(path, 0)).toEqual([0.01, 0, 0.02]);
    expect(pointAfter(path, 1)).toEqual([0.04, 0, 0.08]);
    expect(pointAfter([[0.1, 0, 0]], 0)[0]).toBeCloseTo(0.11, 9);
  });
});
