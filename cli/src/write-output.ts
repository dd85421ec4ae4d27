import { ok, refuse, type Result } from '@gristmill/core';
import { writeFileSync } from 'node:fs';

/** Writes what a command made to a file, or to standard output for "-". */
export async function writeOutput(to: string, content: string | Uint8Array): Promise<Result<undefined>> {
  try {
    // A pipe takes a little at a time: its stream waits for it.
    if (to === '-') await new Promise<void>((done) => process.stdout.write(content, () => done()));
    else writeFileSync(to, content);
    return ok(undefined);
  } catch (error) {
    return refuse(
      `${to} cannot be written.`,
      `The system says ${(error as NodeJS.ErrnoException).code ?? 'no'}.`,
      'Check the folder and its rights.',
    );
  }
}
