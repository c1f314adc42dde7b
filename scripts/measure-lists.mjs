// npm run measure-lists: how long the server takes to list jobs, with 500 jobs of 50 pictures each in a database of its own.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { checkNode, ensurePackages, root, run } from './prepare.mjs';

const JOBS = 500;
const PICTURES = 50;
const ASKED = 50;

checkNode();
ensurePackages();
const port = '4294';
const address = `http://127.0.0.1:${port}/api/jobs`;
const data = mkdtempSync(join(tmpdir(), 'fendrix-lists-'));
void run(process.execPath, ['--import', 'tsx', join(root, 'apps/server/src/main.ts')], {
  FENDRIX_PORT: port,
  FENDRIX_DATA: data,
  FENDRIX_DEMO: '1',
});
await untilAnswering();
const [first] = (await ask('?limit=1')).jobs;
const { document } = await ask(`/${first.id}`);
const shots = Array.from({ length: PICTURES }, (_, i) => ({
  ...document.shots[i % document.shots.length],
  id: `picture-${i}`,
}));
for (let i = 0; i < JOBS; i++) {
  await ask('', { document: { ...document, name: `Shelf ${i}`, client: `Client ${i % 40}`, shots } });
}
const figures = {
  'first page of 20': await median('?limit=20'),
  'a page of 100 in the middle': await median('?limit=100&offset=250'),
  'found by client': await median('?search=Client%2017&limit=20'),
  'one job, whole': await median(`/${first.id}`),
};
process.stdout.write(
  `${JSON.stringify({ jobs: JOBS, picturesEach: PICTURES, milliseconds: figures }, null, 2)}\n`,
);
rmSync(data, { recursive: true, force: true });
process.kill(process.pid, 'SIGTERM');

async function ask(path, body) {
  const answer = await fetch(`${address}${path}`, {
    ...(body
      ? { method: 'POST', body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }
      : {}),
  });
  if (!answer.ok) throw new Error(`${path}: ${answer.status} ${await answer.text()}`);
  return answer.json();
}

/** Middle of the times from question to whole answer, ms. */
async function median(path) {
  const times = [];
  for (let i = 0; i < ASKED; i++) {
    const start = performance.now();
    await ask(path);
    times.push(performance.now() - start);
  }
  return Math.round(10 * times.sort((a, b) => a - b)[ASKED >> 1]) / 10;
}

async function untilAnswering() {
  for (let tries = 0; tries < 120; tries++) {
    const answer = await fetch(address).catch(() => null);
    if (answer?.ok) return;
    await new Promise((resolve) => setTimeout(resolve, 500));
  }
  throw new Error('the server gave no answer');
}
