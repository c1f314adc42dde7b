import type { SetDocument } from '@fendrix/contract';

/** A change of the set: from one document to the next, nothing else. */
export type Edit = (set: SetDocument) => SetDocument;
