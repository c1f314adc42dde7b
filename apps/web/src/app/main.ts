import { startEarly } from '../features/bench/early';

// The first page opens the set that was worked on last.
if (/^\/(sets\/[^/]+)?$/.test(window.location.pathname)) startEarly();
void import('./page');
