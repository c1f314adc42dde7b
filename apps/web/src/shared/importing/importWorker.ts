import { FileError, type MeshOptions, meshProduct, readIes, readMesh } from '@fendrix/files';

/** A file to be read, and what came of it. */
export interface ToImport {
  name: string;
  bytes: Uint8Array;
  options: MeshOptions;
}

export type FromImport =
  | { ok: true; mesh: ReturnType<typeof meshProduct> }
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
    return { ok: true, mesh: meshProduct('imported', title, await readMesh(name, bytes, options)) };
  } catch (error) {
    return { ok: false, why: error instanceof FileError ? error.message : 'The file cannot be read.' };
  }
}
