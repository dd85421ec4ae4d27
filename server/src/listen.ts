import type { Express } from 'express';
import type { Server } from 'node:http';

const TRIES = 50;

/**
 * Listens on the loopback address at `port`, or at the next free one after it.
 *
 * @returns the server and the port it got
 * @throws when none of the next fifty ports is free, or listening is not allowed at all
 */
export async function listen(app: Express, port: number): Promise<{ server: Server; port: number }> {
  for (let at = port; at < port + TRIES; at++) {
    try {
      return { server: await tryPort(app, at), port: at };
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EADDRINUSE') throw error;
    }
  }
  throw new Error(`Ports ${port} to ${port + TRIES - 1} are all taken.`);
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
