import { createHash, randomUUID, timingSafeEqual } from 'node:crypto';

/** Letters and digits that no one mistakes for one another (Crockford's base 32, in capitals). */
const LETTERS = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';
/** 40 bits: at the pace that is allowed, guessing takes longer than the code lasts by far. */
const CODE_LETTERS = 8;
const CODE_MS = 10 * 60_000;
const TOKEN_BYTES = 32;
const TOKEN_MS = 12 * 3_600_000;
/** Wrong codes of one address after which it waits, longer each time. */
const FREE_TRIES = 5;
const FIRST_WAIT_MS = 1000;
const LONGEST_WAIT_MS = 60_000;
/** Time after its last wrong code when an address starts afresh, ms. */
const FORGIVEN_MS = 10 * 60_000;
/** Tries of all addresses together, in a second: at this pace a code of 40 bits is guessed once in half a million tens of minutes. */
const MAX_A_SECOND = 30;
/** Maximum number of remembered addresses; the least recently seen is dropped first. */
const MAX_ADDRESSES = 5000;

type DoorWord =
  | 'opened'
  | 'wrong code'
  | 'used code'
  | 'old code'
  | 'shut for a while'
  | 'no pass'
  | 'new code'
  | 'removed';
export interface DoorNote {
  readonly at: string;
  readonly from: string;
  readonly says: DoorWord;
}

type Tried = { readonly token: string } | { readonly refused: DoorWord; readonly waitMs: number };

/** A phone that was let in. Its token is known by its hash alone. */
export interface Pass {
  readonly id: string;
  readonly hash: string;
  /** What it is, in one word; and its address. */
  readonly device: string;
  readonly address: string;
  readonly pairedAtMs: number;
  readonly untilMs: number;
  seenAtMs: number;
}

export interface Door {
  /** The code that opens it next, once, and until when. */
  code(): { readonly code: string; readonly untilMs: number };
  renew(from: string): void;
  /** A correct code is exchanged for a pass, and is used up. */
  try(code: string, from: string, device: string): Tried;
  /** Whether a pass is one of ours and still counts. */
  holds(token: string | undefined): boolean;
  /** Phones that are let in, the newest first. */
  phones(): readonly Pass[];
  /** Its pass counts no more. False where there is none of this id. */
  remove(id: string, from: string): boolean;
}

interface DoorOptions {
  readonly now: () => Date;
  readonly randomBytes: (count: number) => Uint8Array;
  readonly note: (note: DoorNote) => void;
  /** Passes that were given before; what keeps a new one, and forgets one. */
  readonly given?: readonly Pass[];
  readonly keep?: (pass: Pass) => void;
  readonly forget?: (id: string) => void;
}

interface Tries {
  wrong: number;
  shutUntilMs: number;
  lastMs: number;
}

/**
 * The door to the run on a phone: one code, once, for ten minutes; passes that no one can make and that can be taken away;
 * fewer tries after each failure, per address, so that a stranger who guesses locks out no one else.
 */
