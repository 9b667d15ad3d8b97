import { createHash, timingSafeEqual } from 'node:crypto';

/** Letters and digits that nobody mistakes for one another (Crockford's base 32, in capitals). */
const LETTERS = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';
/** 40 bits: at the pace that is allowed, guessing takes longer than the code lasts by far. */
const CODE_LETTERS = 8;
const TOKEN_BYTES = 32;
const TOKEN_MS = 12 * 3_600_000;
/** Wrong codes after which the door stays shut for a while, longer each time. */
const FREE_TRIES = 5;
const FIRST_WAIT_MS = 1000;
const LONGEST_WAIT_MS = 60_000;

export type DoorWord = 'opened' | 'wrong code' | 'used code' | 'shut for a while' | 'no pass' | 'new code';
export interface DoorNote {
  readonly at: string;
  readonly from: string;
  readonly says: DoorWord;
}

export type Tried = { readonly token: string } | { readonly refused: DoorWord; readonly waitMs: number };

export interface Door {
  /** The code that opens it next, once. */
  code(): string;
  renew(from: string): string;
  /** Whoever has the code gets a pass; the code is used up by it. */
  try(code: string, from: string): Tried;
  /** Whether a pass is one of ours and still counts. */
  holds(token: string | undefined): boolean;
}

interface DoorOptions {
  readonly now: () => Date;
  readonly randomBytes: (count: number) => Uint8Array;
  readonly note: (note: DoorNote) => void;
  /** Passes given before, by their hashes, each with its end, ms; and what keeps a new one. */
  readonly given?: Iterable<readonly [hash: string, untilMs: number]>;
  readonly keep?: (hash: string, untilMs: number) => void;
}

/** The door to the run on a phone: one code, once; passes that nobody can make; fewer tries the more were wrong. */
export function makeDoor({ now, randomBytes, note, given: before = [], keep = () => undefined }: DoorOptions): Door {
  const passes = new Map(before);
  const used = new Set<string>();
  let wrong = 0;
  let shutUntilMs = 0;
  const fresh = () => [...randomBytes(CODE_LETTERS)].map((b) => LETTERS[b % LETTERS.length]!).join('');
  let code = fresh();
  const say = (from: string, says: DoorWord) => note({ at: now().toISOString(), from, says });
  const refuse = (from: string, refused: DoorWord, waitMs = 0): Tried => {
    say(from, refused);
    return { refused, waitMs };
  };
  return {
    code: () => code,
    renew(from) {
      code = fresh();
      say(from, 'new code');
      return code;
    },
    try(given, from) {
      const nowMs = now().getTime();
      if (nowMs < shutUntilMs) return refuse(from, 'shut for a while', shutUntilMs - nowMs);
      const plain = plainCode(given);
      if (!same(plain, code)) {
        wrong++;
        if (wrong >= FREE_TRIES)
          shutUntilMs = nowMs + Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** (wrong - FREE_TRIES));
        return refuse(from, used.has(hashOf(plain)) ? 'used code' : 'wrong code');
      }
      wrong = 0;
      used.add(hashOf(code));
      code = fresh();
      const token = Buffer.from(randomBytes(TOKEN_BYTES)).toString('base64url');
      passes.set(hashOf(token), nowMs + TOKEN_MS);
      keep(hashOf(token), nowMs + TOKEN_MS);
      say(from, 'opened');
      return { token };
    },
    holds(token) {
      const until = token === undefined ? undefined : passes.get(hashOf(token));
      return until !== undefined && now().getTime() < until;
    },
  };
}

const hashOf = (text: string): string => createHash('sha256').update(text).digest('hex');
const same = (a: string, b: string): boolean => timingSafeEqual(Buffer.from(hashOf(a)), Buffer.from(hashOf(b)));

/** As somebody types it: small letters, a hyphen in the middle, O for nought. */
const plainCode = (given: string): string =>
  given
    .toUpperCase()
    .replace(/[^0-9A-Z]/g, '')
    .replace(/O/g, '0')
    .replace(/[IL]/g, '1');

/** In two halves, as it is read out. */
export const sayCode = (code: string): string => `${code.slice(0, code.length / 2)}-${code.slice(code.length / 2)}`;
