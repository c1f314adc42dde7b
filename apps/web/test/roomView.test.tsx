// @vitest-environment jsdom
import { defaultKit } from '@fendrix/catalogue';
import { fireEvent, render, screen } from '@testing-library/react';
import { SnackbarProvider } from 'notistack';
import { Provider } from 'react-redux';
import { MemoryRouter } from 'react-router';
import { describe, expect, test } from 'vitest';
import { createStore } from '../src/app/createStore';
import { kitApi } from '../src/features/kit';
import { RoomView } from '../src/features/room';
import { type } from './hands';
import { standInBrowser } from './openBench';

standInBrowser();

const SAVE_FAILED = /server|wrong|went/i;

/** The room page over the usual kit; there is no server, which a save would tell. */
async function open() {
  const { store } = createStore();
  const kit = defaultKit();
  await store.dispatch(kitApi.util.upsertQueryData('readKit', undefined, { revision: 0, document: kit }));
  render(
    <Provider store={store}>
      <SnackbarProvider>
        <MemoryRouter>
          <RoomView />
        </MemoryRouter>
      </SnackbarProvider>
    </Provider>,
  );
  await screen.findByText('Walls, ceiling, floor');
}

describe('the room of the studio', () => {
  test('its walls, ceiling and floor go by name, as they are painted', async () => {
    await open();
    const list = (name: string) => screen.getByRole('combobox', { name });
    expect(list('walls').textContent).toBe('off-white');
    expect(list('ceiling').textContent).toBe('white');
    expect(list('floor').textContent).toBe('wood');
    expect(list('tabletop').textContent).toBe('Grey laminate');
  });

  test.each([
    ['centre to left wall', '9 m', /centre outside of the room/],
    ['centre to front wall', '2m80', /centre outside of the room/],
    ['depth', '1.5 m', /centre outside of the room/],
    ['height', '70 cm', /above the ceiling/],
  ])('%s of %s, where no set could stand, is told and not saved', async (label, typed, words) => {
    await open();
    const field = screen.getAllByLabelText(label, { exact: true })[0] as HTMLInputElement;
    fireEvent.change(field, { target: { value: typed } });
    fireEvent.keyDown(field, { key: 'Enter' });
    expect(await screen.findByText(words)).toBeTruthy();
    await new Promise((resolve) => setTimeout(resolve, 50));
    expect(screen.queryByText(SAVE_FAILED)).toBeNull();
  });

  test('a table of another height is saved: here, that there is no server is told', async () => {
    await open();
    type('table height', '90 cm');
    expect(await screen.findByText(SAVE_FAILED)).toBeTruthy();
  });
});
