/** Takes a broken rule: the field to mend, and a sentence with the cure. */
export type Report = (path: PropertyKey[], message: string) => void;
