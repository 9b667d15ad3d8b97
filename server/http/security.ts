import { randomBytes } from 'node:crypto';
import type { RequestHandler, Response } from 'express';
import helmet from 'helmet';
import { server as say } from '#words/index.ts';
import { HttpProblem } from './problem.ts';

const LOOPBACK = new Set(['127.0.0.1', 'localhost', '[::1]']);

/** Only this machine by its own names may ask, and only our own pages: no page of another origin, no rebound name. */
export const ownPagesOnly: RequestHandler = (req, _res, next) => {
  const name = hostName(req.get('Host') ?? '');
  if (!LOOPBACK.has(name)) throw new HttpProblem(421, say.wrongHost(), say.mellowTapAnswersOn());
  const origin = req.get('Origin');
  const site = req.get('Sec-Fetch-Site');
  const foreign =
    origin !== undefined
      ? origin !== `http://${req.get('Host')}`
      : site !== undefined && site !== 'same-origin' && site !== 'none';
  // A link from elsewhere may open the page; it may not ask the server for anything.
  const opensPage = req.method === 'GET' && req.get('Sec-Fetch-Mode') === 'navigate' && !req.path.startsWith('/api/');
  if (foreign && !opensPage) throw new HttpProblem(403, say.foreignPage(), say.anotherSiteHasAsked());
  next();
};

const hostName = (host: string): string => host.replace(/:\d+$/, '').toLowerCase();

/** A strict content policy, with a nonce for the styles that the interface makes as it runs. */
export const strictPolicy: RequestHandler[] = [
  (_req, res, next) => {
    res.locals.nonce = randomBytes(16).toString('base64');
    next();
  },
  helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
        styleSrc: ["'self'", (_req, res) => `'nonce-${nonceOf(res as Response)}'`],
        imgSrc: ["'self'", 'data:', 'blob:'],
        mediaSrc: ["'self'", 'blob:'],
        fontSrc: ["'self'"],
        connectSrc: ["'self'"],
        // The encoder of AAC starts a worker from a text of its own; only our scripts can make such a text.
        workerSrc: ["'self'", 'blob:'],
        objectSrc: ["'none'"],
        baseUri: ["'none'"],
        formAction: ["'none'"],
        frameAncestors: ["'none'"],
      },
    },
    crossOriginEmbedderPolicy: { policy: 'require-corp' },
    strictTransportSecurity: false,
  }),
];

export const nonceOf = (res: Response): string => String(res.locals.nonce);
