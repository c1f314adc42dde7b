import { startEarly } from '../features/bench/early';

// The first page opens the set that was worked on last.
if (/^\/(sets\/[^/]+)?$/.test(window.location.pathname)) startEarly();
import('./page').catch(() => {
  document.body.textContent =
    'Fendrix could not be loaded. See that its server runs, and load the page again.';
});