export function makeDoor({
  now,
  randomBytes,
  note,
  given = [],
  keep = () => undefined,
  forget = () => undefined,
}: DoorOptions): Door {
  const passes = new Map(given.map((pass) => [pass.hash, { ...pass }]));
  /** Codes that were, and what became of them. */
  const gone = new Map<string, 'used code' | 'old code'>();
  const tries = new Map<string, Tries>();
  let second = { atS: 0, count: 0 };
  const fresh = () => ({
    code: [...randomBytes(CODE_LETTERS)].map((b) => LETTERS[b % LETTERS.length]!).join(''),
    untilMs: now().getTime() + CODE_MS,
  });
  let open = fresh();
  const say = (from: string, says: DoorWord) => note({ at: now().toISOString(), from, says });
  const refuse = (from: string, refused: DoorWord, waitMs = 0): Tried => {
    say(from, refused);
    return { refused, waitMs };
  };
  /** The code as it stands: an old one is no more. */
  const current = () => {
    if (now().getTime() >= open.untilMs) {
      gone.set(hashOf(open.code), 'old code');
      open = fresh();
    }
    return open;
  };
  const triesOf = (address: string, nowMs: number): Tries => {
    const known = tries.get(address);
    const found = known && nowMs - known.lastMs < FORGIVEN_MS ? known : { wrong: 0, shutUntilMs: 0, lastMs: nowMs };
    // Kept in the order of the last try.
    tries.delete(address);
    tries.set(address, found);
    if (tries.size > MAX_ADDRESSES) tries.delete(tries.keys().next().value!);
    return found;
  };
  const tooManyNow = (nowMs: number): boolean => {
    const atS = Math.floor(nowMs / 1000);
    if (second.atS !== atS) second = { atS, count: 0 };
    return ++second.count > MAX_A_SECOND;
  };
  return {
    code: current,
    renew(from) {
      gone.set(hashOf(open.code), 'old code');
      open = fresh();
      say(from, 'new code');
    },
    try(typed, from, device) {
      const nowMs = now().getTime();
      const own = triesOf(networkOf(from), nowMs);
      if (nowMs < own.shutUntilMs) return refuse(from, 'shut for a while', own.shutUntilMs - nowMs);
      if (tooManyNow(nowMs)) return refuse(from, 'shut for a while', 1000);
      own.lastMs = nowMs;
      const plain = plainCode(typed);
      const { code } = current();
      if (!same(plain, code)) {
        own.wrong++;
        if (own.wrong >= FREE_TRIES)
          own.shutUntilMs = nowMs + Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** (own.wrong - FREE_TRIES));
        return refuse(from, gone.get(hashOf(plain)) ?? 'wrong code');
      }
      own.wrong = 0;
      gone.set(hashOf(code), 'used code');
      open = fresh();
      const token = Buffer.from(randomBytes(TOKEN_BYTES)).toString('base64url');
      const pass: Pass = {
        id: randomUUID(),
        hash: hashOf(token),
        device,
        address: from,
        pairedAtMs: nowMs,
        seenAtMs: nowMs,
        untilMs: nowMs + TOKEN_MS,
      };
      passes.set(pass.hash, pass);
      keep(pass);
      say(from, 'opened');
      return { token };
    },
    holds(token) {
      const pass = token === undefined ? undefined : passes.get(hashOf(token));
      const nowMs = now().getTime();
      if (!pass || nowMs >= pass.untilMs) return false;
      pass.seenAtMs = nowMs;
      return true;
    },
    phones: () =>
      [...passes.values()].filter((p) => now().getTime() < p.untilMs).sort((a, b) => b.pairedAtMs - a.pairedAtMs),
    remove(id, from) {
      const pass = [...passes.values()].find((p) => p.id === id);
      if (!pass) return false;
      passes.delete(pass.hash);
      forget(id);
      say(from, 'removed');
      return true;
    },
  };
}

/** Rate-limit key: an address, or for IPv6 its network, since one person has very many. */
const networkOf = (address: string): string =>
  address.includes(':') && !address.startsWith('::ffff:') ? address.split(':').slice(0, 4).join(':') : address;

const hashOf = (text: string): string => createHash('sha256').update(text).digest('hex');
const same = (a: string, b: string): boolean => timingSafeEqual(Buffer.from(hashOf(a)), Buffer.from(hashOf(b)));

/** As someone types it: small letters, a hyphen in the middle, O for nought. */
const plainCode = (given: string): string =>
  given
    .toUpperCase()
    .replace(/[^0-9A-Z]/g, '')
    .replace(/O/g, '0')
    .replace(/[IL]/g, '1');

/** In two halves, as it is read out. */
export const sayCode = (code: string): string => `${code.slice(0, code.length / 2)}-${code.slice(code.length / 2)}`;
