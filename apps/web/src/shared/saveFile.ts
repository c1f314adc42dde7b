import { fileStem } from '@fendrix/words';

/** A name of a file with its ending. */
export const fileName = (name: string, extension: string): string => `${fileStem(name)}.${extension}`;

/** Gives something out as a file, without the server. */
export function saveFile(content: Blob | string, name: string, type = 'text/plain'): void {
  const url = URL.createObjectURL(content instanceof Blob ? content : new Blob([content], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}
