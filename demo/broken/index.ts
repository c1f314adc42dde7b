export { type BrokenSet, brokenSets } from './faults.js';
export { type SoundSet, soundSets } from './sound.js';
