import { checkDocument, type SetDocument, setDocument } from '@fendrix/contract';
import { problemWords } from '../../shared/document/problemWords';

/** A set that is longer as text is not taken: the server would not either, bytes. */
const MOST_BYTES = 24_000_000;

/** A set from a file, or why it was not read. */
export async function readSetFile(file: File): Promise<{ set: SetDocument } | { refused: string }> {
  const refused = (why: string) => ({ refused: `“${file.name}” was not read: ${why}` });
  if (file.size > MOST_BYTES) return refused('a set is at most 24 MB.');
  let parsed: unknown;
  try {
    parsed = JSON.parse(await file.text());
  } catch {
    return refused('it is no JSON. Choose a file that was exported from a set.');
  }
  if (!isSetFile(parsed)) return refused('it is no set. Choose a file that was exported from a set.');
  const checked = checkDocument(setDocument, parsed);
  if (checked.ok) return { set: checked.value };
  const [problem] = checked.problems;
  return refused(problem ? problemWords(problem, parsed) : 'it is damaged.');
}

const isSetFile = (parsed: unknown): boolean =>
  typeof parsed === 'object' && parsed !== null && 'format' in parsed && parsed.format === 'fendrix-set';
