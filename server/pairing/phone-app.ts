import type { Socket } from 'node:net';
import express, { type Express, type Request, type RequestHandler } from 'express';
import { DoorTry } from '#api/index.ts';
import { server as say } from '#words/index.ts';
import { assetsOf, neverKept, pageOf } from '../http/page.ts';
import { answerProblem, HttpProblem, nothingHere } from '../http/problem.ts';
import { strictPolicy } from '../http/security.ts';
import { dayRoutes } from '../journal/routes.ts';
import type { DayService } from '../journal/service.ts';
import type { RigService } from '../rigs/service.ts';
import { takesIn } from '../takes/routes.ts';
import type { TakeService } from '../takes/service.ts';
import type { Door } from './pairing.ts';

interface HandOptions {
  readonly door: Door;
  readonly rigs: RigService;
  readonly day: DayService;
  readonly takes: TakeService;
  readonly webFolder: string;
  readonly noteNoPass: (from: string) => void;
}

const COOKIE = 'mellow-hand';
const DAY_S = 12 * 3600;
const SMALL = '10kb';

/**
 * What a phone on the local network gets: a page that asks for the code, and behind the code the rigs to read and the
 * session to read and record. Nothing else of the server is available here.
 */
export function handApp({ door, rigs, day, takes, webFolder, noteNoPass }: HandOptions): Express {
  const app = express();
  app.disable('x-powered-by');
  app.set('etag', false);
  app.use(byAddressOnly, ...strictPolicy);
  app.use('/api', neverKept);
  app.post('/api/door', express.json({ limit: SMALL }), (req, res) => {
    const tried = door.try(DoorTry.parse(req.body).code, fromOf(req), deviceOf(req));
    if ('refused' in tried) throw refusal(tried.refused, tried.waitMs);
    res
      .cookie(COOKIE, tried.token, { httpOnly: true, sameSite: 'strict', maxAge: DAY_S * 1000, path: '/' })
      .status(204)
      .end();
  });
  const passed: RequestHandler = (req, _res, next) => {
    if (door.holds(cookieOf(req))) return next();
    noteNoPass(fromOf(req));
    throw new HttpProblem(401, say.codeWanted(), say.thisOpensWithCode());
  };
  app.use('/api', passed);
  app.get('/api/rigs', async (_req, res) => {
    res.json(await rigs.list());
  });
  app.use('/api/rigs/:id/day', dayRoutes(day));
  // A take of the phone's own recorder goes to Measure; takes that are there are not read from here.
  app.use('/api/takes', takesIn(takes));
  app.get('/api/rigs/:id', async (req, res) => {
    res.json(await rigs.get(String(req.params.id)));
  });
  app.use('/api', nothingHere);
  app.use('/assets', ...assetsOf(webFolder));
  app.get('/', (_req, res) => res.redirect('/hand'));
  app.get(/^\/hand(\/.*)?$/, pageOf(webFolder));
  app.use(
    nothingHere,
    answerProblem(async () => ({})),
  );
  return app;
}

function refusal(word: string, waitMs: number): HttpProblem {
  const wait = Math.ceil(waitMs / 1000);
  if (word === 'shut for a while') return new HttpProblem(429, say.tooManyTries(), say.tooManyWrongCodes({ wait }));
  if (word === 'old code') return new HttpProblem(403, say.oldCode(), say.thisCodeIsOver());
  if (word === 'used code') return new HttpProblem(403, say.usedCode(), say.thisCodeWasUsed());
  return new HttpProblem(403, say.wrongCode(), say.thisIsNotCode());
}

/** What it says it is, in one plain word: no more of it is kept. */
const deviceOf = (req: Request): string => {
  const agent = req.get('User-Agent') ?? '';
  if (/tablet|pad/i.test(agent)) return 'tablet';
  return /mobi|phone|android/i.test(agent) ? 'phone' : 'computer';
};

const fromOf = (req: Request): string => req.socket.remoteAddress ?? 'unknown';

/** Only by the address that the request was received on, and only from our own pages: no rebound DNS name, no page of another origin. */
const byAddressOnly: RequestHandler = (req, _res, next) => {
  const host = req.get('Host') ?? '';
  if (host !== ownHost(req.socket)) throw new HttpProblem(421, say.wrongHost(), say.openThisByAddress());
  const origin = req.get('Origin');
  const site = req.get('Sec-Fetch-Site');
  const foreign =
    origin !== undefined
      ? origin !== `http://${host}`
      : site !== undefined && site !== 'same-origin' && site !== 'none';
  const opensPage = req.method === 'GET' && req.get('Sec-Fetch-Mode') === 'navigate' && !req.path.startsWith('/api/');
  // A request that changes something states its origin: a browser always does.
  const blind = req.method !== 'GET' && origin === undefined;
  if ((foreign && !opensPage) || blind) throw new HttpProblem(403, say.foreignPage(), say.anotherSiteHasAsked());
  next();
};

function ownHost({ localAddress = '', localPort = 0 }: Socket): string {
  const plain = localAddress.replace(/^::ffff:/, '');
  return `${plain.includes(':') ? `[${plain}]` : plain}:${localPort}`;
}

function cookieOf(req: Request): string | undefined {
  for (const part of (req.get('Cookie') ?? '').split(';')) {
    const [name, value] = part.trim().split('=');
    if (name === COOKIE) return value;
  }
  return undefined;
}
