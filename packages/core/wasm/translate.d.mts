export class TranslationError extends Error {}

export function singleFields(sources: Record<string, string>): Set<string>;

export function translate(file: string, source: string, fields?: Set<string>): string;
