import { compileMaterial, elaborate, formatDiagnostic, library, type GraphProblem } from '@brelvin/core';
import type { ExitCode, Output } from '../output';
import { BadFile, readDocumentFile, readTextFile } from '../read-file';

const CODE = /\.(glsl|vert|frag)$/;

interface FileReport {
  readonly file: string;
  readonly problems: readonly (Partial<GraphProblem> & { readonly message: string })[];
}

/** Reads and compiles documents and shading code; says what is wrong with each file. */
export async function check(files: readonly string[], { json }: { json?: boolean }, output: Output): Promise<ExitCode> {
  const reports: FileReport[] = [];
  for (const file of files) reports.push({ file, problems: await problemsOf(file) });
  if (json) output.out(JSON.stringify(reports, null, 2));
  else {
    for (const { file, problems } of reports) {
      if (problems.length === 0) output.out(`${file}: fine`);
      for (const { node, inlet, message } of problems)
        output.err(`${file}:${CODE.test(file) ? '' : ' '}${node ? `${[node, inlet].filter(Boolean).join('.')}: ` : ''}${message}`);
    }
  }
  return reports.some((report) => report.problems.length > 0) ? 1 : 0;
}

async function problemsOf(file: string): Promise<FileReport['problems']> {
  try {
    if (CODE.test(file)) return await codeProblems(file);
    const document = await readDocumentFile(file);
    return document.format === 'brelvin-material' ? compileMaterial(document).problems : [];
  } catch (error) {
    if (error instanceof BadFile) return [{ message: error.message.replace(`${file}: `, '') }];
    throw error;
  }
}

/** Shading code may use everything the shader library declares. */
async function codeProblems(file: string): Promise<FileReport['problems']> {
  const { diagnostics } = elaborate(file, await readTextFile(file), library().module);
  return diagnostics.map((diagnostic) => ({ message: formatDiagnostic(diagnostic).replace(`${file}:`, '') }));
}
