// What the commands share: checks Node, installs what is missing, finds a browser.
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = dirname(dirname(fileURLToPath(import.meta.url)));

const LEAST_NODE = [20, 19];
const BROWSERS = ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'];

/** Ends the program with one clear line. */
export function giveUp(message) {
  process.stderr.write(`fendrix: ${message}\n`);
  process.exit(1);
}

export function checkNode() {
  const [major = 0, minor = 0] = process.versions.node.split('.').map(Number);
  if (major > LEAST_NODE[0] || (major === LEAST_NODE[0] && minor >= LEAST_NODE[1])) return;
  giveUp(`Node ${process.versions.node} is too old; install Node ${LEAST_NODE.join('.')} or newer`);
}

/** Installs the packages of the lock file unless they are already there. Speaks on standard error only. */
export function ensurePackages() {
  const stamp = join(root, 'node_modules', '.fendrix-lock');
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  process.stderr.write('Installing packages\n');
  const done = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: root,
    stdio: ['ignore', 2, 2],
  });
  if (done.status !== 0) giveUp('the packages could not be installed; see the lines above');
  writeFileSync(stamp, lock);
}

/** Makes what is made of sources and not kept: the engine as WebAssembly, the outlines of the typefaces. */
export function ensureMade() {
  compileEngine();
  drawTypefaces();
}

/** Unless its script and its fonts are as they were the last time. */
function drawTypefaces() {
  const made = 'packages/core/src/geometry/lettering/faces.ts';
  unlessAsBefore('typefaces', made, ['packages/core/type/build.mjs', 'packages/core/package.json'], () => {
    process.stderr.write('Drawing the typefaces\n');
    const done = runNode('packages/core/type/build.mjs');
    if (done.status !== 0) giveUp('the typefaces could not be drawn; see the lines above');
  });
}

/** Unless its sources are as they were the last time. */
function compileEngine() {
  const made = 'packages/core/src/engine/engineBytes.ts';
  const sources = ['packages/core/src/engine', 'packages/core/wasm'].flatMap(filesIn);
  unlessAsBefore('engine', made, sources, () => {
    process.stderr.write('Compiling the engine\n');
    const done = runNode('packages/core/wasm/build.mjs');
    if (done.status !== 0) giveUp('the engine could not be compiled; see the lines above');
  });
}

/**
 * Bundles the command line unless its sources are as they were the last time.
 * @returns path of the program
 */
export function ensureCommandLine() {
  const folder = 'apps/cli/dist';
  const packages = readdirSync(join(root, 'packages')).map((name) => `packages/${name}/src`);
  const sources = ['apps/cli/src', 'demo', ...packages].flatMap(filesIn);
  unlessAsBefore('cli', folder, [...sources, 'apps/cli/vite.config.ts', 'package-lock.json'], () => {
    process.stderr.write('Building the command line\n');
    // Beside the last one until it is whole: another command may be starting.
    const fresh = `${folder}-${process.pid}`;
    const words = ['build', 'apps/cli', '--outDir', join(root, fresh), '--logLevel', 'error'];
    const done = runNode('node_modules/vite/bin/vite.js', ...words);
    if (done.status !== 0) giveUp('the command line could not be built; see the lines above');
    rmSync(join(root, folder), { recursive: true, force: true });
    renameSync(join(root, fresh), join(root, folder));
  });
  return join(root, folder, 'fendrix.mjs');
}

const runNode = (...words) => spawnSync(process.execPath, words, { cwd: root, stdio: ['ignore', 2, 2] });

/** Files of a folder and the folders in it, from the project's root. */
const filesIn = (folder) =>
  readdirSync(join(root, folder), { withFileTypes: true, recursive: true })
    .filter((entry) => entry.isFile())
    .map((entry) => join(relative(root, entry.parentPath), entry.name));

/** Makes something from sources unless it is there and they are as they were the last time. */
function unlessAsBefore(name, made, sources, make) {
  const sum = createHash('sha256');
  for (const source of sources.sort()) {
    if (source !== made) sum.update(`${source}\n`).update(readFileSync(join(root, source)));
  }
  const state = sum.digest('hex');
  const stamp = join(root, 'node_modules', `.fendrix-${name}`);
  if (existsSync(join(root, made)) && existsSync(stamp) && readFileSync(stamp, 'utf8') === state) return;
  make();
  writeFileSync(stamp, state);
}

/** Path of a Chromium; installed from Debian's packages when there is none. */
export function ensureBrowser() {
  const find = () => process.env.FENDRIX_BROWSER ?? BROWSERS.find((path) => existsSync(path));
  const found = find();
  if (found) return found;
  process.stderr.write('Installing Chromium from the Debian packages\n');
  const sudo = process.getuid?.() === 0 ? [] : ['sudo', '-n'];
  for (const words of [
    ['apt-get', 'update', '-qq'],
    ['apt-get', 'install', '-y', '-qq', '--no-install-recommends', 'chromium'],
  ]) {
    const [command, ...rest] = [...sudo, ...words];
    const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
    spawnSync(command, rest, { stdio: ['ignore', 'ignore', 2], env });
  }
  return (
    find() ?? giveUp('no Chromium was found or could be installed; set FENDRIX_BROWSER to the path of one')
  );
}

/** Runs a program of the project with its output shown; resolves with its exit code. */
export function run(command, words, env = {}, cwd = root) {
  return new Promise((resolve) => {
    const child = spawn(command, words, { cwd, stdio: 'inherit', env: { ...process.env, ...env } });
    const pass = (signal) => child.kill(signal);
    process.on('SIGINT', pass);
    process.on('SIGTERM', pass);
    child.on('error', () => resolve(1));
    child.on('exit', (code) => {
      process.off('SIGINT', pass);
      process.off('SIGTERM', pass);
      resolve(code ?? 0);
    });
  });
}

export const bin = (name) => join(root, 'node_modules', '.bin', name);
