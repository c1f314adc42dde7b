/** A file from outside that cannot be used; the message says what is wrong, where, and what would help. */
export class FileError extends Error {
  override readonly name = 'FileError';
  constructor(
    message: string,
    /** Line the trouble is in, from 1, where the file has lines. */
    readonly line?: number,
  ) {
    super(line === undefined ? message : `Line ${line}: ${message}`);
  }
}
