/** Documents that could not be saved yet, kept in this browser until they are. */
const key = (id: string) => `fendrix.unsaved.${id}`;

interface Draft {
  revision: number;
  document: unknown;
}

export function keepDraft(id: string, revision: number, document: unknown): void {
  try {
    localStorage.setItem(key(id), JSON.stringify({ revision, document }));
  } catch {
    // A full or forbidden store keeps nothing; the save state still says that the server has not got it.
  }
}

export function dropDraft(id: string): void {
  try {
    localStorage.removeItem(key(id));
  } catch {
    // Nothing was kept.
  }
}

/** The document kept under an id, if it was made from this revision. */
export function readDraft(id: string, revision: number): unknown {
  try {
    const draft = JSON.parse(localStorage.getItem(key(id)) ?? 'null') as Draft | null;
    return draft?.revision === revision ? draft.document : null;
  } catch {
    return null;
  }
}
