import { randomUUID } from 'node:crypto';
import type { Readable } from 'node:stream';
import { type Job, type SetDocument, type Stored, storedId } from '@fendrix/contract';
import papaparse from 'papaparse';
import { ZipFile } from 'yazl';
import type { Database } from '../db/database.js';
import { jobs, sets } from '../db/schema.js';
import { AppError } from '../errors.js';
import { type ArchiveEntry, type ArchiveFile, receiveArchive, refusedArchive } from './archiveFile.js';
import { type JobStore, jobColumns } from './jobs.js';
import { keepLongTexts } from './longTexts.js';
import { MOST_PICTURE_BYTES, type PictureStore } from './pictures.js';
import type { SetStore } from './sets.js';

/** Largest document in an archive, bytes: more than a request may hold, since it is written with indents. */
const MOST_DOCUMENT_BYTES = 64_000_000;

const UUID = '[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}';
/** Every name an archive may hold. */
const KNOWN_FILE = new RegExp(
  `^(job\\.json|contents\\.txt|sets/${UUID}\\.json|pictures/[0-9a-f]{64}\\.(jpeg|png|webp)|tables/[a-z]+\\.csv)$`,
);

interface Stores {
  database: Database;
  jobs: JobStore;
  sets: SetStore;
  pictures: PictureStore;
}

/**
 * Everything of a job as one ZIP, written as it is read: documents as JSON, pictures as they are, tables as CSV. What is
 * named and cannot be read is left out, and said in contents.txt.
 */
export async function packJob(stores: Stores, id: string): Promise<{ name: string; bytes: Readable }> {
  const { document } = await stores.jobs.read(id);
  const zip = new ZipFile();
  const lost: string[] = [];
  const add = (name: string, text: string) => zip.addBuffer(Buffer.from(text), name, { mtime: STAMP });
  add('job.json', json(document));
  for (const setId of setsOf(document)) {
    const found = await stores.sets.read(setId).catch(unlessLost);
    if (found) add(`sets/${setId}.json`, json(found.document));
    else lost.push(`the set ${setId}: it cannot be read`);
  }
  for (const sha256 of picturesOf(document)) {
    const found = await stores.pictures.find(sha256).catch(unlessLost);
    if (!found) {
      const { name } = document.brief.references.find((one) => one.sha256 === sha256) ?? { name: sha256 };
      lost.push(`the reference picture “${name}”: its file is not there any more`);
      continue;
    }
    // Pictures are packed already.
    const inside = `pictures/${sha256}.${found.mediaType.slice('image/'.length)}`;
    zip.addFile(stores.pictures.path(sha256), inside, { compress: false, mtime: STAMP });
  }
  for (const [name, rows] of Object.entries(tablesOf(document))) {
    add(`tables/${name}.csv`, papaparse.unparse(rows, { escapeFormulae: true }));
  }
  add('contents.txt', contents(document, lost));
  zip.end();
  return {
    name: `${document.name.replace(/[^\p{L}\p{N} ,.-]/gu, '').trim() || 'job'}.zip`,
    bytes: zip.outputStream as Readable,
  };
}

/** What is gone or cannot be read is left out of an archive; any other failure ends it. */
function unlessLost(error: unknown): null {
  if (error instanceof AppError && (error.code === 'not-found' || error.code === 'unreadable')) return null;
  throw error;
}

/** The same job gives the same archive, whenever it is exported. */
const STAMP = new Date(Date.UTC(2000, 0, 1));

/**
 * Reads an archive into a new job. All of it is checked before anything is written, and written at once: a bad
 * archive leaves nothing behind. A reference whose picture is not in it stays without.
 * @param signal ends it, as when who sent it is gone
 * @throws {AppError} no archive of a job, foreign files, damaged documents or pictures, too large
 */
export async function unpackJob(stores: Stores, sent: Readable, signal: AbortSignal): Promise<Stored<Job>> {
  const archive = await receiveArchive(sent, (name) => KNOWN_FILE.test(name), signal);
  try {
    return await readIn(stores, archive);
  } finally {
    await archive.close();
  }
}

