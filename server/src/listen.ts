import type { Express } from 'express';
import type { Server } from 'node:http';

/** What came of asking for a port. */
export type Listening =
  | { readonly state: 'listening'; readonly server: Server }
  /** Gristmill answers there already. */
  | { readonly state: 'own'; readonly version: string }
  /** Another program answers there. */
  | { readonly state: 'taken' };

/** How long what holds the port may take to say who it is, ms. */
const PATIENCE = 2000;

/**
 * Listens on the loopback address at `port`. Joints live in the browser by the address they are opened at, port and all: at
 * another port the shelf would be empty, so no other is taken unasked.
 *
 * @throws when listening is not allowed at all
 */
export async function listen(app: Express, port: number): Promise<Listening> {
  try {
    return { state: 'listening', server: await tryPort(app, port) };
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'EADDRINUSE') throw error;
  }
  const version = await whoAnswers(port);
  return version === undefined ? { state: 'taken' } : { state: 'own', version };
}

/** The version of the Gristmill that answers at a port; undefined where something else does, or nothing. */
async function whoAnswers(port: number): Promise<string | undefined> {
  try {
    const answer = await fetch(`http://127.0.0.1:${port}/health`, { signal: AbortSignal.timeout(PATIENCE) });
    const said = (await answer.json()) as { name?: unknown; version?: unknown } | null;
    return said?.name === 'gristmill' ? String(said.version ?? '') : undefined;
  } catch {
    return undefined;
  }
}

function tryPort(app: Express, port: number): Promise<Server> {
  return new Promise((resolve, reject) => {
    const server = app.listen(port, '127.0.0.1');
    // Slow and many clients cost little: headers come at once or not at all, and nobody takes every connection there
    // is.
    server.headersTimeout = 10_000;
    server.requestTimeout = 30_000;
    server.keepAliveTimeout = 5_000;
    server.maxConnections = 200;
    server.once('listening', () => resolve(server));
    server.once('error', reject);
  });
}
