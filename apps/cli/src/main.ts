import { Command, CommanderError, Option } from 'commander';
import { check } from './commands/check';
import { emit, TARGETS } from './commands/emit';
import { listNodes } from './commands/nodes';
import { CONSOLE, type ExitCode, type Output } from './output';
import { BadFile } from './read-file';

/** Runs the command line; never ends the process itself. */
export async function main(args: readonly string[], output: Output = CONSOLE): Promise<ExitCode> {
  let code: ExitCode = 0;
  const program = new Command('brelvin')
    .description('Checks and compiles Brelvin materials.\n\nExit codes: 0 fine, 1 findings or bad input, 2 wrong usage.')
    .exitOverride()
    .configureOutput({ writeOut: (text) => output.out(text.trimEnd()), writeErr: (text) => output.err(text.trimEnd()) });
  program
    .command('nodes')
    .description('list the kinds of nodes')
    .option('--json', 'for programs')
    .option('--markdown', 'as a page to read')
    .action((options: { json?: boolean; markdown?: boolean }) => {
      code = listNodes(options, output);
    });
  program
    .command('check')
    .description('read and compile files, and say what is wrong with them')
    .argument('<file...>', 'Brelvin files, or shading code (.glsl, .vert, .frag)')
    .option('--json', 'for programs')
    .action(async (files: string[], options: { json?: boolean }) => {
      code = await check(files, options, output);
    });
  program
    .command('emit')
    .description('write a material as programs of a target')
    .argument('<file>', 'a Brelvin material')
    .addOption(new Option('--target <target>', 'the language').choices(TARGETS).makeOptionMandatory())
    .requiredOption('--out <dir>', 'the folder to write into')
    .action(async (file: string, options: { out: string }) => {
      code = await emit(file, options, output);
    });
  try {
    await program.parseAsync([...args], { from: 'user' });
    return code;
  } catch (error) {
    if (error instanceof CommanderError) return error.exitCode === 0 ? 0 : 2;
    if (!(error instanceof BadFile)) throw error;
    output.err(error.message);
    return 1;
  }
}
