import { enqueueSnackbar } from 'notistack';

let collected: string[] | null = null;

/** Tells why a change cannot be: at the field that was typed into, or else in a message of its own. */
export function tellRefusal(words: string): void {
  if (collected) collected.push(words);
  else enqueueSnackbar(words, { variant: 'warning', key: words, preventDuplicate: true });
}

/** Does something, and gives back what was refused meanwhile instead of telling it. */
export function refusalsOf(work: () => void): string[] {
  const before = collected;
  const own: string[] = [];
  collected = own;
  try {
    work();
  } finally {
    collected = before;
  }
  return own;
}
