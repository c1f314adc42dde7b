import { randomUUID } from 'node:crypto';
import { type Job, type SetDocument, type Stored, storedId } from '@fendrix/contract';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import papaparse from 'papaparse';
import type { Database } from '../db/database.js';
import { jobs, sets } from '../db/schema.js';
import { AppError } from '../errors.js';
import { type JobStore, jobColumns } from './jobs.js';
import type { CheckedPicture, PictureStore } from './pictures.js';
import type { SetStore } from './sets.js';

/** Largest archive taken, and largest sum of what is in it, bytes. */
export const MOST_ARCHIVE_BYTES = 300_000_000;
const MOST_UNPACKED_BYTES = 600_000_000;
const MOST_FILES = 2000;

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

/** Everything of a job as one ZIP: documents as JSON, pictures as they are, tables as CSV. */
export async function packJob(stores: Stores, id: string): Promise<{ name: string; bytes: Uint8Array }> {
  const { document } = await stores.jobs.read(id);
  const files: Record<string, [Uint8Array, { level: 0 | 6 }]> = {
    'contents.txt': [strToU8(contents(document)), { level: 6 }],
    'job.json': [json(document), { level: 6 }],
  };
  for (const setId of setsOf(document)) {
    const found = await stores.sets.read(setId).catch(() => null);
    if (found) files[`sets/${setId}.json`] = [json(found.document), { level: 6 }];
  }
  for (const sha256 of picturesOf(document)) {
    const { mediaType } = await stores.pictures.find(sha256);
    const data = await stores.pictures.bytes(sha256);
    // Pictures are packed already.
    files[`pictures/${sha256}.${mediaType.slice('image/'.length)}`] = [new Uint8Array(data), { level: 0 }];
  }
  for (const [name, rows] of Object.entries(tablesOf(document))) {
    files[`tables/${name}.csv`] = [strToU8(papaparse.unparse(rows, { escapeFormulae: true })), { level: 6 }];
  }
  return {
    name: `${document.name.replace(/[^\p{L}\p{N} ,.-]/gu, '').trim() || 'job'}.zip`,
    bytes: zipSync(files),
  };
}

/**
 * Reads an archive into a new job. All of it is checked before anything is written, and written at once: a bad
 * archive leaves nothing behind.
 * @throws {AppError} no archive of a job, foreign files, damaged documents or pictures, too large
 */
export async function unpackJob(stores: Stores, archive: Uint8Array): Promise<Stored<Job>> {
  const files = unpacked(archive);
  const own = files['job.json'];
  if (!own) throw refused('it holds no job.json.');
  const document = stores.jobs.require(parsed('job.json', own));
  const documents = new Map<string, SetDocument>();
  const pictures: CheckedPicture[] = [];
  for (const [name, data] of Object.entries(files)) {
    if (name.startsWith('sets/')) documents.set(name.slice(5, -5), stores.sets.require(parsed(name, data)));
    if (!name.startsWith('pictures/')) continue;
    const picture = await stores.pictures.check(data);
    if (name.slice(9, 73) !== picture.sha256) throw refused(`${name} does not hold what its name says.`);
    pictures.push(picture);
  }
  const held = new Set(pictures.map(({ sha256 }) => sha256));
  const lost = picturesOf(document).find((sha256) => !held.has(sha256));
  if (lost) throw refused(`the picture ${lost} is named and not there.`);

  const ids = new Map([...documents.keys()].map((id) => [id, randomUUID()]));
  const job: Job = {
    ...document,
    shots: document.shots.map(({ setId, ...shot }) => {
      const renewed = setId === undefined ? undefined : ids.get(setId);
      return renewed === undefined ? shot : { ...shot, setId: renewed };
    }),
  };
  for (const picture of pictures) await stores.pictures.keep(picture);
  const updatedAt = new Date().toISOString();
  const id = randomUUID();
  const row = {
    id,
    revision: 1,
    name: job.name,
    document: JSON.stringify(job),
    updatedAt,
    ...jobColumns(job),
  };
  await stores.database.write((query) =>
    query.batch([
      query.insert(jobs).values(row),
      ...[...documents].map(([old, set]) =>
        query.insert(sets).values({
          id: ids.get(old) as string,
          name: set.name,
          revision: 1,
          document: JSON.stringify(set),
          updatedAt,
        }),
      ),
    ]),
  );
  return { id, name: job.name, revision: 1, updatedAt, document: job };
}

function unpacked(archive: Uint8Array): Record<string, Uint8Array> {
  let [count, total] = [0, 0];
  try {
    return unzipSync(archive, {
      filter({ name, originalSize }) {
        if (!KNOWN_FILE.test(name)) throw refused(`“${name.slice(0, 80)}” does not belong in it.`);
        total += originalSize;
        if (++count > MOST_FILES || total > MOST_UNPACKED_BYTES) throw refused('it is too large unpacked.');
        return true;
      },
    });
  } catch (error) {
    if (error instanceof AppError) throw error;
    throw refused('it is damaged, or no ZIP file.');
  }
}

function parsed(name: string, data: Uint8Array): unknown {
  try {
    return JSON.parse(strFromU8(data));
  } catch {
    throw refused(`${name} is not readable JSON.`);
  }
}

const refused = (why: string) =>
  new AppError('bad-input', `This archive was not read: ${why}`, {
    hint: 'Choose a file that was exported from a job. Nothing was changed.',
  });

const json = (value: unknown) => strToU8(`${JSON.stringify(value, null, 2)}\n`);

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

const contents = ({ name }: Job) => `Fendrix job “${name}”

job.json     the job: brief, products, pictures to take; lengths in metres
sets         one JSON document for each set, frame of reference: the mark, +x camera right, +y away, +z up
pictures     reference pictures, named by the SHA-256 of their bytes
tables       the same as CSV for reading elsewhere
`;
