import type { Job } from '@fendrix/contract';

/** What a job still has to ask the client, in the order it holds the work up. */
export function openQuestions({ brief, dueOn, products, shots, client }: Job): string[] {
  const questions: string[] = [];
  if (client === '') questions.push('Who is the client?');
  if (brief.need === '') questions.push('What is sold, to whom, and what should the pictures do?');
  if (brief.deliverables.length === 0) {
    questions.push('Where will the pictures run: which formats, in which pixel sizes?');
  }
  if (dueOn === undefined) questions.push('By when must they be there?');
  if (brief.pictures === undefined) questions.push('How many pictures are agreed?');
  else if (shots.length > 0 && shots.length !== brief.pictures) {
    questions.push(
      `${brief.pictures} pictures are agreed and ${shots.length} are listed: which number is right?`,
    );
  }
  if (brief.mood === '') questions.push('What mood: bright and airy, dark and moody, seasonal?');
  if (brief.references.length === 0) questions.push('Is there a picture whose look comes near?');
  if (brief.deliverables.length > 0 && brief.deliverables.every(({ copySide }) => copySide === 'none')) {
    questions.push('Will words stand in any of the pictures, and where?');
  }
  if (brief.supplied.length === 0 && products.length > 0) {
    questions.push('Which products does the client send, how many of each, and do they go back?');
  }
  for (const { name, arrived } of brief.supplied) {
    if (!arrived) questions.push(`When does “${name}” arrive?`);
  }
  for (const { name, minutesOnSet, spares } of products) {
    if (minutesOnSet !== undefined && spares === 0) questions.push(`Are there spares of “${name}”?`);
  }
  return questions;
}
