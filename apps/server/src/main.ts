import { createServer } from 'node:http';
import { pino } from 'pino';
import { createApp } from './app.js';
import { clearCutOff, createBackups } from './backup/backups.js';
import { type Config, ConfigError, readConfig } from './config.js';
import { openDatabase, openOrSetAside } from './db/database.js';
import { loadDemoOnce } from './demoData.js';
import { collectLongTexts } from './domain/longTexts.js';
import { collectPictures } from './domain/pictures.js';

/** Time open requests get to finish when the server is told to stop, ms. */
const GRACE_MS = 3000;

const openConfigured = async ({ database }: Config) =>
  'file' in database
    ? openOrSetAside(database.file)
    : { database: await openDatabase(database.url, database.token), setAside: null };

async function main(): Promise<void> {
  const config = readConfig(process.env);
  const log = pino({ level: process.env.FENDRIX_LOG ?? 'warn' }, pino.destination(2));
  const { database, setAside } = await openConfigured(config).catch((error: Error) => {
    const where = 'file' in config.database ? config.database.file : config.database.url;
    throw new ConfigError(`the database ${where} cannot be opened: ${error.message}`);
  });
  if (setAside) {
    process.stderr.write(
      `fendrix: the database was damaged and is set aside as ${setAside}; nothing of it is deleted. Fendrix begins with an empty one: put a backup back on the page Backups.\n`,
    );
  }
  if (config.demo) await loadDemoOnce(database);
  const { webRoot, hosts, origins, pictureFolder } = config;
  const gone = await collectPictures(database, pictureFolder);
  await collectLongTexts(database);
  if (gone.unfinished + gone.unused > 0) log.info(gone, 'pictures cleared');
  await clearCutOff(config.backups.folder);
  // A database server is backed up by its own means.
  const keep = 'file' in config.database ? config.backups.keep : 0;
  const backups = createBackups({ database, pictureFolder, setAside, folder: config.backups.folder, keep });
  const endDaily = backups.startDaily((error) => log.error({ err: error }, 'the daily backup failed'));
  const { app, close } = createApp({
    database,
    backups,
    log,
    pictureFolder,
    hosts,
    origins,
    setSide: config.setSide,
    frames: config.frames,
    ...(webRoot ? { webRoot } : {}),
  });
  const server = createServer(app.callback());
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(config.port, config.host, resolve);
  }).catch(async (error: NodeJS.ErrnoException) => {
    await database.close();
    if (error.code !== 'EADDRINUSE') throw error;
    throw new ConfigError(`port ${config.port} is in use; stop the other program or set FENDRIX_PORT`);
  });
  process.stdout.write(`Fendrix is at http://${config.host}:${config.port}\n`);

  let stopping = false;
  const stop = () => {
    if (stopping) return;
    stopping = true;
    endDaily();
    const closed = close();
    server.close(() => void closed.then(() => database.close()).then(() => process.exit(0)));
    server.closeIdleConnections();
    setTimeout(() => server.closeAllConnections(), GRACE_MS).unref();
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
}

main().catch((error: unknown) => {
  const line =
    error instanceof ConfigError ? error.message : error instanceof Error ? error.stack : String(error);
  process.stderr.write(`fendrix: ${line}\n`);
  process.exitCode = 1;
});
