import { messageOf } from '@fendrix/workers';
import { InputError } from './input.js';

/** Each command is read when it is asked for: most need little of what is here. */
const commands: Record<string, { usage: string; load(): Promise<(words: string[]) => unknown> }> = {
  schema: {
    usage: 'schema [set|job|kit|backup]',
    load: async () => (await import('./commands/schema.js')).schema,
  },
  example: {
    usage: 'example --list | example NAME',
    load: async () => (await import('./commands/example.js')).example,
  },
  measure: {
    usage: 'measure SET.json [--samples N --seed S]',
    load: async () => (await import('./commands/measure.js')).measure,
  },
  probe: {
    usage: 'probe SET.json --point x,y,z --normal x,y,z [--direct --samples N --seed S]',
    load: async () => (await import('./commands/probe.js')).probe,
  },
  judge: {
    usage: 'judge SET.json [--cures --cure ID --samples N]',
    load: async () => (await import('./commands/judge.js')).judge,
  },
  render: {
    usage:
      'render SET.json --out F.png|.jpg|.tif|.exr|.pfm|.hdr [--size WxH --samples N --seed S --threads T --light TAG --whole-paths --smooth]',
    load: async () => (await import('./commands/render.js')).render,
  },
  plates: {
    usage: 'plates SET.json --out FOLDER [--size WxH --samples N --seed S --threads T --masks-only]',
    load: async () => (await import('./commands/plates.js')).plates,
  },
  'set-sheet': {
    usage: 'set-sheet SET.json --out F.pdf [--paper a4|letter --size WxH --samples N --seed S --threads T]',
    load: async () => (await import('./commands/setSheet.js')).setSheet,
  },
  gltf: {
    usage: 'gltf SET.json --out F.glb',
    load: async () => (await import('./commands/gltf.js')).gltf,
  },
  convert: {
    usage: 'convert FILE.ies|.glb|.gltf|.obj|.stl [--unit mm --up y|z]',
    load: async () => (await import('./commands/convert.js')).convert,
  },
  bench: {
    usage: 'bench [--threads T --scene NAME --reference N --kernel]',
    load: async () => (await import('./commands/bench.js')).bench,
  },
};

const usage = `usage: fendrix COMMAND\n${Object.values(commands)
  .map((command) => `  ${command.usage}`)
  .join('\n')}`;

async function main([name = '', ...words]: string[]): Promise<void> {
  const command = commands[name];
  if (!command) throw new InputError(name === '' ? usage : `there is no command "${name}"\n${usage}`);
  const run = await command.load();
  const answer = await run(words);
  process.stdout.write(`${JSON.stringify(answer, finiteNumbers, 2)}\n`);
}

/** JSON knows no infinity; an unlimited or absent value is null. */
function finiteNumbers(_key: string, value: unknown): unknown {
  return typeof value === 'number' && !Number.isFinite(value) ? null : value;
}

main(process.argv.slice(2)).catch((error: unknown) => {
  const message = messageOf(error);
  process.stderr.write(`fendrix: ${message}\n`);
  process.exitCode = 2;
});
