// npm run -s fendrix -- COMMAND: the command line; standard output is its JSON only.
import { checkNode, ensureCommandLine, ensureMade, ensurePackages, run } from './prepare.mjs';

checkNode();
ensurePackages();
ensureMade();
// File names are meant from where the command was typed, not from the project's folder.
const typedIn = process.env.INIT_CWD ?? process.cwd();
process.exitCode = await run(process.execPath, [ensureCommandLine(), ...process.argv.slice(2)], {}, typedIn);
