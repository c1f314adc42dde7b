/** A name that every file system takes, without its ending: letters, digits, spaces and a few signs. */
export const fileStem = (name: string): string => name.replace(/[^\p{L}\p{N} ,.-]/gu, '').trim() || 'Fendrix';
