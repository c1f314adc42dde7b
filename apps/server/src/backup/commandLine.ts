import { createReadStream, existsSync } from 'node:fs';
import { basename, resolve } from 'node:path';
import { backupName } from '@fendrix/contract';
import { ConfigError, readConfig } from '../config.js';
import { openDatabase } from '../db/database.js';
import { AppError } from '../errors.js';
import { type Backups, createBackups } from './backups.js';

const USAGE = `usage: npm run -s backup -- COMMAND
  list                what there is
  make                back the whole studio up into one file
  verify NAME         read all of one against its checksums
  look NAME           what putting it back would change
  bring FILE.zip      take a file in from elsewhere
  restore NAME --yes  put it in the place of the studio, which is backed up before
The folders are those of the server: FENDRIX_DATA, FENDRIX_BACKUPS.`;

/** Backups without the page, also while the server runs. Answers are JSON. */
async function main([command = '', name = '', yes = '']: string[]): Promise<unknown> {
  const config = readConfig(process.env);
  if (!('file' in config.database))
    throw new ConfigError('this studio is kept on a database server: it is backed up there');
  const database = await openDatabase(`file:${config.database.file}`);
  try {
    const backups = createBackups({ database, pictureFolder: config.pictureFolder, ...config.backups });
    return await answer(backups, command, name, yes);
  } finally {
    await database.close();
  }
}

async function answer(backups: Backups, command: string, name: string, yes: string): Promise<unknown> {
  switch (command) {
    case 'list':
      return backups.list();
    case 'make':
      return backups.make('by hand');
    case 'bring':
      return backups.bring(createReadStream(fileNamed(name)), new AbortController().signal);
    case 'verify':
      return backups.verify(named(name));
    case 'look':
      return backups.look(named(name));
    case 'restore':
      if (yes !== '--yes')
        throw new ConfigError('look at it first, then say restore NAME --yes: it replaces the whole studio');
      return backups.restore(named(name));
    default:
      throw new ConfigError(USAGE);
  }
}

/** File names are meant from where the command was typed. */
function fileNamed(name: string): string {
  const path = resolve(process.env.INIT_CWD ?? '.', name);
  if (name !== '' && existsSync(path)) return path;
  throw new ConfigError(`there is no file "${name}"`);
}

function named(name: string): string {
  const checked = backupName.safeParse(basename(name));
  if (checked.success) return checked.data;
  throw new ConfigError(`"${name}" is no name of a backup; "list" shows them`);
}

main(process.argv.slice(2)).then(
  (told) => process.stdout.write(`${JSON.stringify(told, null, 2)}\n`),
  (error: unknown) => {
    const hint = error instanceof AppError && error.details.hint ? ` ${error.details.hint}` : '';
    process.stderr.write(`fendrix: ${error instanceof Error ? error.message : String(error)}${hint}\n`);
    process.exitCode = 2;
  },
);
