import { randomUUID } from 'node:crypto';
import type { BrelvinDocument, Failure, MaterialCode, StoredDocument, Transaction } from '@brelvin/contract';
import { setMaterialCode, type Edit } from '@brelvin/core';

/** The server cannot be used; the message says why. */
export class ServerTrouble extends Error {}

const MOST_TRIES = 4;

/** Documents on a running server, changed as a window changes them. */
export class WorkspaceServer {
  constructor(private readonly address: string) {}

  /** Gives a code material these texts. @returns its name; nothing when it has them already @throws ServerTrouble */
  writeMaterial(id: string, code: MaterialCode): Promise<string | undefined> {
    return this.edit(id, (document) => {
      if (document.format !== 'brelvin-material') throw new ServerTrouble(`${id} is no material.`);
      if (!document.code) throw new ServerTrouble(`“${document.name}” is a graph, not code.`);
      return setMaterialCode(document, code, 'Write code in another editor');
    });
  }

  /** Gives a function of the Library this text. @throws ServerTrouble */
  writeFunction(id: string, text: string): Promise<string | undefined> {
    return this.edit(id, (document) => {
      if (document.format !== 'brelvin-function') throw new ServerTrouble(`${id} is no function.`);
      return { label: 'Write code in another editor', changes: document.text === text ? [] : [{ path: ['text'], value: text }] };
    });
  }

  private async edit(id: string, change: (document: BrelvinDocument) => Edit): Promise<string | undefined> {
    for (let left = MOST_TRIES; left > 0; left--) {
      const { step, document } = (await this.ask('GET', `/documents/${id}`)).body as StoredDocument;
      const { label, changes } = change(document);
      if (changes.length === 0) return undefined;
      const steps: Transaction[] = [{ id: randomUUID(), label, changes }];
      // Somebody else may have saved in between: then on top of that.
      if ((await this.ask('POST', `/documents/${id}/steps`, { after: step, steps }, [409])).status !== 409) return document.name;
    }
    throw new ServerTrouble('Somebody else goes on saving this document. Save the file again.');
  }

  private async ask(
    method: string,
    path: string,
    body?: object,
    bearable: readonly number[] = [],
  ): Promise<{ status: number; body: unknown }> {
    let response: Response;
    try {
      response = await fetch(`${this.address}/api${path}`, {
        method,
        headers: body ? { 'content-type': 'application/json' } : {},
        body: body && JSON.stringify(body),
      });
    } catch {
      throw new ServerTrouble(`No server answers at ${this.address}. Start it with npm start, or name another with --server.`);
    }
    const answer: unknown = await response.json().catch(() => ({}));
    if (!response.ok && !bearable.includes(response.status))
      throw new ServerTrouble((answer as Partial<Failure>).message ?? `The server answered ${response.status}.`);
    return { status: response.status, body: answer };
  }
}
