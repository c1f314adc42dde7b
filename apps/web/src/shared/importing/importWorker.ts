import {
  FileError,
  heldMesh,
  type MeshOptions,
  meshProduct,
  readIes,
  readMesh,
  trianglesIn,
} from '@fendrix/files';

/** A file to be read, and what came of it. */
export interface ToImport {
  name: string;
  bytes: Uint8Array;
  options: MeshOptions;
}

export type FromImport =
  | { ok: true; mesh: ReturnType<typeof meshProduct>; thinnedFrom: number | null }
  | { ok: true; measured: ReturnType<typeof readIes> }
  | { ok: false; why: string };

globalThis.addEventListener('message', ({ data }: MessageEvent<ToImport>) => {
  void read(data).then((answer) => globalThis.postMessage(answer));
});

async function read({ name, bytes, options }: ToImport): Promise<FromImport> {
  const title = name.replace(/\.\w+$/, '').slice(0, 80) || 'imported';
  try {
    if (/\.ies$/i.test(name)) {
      return { ok: true, measured: readIes(new TextDecoder('latin1').decode(bytes)) };
    }
    const whole = meshProduct('imported', title, await readMesh(name, bytes, options));
    const mesh = await heldMesh(whole);
    return { ok: true, mesh, thinnedFrom: mesh === whole ? null : trianglesIn(whole) };
  } catch (error) {
    return { ok: false, why: error instanceof FileError ? error.message : 'The file cannot be read.' };
  }
}
