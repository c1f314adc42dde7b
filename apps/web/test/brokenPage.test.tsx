// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react';
import { createMemoryRouter, type RouteObject, RouterProvider } from 'react-router';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { routes } from '../src/app/routes';

beforeEach(() => void vi.spyOn(console, 'error').mockImplementation(() => undefined));
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

/** The places of the application with one more that fails. */
async function open(fails: () => never, lazy = false) {
  const place = lazy ? { lazy: async () => fails() } : { Component: () => fails() };
  const [root] = routes;
  const children = [{ path: '/broken', ...place }, ...(root?.children ?? [])];
  const router = createMemoryRouter([{ ...root, children } as RouteObject], { initialEntries: ['/broken'] });
  render(<RouterProvider router={router} />);
  return screen.findByRole('heading', { level: 1 });
}

test('a page that cannot be drawn says what is kept, shows the reason and leads on', async () => {
  const heading = await open(() => {
    throw new Error('no such figure');
  });
  expect(heading.textContent).toBe('This page has a fault');
  expect(screen.getByText(/kept in this browser/)).toBeDefined();
  expect(screen.getByText('no such figure')).toBeDefined();
  expect(screen.getByRole('link', { name: 'All sets' }).getAttribute('href')).toBe('/sets');
});

test('a part that did not come is told apart from a fault', async () => {
  const heading = await open(() => {
    throw new TypeError('Failed to fetch dynamically imported module: http://127.0.0.1/assets/pages-1.js');
  }, true);
  expect(heading.textContent).toBe('This page could not be loaded');
  expect(screen.getByRole('button', { name: 'Load it again' })).toBeDefined();
  expect(screen.queryByText(/assets/)).toBeNull();
});
