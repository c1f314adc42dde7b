// Who may import whom (docs/decisions/imports.md). Reads every import of every module; a planted violation of
// each rule in fixtures/imports must be found, and modules must be found at all.
import { readdirSync, readFileSync, statSync } from 'node:fs';
import { dirname, join, posix, relative, sep } from 'node:path';
import { root } from './prepare.mjs';

/** Folder of the package, and what its sources may import beside their own files. */
const RULES = [
  { folder: 'packages/contract/src', may: [/^(lru-cache|zod)$/] },
  { folder: 'packages/core/src', may: [/^@fendrix\/contract$/, /^lru-cache$/], typesOnly: /^@fendrix\// },
  { folder: 'packages/catalogue/src', may: [/^@fendrix\/contract$/] },
  { folder: 'packages/words/src', may: [/^@fendrix\/(contract|core)$/] },
  {
    folder: 'packages/paper/src',
    may: [/^node:module$/, /^@fendrix\/(contract|core|words)$/, /^(pdfkit|qrcode)$/],
  },
  {
    folder: 'packages/files/src',
    may: [
      /^@fendrix\/contract$/,
      /^@gltf-transform\/(core|extensions)$/,
      /^fflate$/,
      /^meshoptimizer\/simplifier$/,
      /^three(\/|$)/,
    ],
  },
  {
    folder: 'packages/workers/src',
    may: [/^@fendrix\/(contract|core)$/, /^node:worker_threads$/, /^tsx\/esm\/api$/],
  },
  {
    folder: 'apps/server/src',
    may: [
      /^node:/,
      /^@fendrix\/(catalogue|contract|core|demo|demo\/broken|files|paper|words)$/,
      /^@fendrix\/workers(\/node)?$/,
      /^(@koa\/|koa|drizzle-orm|@libsql\/|pino|zod)/,
      /^(sharp|yauzl|yazl|papaparse|raw-body|rate-limiter-flexible|lru-cache|chokidar|exifreader)$/,
    ],
  },
  {
    folder: 'apps/cli/src',
    may: [
      /^node:/,
      /^@fendrix\/(catalogue|contract|core|demo|demo\/broken|files|paper|words)$/,
      /^@fendrix\/workers(\/node)?$/,
      /^(sharp|three|three-mesh-bvh)$/,
    ],
  },
  {
    folder: 'apps/web/src',
    may: [
      /^@fendrix\/(catalogue|contract|core|files|words)$/,
      /^@fendrix\/workers(\/browser)?$/,
      /^(react|react-dom|react-redux|react-router|react-hotkeys-hook|redux-undo|notistack|echarts|three|papaparse|ics|qrcode\.react|react-speech-recognition|fast-deep-equal|fast-png|fflate|idb-keyval|lru-cache)(\/|$)/,
      /^(@mui\/|@emotion\/|@reduxjs\/|@fontsource-variable\/|@use-gesture\/|@react-three\/)/,
    ],
  },
  { folder: 'demo', may: [/^@fendrix\/(contract|core)$/] },
  {
    folder: 'e2e',
    may: [/^node:/, /^@playwright\/test$/, /^@axe-core\/playwright$/, /^fflate$/, /^@fendrix\/contract$/],
  },
];

/** Folders of the core, each of which may import only those before it: none goes round in a circle. */
const CORE_ORDER = [
  'units',
  'colour',
  'engine',
  'optics',
  'photometry',
  'exposure',
  'formats',
  'geometry',
  'trace',
  'render',
  'mirror',
  'judge',
  'record',
  'plates',
  'plan',
  'setSheet',
  'solve',
  'verdicts',
  'calibrate',
  'standIns',
  'compare',
];

const IMPORT =
  /(?:^|\n)\s*(?:import|export)\s+(type\s+)?(?:[^'"`;]*?\sfrom\s+)?['"]([^'"]+)['"]|import\(\s*['"]([^'"]+)['"]\s*\)|new URL\(\s*['"](\.[^'"]+\.ts)['"]/g;

function modulesIn(folder) {
  return readdirSync(folder).flatMap((name) => {
    if (name === 'node_modules' || name === 'dist' || name === 'test') return [];
    const path = join(folder, name);
    if (statSync(path).isDirectory()) return modulesIn(path);
    return /\.(ts|tsx|mts|mjs)$/.test(name) && !/\.config\.ts$/.test(name) ? [path] : [];
  });
}

function importsOf(text) {
  return [...text.matchAll(IMPORT)].map(([, type, from, dynamic, url]) => ({
    name: from ?? dynamic ?? url,
    typeOnly: type !== undefined,
  }));
}

/** Violations in one module, as sentences. @param within the package's folder, real or planted */
function violations(rule, within, path, text) {
  const found = [];
  for (const { name, typeOnly } of importsOf(text)) {
    if (name.startsWith('.')) {
      const target = posix.normalize(
        posix.join(relative(within, dirname(path)).split(sep).join('/') || '.', name),
      );
      if (target.startsWith('..')) found.push(`${path}: ${name} leaves ${rule.folder}`);
      else if (rule.folder === 'packages/core/src')
        found.push(...orderViolations(within, path, target, name));
      else if (rule.folder === 'apps/web/src') found.push(...featureViolations(within, path, target, name));
      continue;
    }
    if (!rule.may.some((pattern) => pattern.test(name)))
      found.push(`${path}: ${rule.folder} may not import ${name}`);
    else if (rule.typesOnly?.test(name) && !typeOnly) {
      found.push(`${path}: ${rule.folder} may import types of ${name} only`);
    }
  }
  return found;
}

/** What stands by itself, as errors and the index, is not in a folder and has no place in the order. */
function orderViolations(within, path, target, name) {
  const folderOf = (module) => (module.includes('/') ? module.split('/')[0] : null);
  const [own, other] = [folderOf(relative(within, path).split(sep).join('/')), folderOf(target)];
  if (own === null || other === null) return [];
  const unknown = [own, other].find((folder) => !CORE_ORDER.includes(folder));
  if (unknown) return [`${path}: the core's folder ${unknown} has no place in the order`];
  return CORE_ORDER.indexOf(other) > CORE_ORDER.indexOf(own)
    ? [`${path}: ${own} may not import ${name}, which comes after it`]
    : [];
}

/** Features and shared code know nothing of the app; a feature reaches another through its index. */
function featureViolations(within, path, target, name) {
  const from = relative(within, path).split(sep).join('/');
  const own = /^features\/([^/]+)/.exec(from)?.[1];
  const other = /^features\/([^/]+)(\/(.*))?$/.exec(target);
  const inApp = from.startsWith('app/');
  if (!inApp && target.startsWith('app/')) return [`${path}: only the app itself may import ${name}`];
  if (!other) return [];
  if (from.startsWith('shared/')) return [`${path}: shared code may not import the feature ${name}`];
  // The app loads what a feature keeps in pages.ts when it is asked for, and starts what it keeps in early.ts before all else.
  const doors = inApp ? /^(index|pages|early)(\.\w+)?$/ : /^index(\.\w+)?$/;
  const deep = other[3] !== undefined && !doors.test(other[3]);
  return other[1] !== own && deep ? [`${path}: ${name} reaches past the index of another feature`] : [];
}

let modules = 0;
const found = [];
for (const rule of RULES) {
  const folder = join(root, rule.folder);
  for (const path of modulesIn(folder)) {
    modules++;
    found.push(...violations(rule, folder, path, readFileSync(path, 'utf8')));
  }
}
for (const line of found) console.error(line);

const missed = [];
const planted = join(root, 'fixtures', 'imports');
for (const rule of RULES) {
  const within = join(planted, rule.folder);
  const paths = modulesIn(within);
  if (paths.length === 0) missed.push(`${rule.folder}: nothing is planted`);
  for (const path of paths) {
    if (violations(rule, within, path, readFileSync(path, 'utf8')).length === 0)
      missed.push(`${path}: not found`);
  }
}
for (const line of missed) console.error(`a planted violation went unseen: ${line}`);
if (modules < 50) console.error(`only ${modules} modules were seen`);
if (found.length > 0 || missed.length > 0 || modules < 50) process.exit(1);
console.log(`${modules} modules keep the import rules; every planted violation was found`);
