import type { NextFunction, Request, Response } from 'express';

const NAMES = ['127.0.0.1', 'localhost', '[::1]'];

/**
 * Answers only what was asked of this server under its own name, by its own pages or by a person who typed the address.
 * A page of another site cannot read it through a name of its own that leads here, nor through a request
 * that the browser makes for it.
 */
export function ownRequests(req: Request, res: Response, next: NextFunction): void {
  const port = req.socket.localPort;
  const hosts = NAMES.map((name) => `${name}:${port}`);
  const host = req.headers.host?.toLowerCase();
  if (!host || !(hosts.includes(host) || (port === 80 && NAMES.includes(host)))) {
    res
      .status(421)
      .type('text')
      .send(`Gristmill answers as ${hosts.join(', ')} only.`);
    return;
  }
  const { origin } = req.headers;
  const site = req.headers['sec-fetch-site'];
  if (
    (origin !== undefined && !hosts.some((h) => origin.toLowerCase() === `http://${h}`)) ||
    (site !== undefined && site !== 'same-origin' && site !== 'none')
  ) {
    res.status(403).type('text').send('Gristmill answers its own pages only. Type its address to open it.');
    return;
  }
  next();
}
