import { bench } from './commands/bench.js';
import { convert } from './commands/convert.js';
import { example } from './commands/example.js';
import { measure } from './commands/measure.js';
import { probe } from './commands/probe.js';
import { render } from './commands/render.js';
import { schema } from './commands/schema.js';
import { InputError } from './input.js';

const commands: Record<string, { usage: string; run(words: string[]): unknown }> = {
  schema: { usage: 'schema', run: schema },
  example: { usage: 'example --list | example NAME', run: example },
  measure: { usage: 'measure SET.json [--samples N --seed S]', run: measure },
  probe: { usage: 'probe SET.json --point x,y,z --normal x,y,z [--direct --samples N --seed S]', run: probe },
  render: {
    usage:
      'render SET.json --out F.png|F.pfm|F.hdr [--size WxH --samples N --seed S --threads T --light TAG]',
    run: render,
  },
  convert: { usage: 'convert FILE.ies|.glb|.gltf|.obj|.stl [--unit mm --up y|z]', run: convert },
  bench: { usage: 'bench [--threads T --scene NAME --reference N --kernel]', run: bench },
};

const usage = `usage: fendrix COMMAND\n${Object.values(commands)
  .map((command) => `  ${command.usage}`)
  .join('\n')}`;

async function main([name = '', ...words]: string[]): Promise<void> {
  const command = commands[name];
  if (!command) throw new InputError(name === '' ? usage : `there is no command "${name}"\n${usage}`);
  const answer = await command.run(words);
  process.stdout.write(`${JSON.stringify(answer, finiteNumbers, 2)}\n`);
}

/** JSON knows no infinity; an unlimited or absent value is null. */
function finiteNumbers(_key: string, value: unknown): unknown {
  return typeof value === 'number' && !Number.isFinite(value) ? null : value;
}

main(process.argv.slice(2)).catch((error: unknown) => {
  const message = error instanceof Error ? error.message : String(error);
  process.stderr.write(`fendrix: ${message}\n`);
  process.exitCode = 2;
});
