import { defaultKit } from '@fendrix/catalogue';
import { checkDocument, type Kit, kitDocument, type StoredKit } from '@fendrix/contract';
import { and, eq } from 'drizzle-orm';
import type { Database } from '../db/database.js';
import { kits } from '../db/schema.js';
import { AppError } from '../errors.js';

/** The studio's kit: one document with revisions. */
export interface KitStore {
  /** Revision 0 is the kit a studio starts with. */
  read(): Promise<StoredKit>;
  /** Saves over the revision given; an older one is refused. */
  save(revision: number, document: unknown): Promise<StoredKit>;
}

const ONLY = 1;

export function createKitStore(database: Database): KitStore {
  async function read(): Promise<StoredKit> {
    const [row] = await database.query.select().from(kits).where(eq(kits.id, ONLY)).limit(1);
    if (!row) return { revision: 0, document: defaultKit() };
    return { revision: row.revision, document: readableKit(row.document) };
  }

  return {
    read,
    async save(revision, document) {
      const checked = requireKit(document);
      const text = JSON.stringify(checked);
      const row = { id: ONLY, revision: revision + 1, document: text };
      const saved = await database.write((query) =>
        revision === 0
          ? query.insert(kits).values(row).onConflictDoNothing().returning({ revision: kits.revision })
          : query
              .update(kits)
              .set(row)
              .where(and(eq(kits.id, ONLY), eq(kits.revision, revision)))
              .returning({ revision: kits.revision }),
      );
      if (saved.length > 0) return { revision: revision + 1, document: checked };
      throw new AppError('conflict', 'The kit was changed elsewhere in the meantime.', {
        hint: 'Read it anew, then make your change again.',
      });
    },
  };
}

/** The kit as it is stored; told why where it cannot be read. */
function readableKit(text: string): Kit {
  try {
    return requireKit(JSON.parse(text));
  } catch (error) {
    const problems = error instanceof AppError ? (error.details.problems ?? []) : [];
    throw new AppError('unreadable', 'The kit is stored in a way that cannot be read.', {
      hint: 'It is left as it is: mend it in a copy of the database, or put one from a backup in its place.',
      problems,
    });
  }
}

function requireKit(data: unknown): Kit {
  const checked = checkDocument(kitDocument, data);
  if (checked.ok) return checked.value;
  throw new AppError('bad-input', 'The kit is not valid.', {
    hint: 'Mend the fields named; nothing was saved.',
    problems: checked.problems,
  });
}
