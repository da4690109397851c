import { TARGETS, type PictureSize } from '@brelvin/core';
import { Command, CommanderError, InvalidArgumentError, Option } from 'commander';
import { budgetOf, type CheckedBudget } from './budget';
import { check } from './commands/check';
import { compare, type CompareOptions } from './commands/compare';
import { writeDemos } from './commands/demos';
import { sayDevice } from './commands/device';
import { emit, type EmitOptions } from './commands/emit';
import { fuzz, LEGS, type FuzzOptions } from './commands/fuzz';
import { listNodes } from './commands/nodes';
import { cameraOf, passesOf, pictureSize, render, type RenderOptions } from './commands/render';
import { watch } from './commands/watch';
import { CONSOLE, type ExitCode, type Output } from './output';
import { BadFile } from './read-file';

/** Runs the command line; never ends the process itself. */
export async function main(args: readonly string[], output: Output = CONSOLE, stop?: AbortSignal): Promise<ExitCode> {
  let code: ExitCode = 0;
  const program = new Command('brelvin')
    .description('Checks, compiles, draws and compares Brelvin materials.\n\nExit codes: 0 fine, 1 findings or bad input, 2 wrong usage.')
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
    .argument('<file...>', 'Brelvin files, or shading code (.glsl, .wgsl, .vert, .frag)')
    .option('--json', 'for programs')
    .option('--warnings-fine', 'end with 0 where there are warnings only')
    .addOption(
      new Option(
        '--budget <bounds>',
        'what materials may cost at each pixel: reads=16,instructions=2000, under one light or lights=3; ms=4 for 1920x1080 here',
      ).argParser((text: string) => argument(() => budgetOf(text))),
    )
    .action(async (files: string[], options: { json?: boolean; warningsFine?: boolean; budget?: CheckedBudget }) => {
      code = await check(files, options, output);
    });
  program
    .command('emit')
    .description('write a material as programs of a target, with source maps and a list of what they read')
    .argument('<file>', 'a Brelvin material, or its code (.glsl, .wgsl, .vert, .frag)')
    .addOption(new Option('--target <target>', 'the language').choices(Object.keys(TARGETS)).makeOptionMandatory())
    .requiredOption('--out <dir>', 'the folder to write into')
    .action(async (file: string, options: EmitOptions) => {
      code = await emit(file, options, output);
    });
  program
    .command('render')
    .description('draw a material, set or light rig as a PNG or scene-linear OpenEXR file, or as a sequence of them')
    .argument('<file>', 'a Brelvin file, best one with its set and light rig; or a material’s code')
    .requiredOption('--out <file>', 'the picture; of a sequence with a number before its ending')
    .option('--set <file>', 'the set to stand it in')
    .option('--rig <file>', 'the light rig')
    .option('--view <name>', 'a saved view of the set; without one, what the Library shows')
    .addOption(
      new Option('--camera <json>', 'where the eye is, as it stands in sets, in place of a view').argParser((text: string) =>
        argument(() => cameraOf(text)),
      ),
    )
    .addOption(new Option('--size <size>', 'pixels, width x height').argParser(sizeOf).default(pictureSize('512x512'), '512x512'))
    .option('--time <seconds>', 'of what moves', anyNumber, 0)
    .option('--parameter <name=value>', 'a parameter of the material; may be given several times', gathered, [])
    .option('--frames <number>', 'draw a sequence of so many', countOf)
    .option('--fps <number>', 'pictures of a sequence in a second', countOf, 24)
    .addOption(
      new Option(
        '--passes <names>',
        'layers of an OpenEXR file: terms for all of light, or ambient, diffuse, …; normal (world space), depth (metres), part (numbers)',
      )
        .argParser(passes)
        .default([], 'none'),
    )
    .option('--progress', 'say how far it is, as lines of “progress 0.5”')
    .action(async (file: string, options: RenderOptions) => {
      code = await render(file, options, output);
    });
  program
    .command('compare')
    .description('say by how much two pictures differ; ends with 1 where they differ by more than is allowed')
    .argument('<a>', 'a picture (.png, .jpg, .webp), or a Brelvin file or a material’s code, which is drawn')
    .argument('<b>', 'the other one')
    .option('--most <number>', 'of 255: by so much a channel may differ', anyNumber, 1)
    .addOption(new Option('--size <size>', 'of what is drawn').argParser(sizeOf).default(pictureSize('512x512'), '512x512'))
    .option('--time <seconds>', 'of what moves', anyNumber, 0)
    .option('--json', 'for programs')
    .action(async (a: string, b: string, options: CompareOptions) => {
      code = await compare(a, b, options, output);
    });
  program
    .command('device')
    .description('say whether this machine can draw, and with what')
    .action(async () => {
      code = await sayDevice(output);
    });
  program
    .command('demos')
    .description('write the demo’s documents as files, each with all that it shows')
    .requiredOption('--out <dir>', 'the folder to write into')
    .action(async (options: { out: string }) => {
      code = await writeDemos(options, output);
    });
  program
    .command('watch')
    .description('check code when it is saved; what says “// @material ID” or “// @function ID” updates it on the running server')
    .argument('<dir>', 'the folder with files of shading code')
    .option('--server <address>', 'where the server is', 'http://127.0.0.1:4310')
    .action(async (folder: string, options: { server: string }) => {
      code = await watch(folder, options, output, stop ?? interrupted());
    });
  program
    .command('fuzz')
    .description('read random programs, right and broken, compute random functions on several legs, and say what was found')
    .option('--seed <number>', 'where to begin', wholeNumber, 1)
    .option('--count <number>', 'how many of each', wholeNumber, 1000)
    .addOption(
      new Option('--targets <names>', 'glsl: programs by the reference compiler; wgsl,cpu: functions on the device and the CPU')
        .argParser(legs)
        .default(['glsl'], 'glsl'),
    )
    .option('--json', 'for programs')
    .action(async (options: FuzzOptions) => {
      code = await fuzz(options, output);
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

function wholeNumber(text: string): number {
  const value = Number(text);
  if (!Number.isInteger(value) || value < 0 || value > 1e9) throw new InvalidArgumentError('It must be a whole number from 0.');
  return value;
}

function countOf(text: string): number {
  const value = wholeNumber(text);
  if (value === 0) throw new InvalidArgumentError('It must be a whole number from 1.');
  return value;
}

function anyNumber(text: string): number {
  const value = Number(text);
  if (text.trim() === '' || !Number.isFinite(value) || value < 0) throw new InvalidArgumentError('It must be a number from 0.');
  return value;
}

function gathered(text: string, before: readonly string[]): readonly string[] {
  return [...before, text];
}

function legs(text: string): FuzzOptions['targets'] {
  return text.split(',').map((name) => {
    const found = LEGS.find((leg) => leg === name);
    if (!found) throw new InvalidArgumentError(`There is no target “${name}”. There is ${LEGS.join(', ')}.`);
    return found;
  });
}

function sizeOf(text: string): PictureSize {
  return argument(() => pictureSize(text));
}

function passes(text: string): RenderOptions['passes'] {
  return argument(() => passesOf(text));
}

function argument<T>(read: () => T): T {
  try {
    return read();
  } catch (error) {
    throw new InvalidArgumentError(error instanceof Error ? error.message : String(error));
  }
}

/** Ends what goes on until somebody presses Ctrl C. */
function interrupted(): AbortSignal {
  const controller = new AbortController();
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => controller.abort());
  return controller.signal;
}
