// What the commands share: checks Node, installs what is missing, finds a browser.
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
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

/** Compiles the engine to WebAssembly unless its sources are as they were the last time. */
export function ensureEngine() {
  const folders = ['packages/core/src/engine', 'packages/core/wasm'];
  const sum = createHash('sha256');
  for (const folder of folders) {
    for (const name of readdirSync(join(root, folder)).sort()) {
      if (name !== 'engineBytes.ts') sum.update(readFileSync(join(root, folder, name)));
    }
  }
  const state = sum.digest('hex');
  const stamp = join(root, 'node_modules', '.fendrix-engine');
  const made = existsSync(join(root, 'packages/core/src/engine/engineBytes.ts'));
  if (made && existsSync(stamp) && readFileSync(stamp, 'utf8') === state) return;
  process.stderr.write('Compiling the engine\n');
  const done = spawnSync(process.execPath, ['packages/core/wasm/build.mjs'], {
    cwd: root,
    stdio: ['ignore', 2, 2],
  });
  if (done.status !== 0) giveUp('the engine could not be compiled; see the lines above');
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
