import { z } from 'zod';

/** Identifier the server gives to a stored document. */
export const storedId = z.uuid();
