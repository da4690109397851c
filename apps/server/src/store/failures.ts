import { type Problem, type StoredStep } from '@brelvin/contract';

/** There was never a document of this id. */
export class DocumentMissing extends Error {
  constructor(readonly id: string) {
    super(`There is no document ${id}.`);
  }
}

/** The document was deleted; it can be restored. */
export class DocumentGone extends Error {
  constructor(
    readonly id: string,
    readonly documentName: string,
  ) {
    super(`"${documentName}" was deleted. Restore it to go on.`);
  }
}

export class IdTaken extends Error {
  constructor(readonly id: string) {
    super(`The id ${id} already belongs to a document.`);
  }
}

/** Somebody else saved first. */
export class StaleSave extends Error {
  constructor(
    readonly step: number,
    readonly missed: readonly StoredStep[],
  ) {
    super('The document was changed elsewhere since this window last read it.');
  }
}

export class UnfitStep extends Error {
  constructor(
    message: string,
    readonly problems: readonly Problem[] = [],
  ) {
    super(message);
  }
}

export class AssetMissing extends Error {
  constructor(readonly sha256: string) {
    super(`There is no file ${sha256}.`);
  }
}

/** The file cannot be taken; the message says why. */
export class AssetRefused extends Error {}

/** So many files are on their way in that no further one is taken. */
export class TooManyUploads extends Error {}

/** A picture of a step that the document does not have. */
export class StepMissing extends Error {
  constructor(step: number, last: number) {
    super(`The document has no step ${step}; its last one is ${last}.`);
  }
}

/** There was never a job of this id. */
export class JobMissing extends Error {
  constructor(id: string) {
    super(`There is no job ${id}.`);
  }
}

/** What is to go out as one file is more than a Brelvin file may hold. */
export class FileTooLarge extends Error {
  constructor(bytes: number, most: number) {
    const mebibytes = (count: number): number => Math.ceil(count / 1024 / 1024);
    super(`It would have more than ${mebibytes(bytes)} MiB; a Brelvin file has at most ${mebibytes(most)}. Send it out without its stage.`);
  }
}

export class VersionNameTaken extends Error {
  constructor(name: string) {
    super(`There is already a version called “${name}”. Choose another name.`);
  }
}

export class FunctionNameTaken extends Error {
  constructor(name: string) {
    super(`There is already a function called “${name}” in the Library. Choose another name.`);
  }
}
