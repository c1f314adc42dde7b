import type { Job } from '@fendrix/contract';

/** Something a job still has to ask the client. */
export type OpenQuestion =
  | { code: 'client' | 'need' | 'formats' | 'due' | 'count' | 'mood' | 'reference' | 'words' | 'supplied' }
  | { code: 'which-count'; agreed: number; listed: number }
  | { code: 'arrival' | 'spares'; name: string };

/** What a job still has to ask the client, in the order it holds the work up. */
export function openQuestions({ brief, dueOn, products, shots, client }: Job): OpenQuestion[] {
  const questions: OpenQuestion[] = [];
  const ask = (code: Exclude<OpenQuestion, { name: string } | { agreed: number }>['code']) =>
    questions.push({ code });
  if (client === '') ask('client');
  if (brief.need === '') ask('need');
  if (brief.deliverables.length === 0) ask('formats');
  if (dueOn === undefined) ask('due');
  if (brief.pictures === undefined) ask('count');
  else if (shots.length > 0 && shots.length !== brief.pictures) {
    questions.push({ code: 'which-count', agreed: brief.pictures, listed: shots.length });
  }
  if (brief.mood === '') ask('mood');
  if (brief.references.length === 0) ask('reference');
  if (brief.deliverables.length > 0 && brief.deliverables.every(({ copySide }) => copySide === 'none')) {
    ask('words');
  }
  if (brief.supplied.length === 0 && products.length > 0) ask('supplied');
  for (const { name, arrived } of brief.supplied) if (!arrived) questions.push({ code: 'arrival', name });
  for (const { name, minutesOnSet, spares } of products) {
    if (minutesOnSet !== undefined && spares === 0) questions.push({ code: 'spares', name });
  }
  return questions;
}
