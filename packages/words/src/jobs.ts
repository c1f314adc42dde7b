import type { JobProgress } from '@fendrix/contract';
import type { OpenQuestion } from '@fendrix/core';

/** What comes next in a job. */
export function progressWords({ state, picture, waiting }: JobProgress): string {
  switch (state) {
    case 'archived':
      return 'Archived';
    case 'delivered':
      return 'Send back the products, then put it away';
    case 'brief':
      return 'Ask which formats are wanted';
    case 'products':
      return 'Add the products';
    case 'shots':
      return 'List the pictures';
    case 'camera':
      return `Place the camera for “${picture}”`;
    case 'shooting':
      return `Shoot “${picture}” (${waiting} to go)`;
    case 'delivery':
      return 'Deliver the pictures';
  }
}

/** A question to the client. */
export function questionWords(question: OpenQuestion): string {
  switch (question.code) {
    case 'which-count':
      return `${question.agreed} pictures are agreed and ${question.listed} are listed: which number is right?`;
    case 'arrival':
      return `When does “${question.name}” arrive?`;
    case 'spares':
      return `Are there spares of “${question.name}”?`;
    default:
      return QUESTIONS[question.code];
  }
}

const QUESTIONS: Record<Exclude<OpenQuestion, { name: string } | { agreed: number }>['code'], string> = {
  client: 'Who is the client?',
  need: 'What is sold, to whom, and what should the pictures do?',
  formats: 'Where will the pictures run: which formats, in which pixel sizes?',
  due: 'By when must they be there?',
  count: 'How many pictures are agreed?',
  mood: 'What mood: bright and airy, dark and moody, seasonal?',
  reference: 'Is there a picture whose look comes near?',
  words: 'Will words stand in any of the pictures, and where?',
  supplied: 'Which products does the client send, how many of each, and do they go back?',
};