async function readIn(stores: Stores, { entries }: ArchiveFile): Promise<Stored<Job>> {
  const own = entries.get('job.json');
  if (!own) throw refusedArchive('it holds no job.json.');
  const document = stores.jobs.require(await parsed(own));
  const documents = new Map<string, SetDocument>();
  const pictures: ArchiveEntry[] = [];
  for (const entry of entries.values()) {
    const { name } = entry;
    if (name.startsWith('sets/')) documents.set(name.slice(5, -5), stores.sets.require(await parsed(entry)));
    if (!name.startsWith('pictures/')) continue;
    const { sha256 } = await stores.pictures.check(await entry.read(MOST_PICTURE_BYTES));
    if (name.slice(9, 73) !== sha256) throw refusedArchive(`${name} does not hold what its name says.`);
    pictures.push(entry);
  }
  const ids = new Map([...documents.keys()].map((id) => [id, randomUUID()]));
  const job: Job = {
    ...document,
    shots: document.shots.map(({ setId, ...shot }) => {
      const renewed = setId === undefined ? undefined : ids.get(setId);
      return renewed === undefined ? shot : { ...shot, setId: renewed };
    }),
  };
  // One after the other, read once more: all of them together need not fit into memory.
  for (const entry of pictures) {
    await stores.pictures.keep(await stores.pictures.check(await entry.read(MOST_PICTURE_BYTES)));
  }
  const updatedAt = new Date().toISOString();
  const id = randomUUID();
  const rows: (typeof sets.$inferInsert)[] = [];
  for (const [old, set] of documents) {
    const text = await keepLongTexts(stores.database, set);
    rows.push({ id: ids.get(old) as string, name: set.name, revision: 1, document: text, updatedAt });
  }
  const row = {
    id,
    revision: 1,
    name: job.name,
    document: JSON.stringify(job),
    updatedAt,
    ...jobColumns(job),
  };
  await stores.database.write((query) =>
    query.batch([query.insert(jobs).values(row), ...rows.map((values) => query.insert(sets).values(values))]),
  );
  return { id, name: job.name, revision: 1, updatedAt, document: job };
}

async function parsed(entry: ArchiveEntry): Promise<unknown> {
  const data = await entry.read(MOST_DOCUMENT_BYTES);
  try {
    return JSON.parse(Buffer.from(data).toString('utf8'));
  } catch {
    throw refusedArchive(`${entry.name} is not readable JSON.`);
  }
}

const json = (value: unknown) => `${JSON.stringify(value, null, 2)}\n`;

const setsOf = ({ shots }: Job) =>
  new Set(shots.map(({ setId }) => setId).filter((id) => storedId.safeParse(id).success) as string[]);

const picturesOf = ({ brief }: Job) => [...new Set(brief.references.map(({ sha256 }) => sha256))];

function tablesOf({ brief, products, shots }: Job): Record<string, object[]> {
  return {
    formats: brief.deliverables.map(({ id: _id, ...format }) => format),
    products: products.map(({ name, goods, detail, shine, clear, fragile, minutesOnSet, spares }) => ({
      name,
      goods,
      detail,
      shine,
      clear,
      fragile,
      minutesOnSet: minutesOnSet ?? '',
      spares,
    })),
    shots: shots.map(
      ({ name, products: of, purpose, view, tiltDeg, deliverables, look, props, plates, minutes, done }) => ({
        name,
        products: of.join(' '),
        purpose,
        view,
        tiltDeg,
        formats: deliverables.join(' '),
        look,
        props,
        plates: plates.join(', '),
        minutes,
        done: done ? 'yes' : 'no',
      }),
    ),
  };
}

const contents = ({ name }: Job, lost: readonly string[]) => `Fendrix job “${name}”

job.json     the job: brief, products, pictures to take; lengths in metres
sets         one JSON document for each set, frame of reference: the centre, +x camera right, +y away, +z up
pictures     reference pictures, named by the SHA-256 of their bytes
tables       the same as CSV for reading elsewhere
${lost.length === 0 ? '' : `\nNot in it:\n${lost.map((what) => `- ${what}\n`).join('')}`}`;
