import { writeFile } from 'node:fs/promises';
import { setInSpace } from '@fendrix/core';
import { encodeSetGltf } from '@fendrix/files';
import { InputError, readSet, readWords } from '../input.js';

/** Writes a set as binary glTF: bodies, camera, lights with hints. */
export async function gltf(words: string[]): Promise<unknown> {
  const { values, positionals } = readWords(words, { out: { type: 'string' } }, 1);
  const { out } = values;
  if (!out?.toLowerCase().endsWith('.glb')) throw new InputError('--out: name a .glb file');
  const space = setInSpace(await readSet(positionals[0] ?? ''));
  const bytes = await encodeSetGltf(space);
  await writeFile(out, bytes).catch((error: Error) => {
    throw new InputError(`--out: ${out} cannot be written. ${error.message}`);
  });
  return { out, things: space.things.length, lights: space.lights.length, bytes: bytes.length };
}
