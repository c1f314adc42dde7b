// @vitest-environment jsdom
import { defaultKit } from '@fendrix/catalogue';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { Provider } from 'react-redux';
import { afterEach, expect, test, vi } from 'vitest';
import { createStore } from '../src/app/createStore';
import { AddProduct } from '../src/features/jobs/products/AddProduct';
import { kitApi } from '../src/features/kit';

afterEach(cleanup);

test('a form is found by name and taken; where none is called so, that is said with what to do', async () => {
  const { store } = createStore();
  const kit = { revision: 0, document: defaultKit() };
  await store.dispatch(kitApi.util.upsertQueryData('readKit', undefined, kit));
  const take = vi.fn();
  render(
    <Provider store={store}>
      <AddProduct onTake={take} onClose={() => {}} />
    </Provider>,
  );
  const search = screen.getByLabelText(/A form that comes near/);
  fireEvent.change(search, { target: { value: 'bicycle' } });
  expect(screen.getByText(/No form in the kit is called or good for “bicycle”/)).toBeTruthy();
  fireEvent.change(search, { target: { value: 'folded linen' } });
  expect(screen.queryByText(/No form in the kit/)).toBeNull();
  fireEvent.click(screen.getByRole('button', { name: /Folded linen/ }));
  expect(take).toHaveBeenCalledWith(expect.objectContaining({ kind: 'cloth' }), 'garment');
});
