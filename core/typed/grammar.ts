import { type DeviceType, isWorn, records, soundsIntoRoom, type Types } from '#core/rig/index.ts';
import { type Lexeme, lexemesOf } from './lexer.ts';
import { type Mention, type OwnWords, readMention } from './mention.ts';
import { isJoining, type Joint, joiningName, jointAt, socketWords } from './phrases.ts';
import { numberOf, tokensOf } from './tokens.ts';
import { FILLERS, type Vocabulary, vocabularyOf } from './vocabulary.ts';

/** Something that was named: what it was taken for, and where it is plugged as far as that was said. */
export interface Item {
  /** As typed, without socket and quotes. */
  readonly text: string;
  readonly mention: Mention;
  /** What it is called, in quotes. */
  readonly name: string | null;
  /** 'line in', 'out 7/8': the socket on it that was named. */
  readonly socket: string | null;
  /** Where it stands in the text. */
  readonly from: number;
  readonly to: number;
}
/** What is named together, and how it is joined to what was named before. */
export interface Hop {
  readonly joint: Joint | null;
  readonly items: readonly Item[];
}
/** From hop to hop; a single hop where nothing was said of where it leads. */
export type Chain = readonly Hop[];

/** Whether something leads from one type to another, and at what cost; null where nothing fits. */
export type Fits = (from: DeviceType, to: DeviceType) => number | null;

type Separator = { readonly kind: 'joint'; readonly joint: Joint } | { readonly kind: 'list' };
type Part = { readonly kind: 'item'; readonly item: Item } | Separator;

/**
 * Reads what people type of a desk: chains from box to box by arrows or words ('into', 'via', 'from', 'with', 'on'),
 * lists by commas, '&' and 'and', sentences by semicolons, lines and full stops. After a comma a new chain begins where
 * what follows has a way of its own and is not fed by what is fed before it.
 */
export function readChains(text: string, types: Types, fits: Fits, own?: OwnWords): Chain[] {
  const vocabulary = vocabularyOf(types);
  const statements: Lexeme[][] = [[]];
  for (const lexeme of lexemesOf(text)) {
    if (lexeme.kind === 'break') statements.push([]);
    // 'Church: three mics into…': what stands before is a title.
    else if (lexeme.kind === 'colon') statements.splice(-1, 1, isTitle(statements.at(-1)!) ? [] : statements.at(-1)!);
    else statements.at(-1)!.push(lexeme);
  }
  return statements.flatMap((s) => chainsOf(partsOf(s, text, types, vocabulary, own), fits));
}

const MOST_IN_TITLE = 6;
const isTitle = (lexemes: readonly Lexeme[]): boolean =>
  lexemes.length <= MOST_IN_TITLE && lexemes.every((l) => l.kind === 'word' || l.kind === 'and' || l.kind === 'name');

/** What somebody wrote over a desk, before a colon: 'Church: …'; null where there is nothing. */
export function titleOf(text: string): string | null {
  const lexemes = lexemesOf(text);
  const at = lexemes.findIndex((l) => l.kind === 'colon');
  const before = lexemes.slice(0, at);
  return at > 0 && isTitle(before) ? text.slice(before[0]!.from, before.at(-1)!.to) : null;
}

/** A statement as items and what stands between them. */
function partsOf(
  lexemes: readonly Lexeme[],
  text: string,
  types: Types,
  vocabulary: Vocabulary,
  own: OwnWords | undefined,
): Part[] {
  const parts: Part[] = [];
  let open: Lexeme[] = [];
  let socket: string | null = null;
  let via: string | null = null;
  const close = () => {
    const words = open.map((l) => l.text).join(' ');
    const last = parts.at(-2);
    if (open.length > 0 && isCable(words) && !isName(words, vocabulary)) {
      // 'Mixer > usb > computer', 'to the computer by usb': how it is plugged, and no box.
      if (parts.at(-1)?.kind === 'joint' && last?.kind === 'item' && !last.item.socket && last.item.mention.type)
        via = words;
    } else {
      const item = itemOf(open, socket ?? via, text, types, own);
      if (item) {
        parts.push({ kind: 'item', item });
        via = null;
      }
    }
    open = [];
    socket = null;
  };
  const part = (separator: Separator, isThen = false) => {
    close();
    const last = parts.at(-1);
    // An arrow and words for it are one; what stands before anything is named joins nothing.
    if (!last) return;
    if (last.kind === 'item') parts.push(separator);
    else if (isThen && last.kind === 'list') return;
    // 'On it, headphones from it': what a word for something said before leads to is over.
    else if (separator.kind !== last.kind) parts.splice(-1, 1, separator);
  };
  for (let i = 0; i < lexemes.length; i++) {
    const lexeme = lexemes[i]!;
    if (lexeme.kind === 'arrow') part({ kind: 'joint', joint: 'to' });
    else if (lexeme.kind === 'back') part({ kind: 'joint', joint: 'from' });
    else if (lexeme.kind === 'comma' || lexeme.kind === 'and') part({ kind: 'list' });
    else if (lexeme.kind === 'name') open.push(lexeme);
    else {
      const run = wordsFrom(lexemes, i);
      const named = joiningName(run, vocabulary);
      const said = named > 0 ? 0 : socketWords(run);
      const joint = named > 0 || said > 0 ? null : jointAt(run);
      if (isCounted(open, run)) open.push(lexeme);
      else if (named > 0) {
        open.push(...lexemes.slice(i, i + named));
        i += named - 1;
      } else if (said > 0 && isSocketOf(run, said, open)) {
        socket = run.slice(0, said).join(' ');
        // Before the box that it is on: 'line in of the laptop' is read as 'laptop line in'.
        i += said - 1;
        if (/^(?:of|on)$/i.test(run[said] ?? '') && open.length === 0) i++;
      } else if (joint) {
        part({ kind: 'joint', joint: joint.joint }, /^then$/i.test(run.slice(0, joint.length).join(' ')));
        i += joint.length - 1;
      } else open.push(lexeme);
    }
  }
  close();
  const end = parts.findLast((p) => p.kind === 'item');
  if (via !== null && end?.kind === 'item' && !end.item.socket)
    parts[parts.indexOf(end)] = { kind: 'item', item: { ...end.item, socket: via } };
  while (parts.length > 0 && parts.at(-1)!.kind !== 'item') parts.pop();
  return parts;
}

/** '4 in' and '2 out' count sockets: no way leads in there. */
const isCounted = (open: readonly Lexeme[], [word = '', next = '']: readonly string[]): boolean =>
  /^(?:in|out)$/i.test(word) && numberOf(open.at(-1)?.text.toLowerCase()) !== null && !/^(?:the|my|a|an)$/i.test(next);

/** Words for a lead and for what is at its ends; 'aux' and 'phones' may be boxes. */
const CABLES = new Set(
  'out output input usb hdmi xlr optical jack cable lead cord wire bluetooth wireless rca coax spdif network ethernet displayport'.split(
    ' ',
  ),
);
const isCable = (words: string): boolean => {
  const tokens = tokensOf(words).filter((t) => !FILLERS.has(t));
  return tokens.length > 0 && tokens.every((t) => CABLES.has(t) || /^\d$/.test(t) || t === 'c');
};

/** Whether words are a whole name: 'rca to usb' is a box. */
function isName(words: string, { types }: Vocabulary): boolean {
  const text = tokensOf(words).join(' ');
  return types.some(({ phrases }) => phrases.some((p) => p.join(' ') === text));
}

function wordsFrom(lexemes: readonly Lexeme[], at: number): string[] {
  const words: string[] = [];
  for (let i = at; i < lexemes.length && lexemes[i]!.kind === 'word'; i++) words.push(lexemes[i]!.text);
  return words;
}

/** 'Laptop line in' and 'line in of the laptop' name a socket; 'usb in' before 'hdmi switch' would be part of a name. */
const isSocketOf = (run: readonly string[], length: number, open: readonly Lexeme[]): boolean =>
  open.length > 0 || /^(?:of|on)$/i.test(run[length] ?? '');

/** Signs around words that are none of them. */
const WRAPPED = /^["“]|["”]$/g;

function itemOf(
  lexemes: readonly Lexeme[],
  socket: string | null,
  text: string,
  types: Types,
  own: OwnWords | undefined,
): Item | null {
  const words = lexemes.filter((l) => l.kind === 'word' && !(lexemes.length === 1 && isJoining(l.text.toLowerCase())));
  const named = lexemes.find((l) => l.kind === 'name');
  const name = named ? named.text.replace(WRAPPED, '').trim() : '';
  if (words.length === 0 && name === '') return null;
  const said = words.map((w) => w.text).join(' ');
  const mention = readMention(said === '' ? name : said, types, own);
  if (said !== '' && name === '' && tokensOf(said).every((t) => FILLERS.has(t))) return null;
  const [from, to] = [lexemes[0]!.from, lexemes.at(-1)!.to];
  return { text: said || text.slice(from, to).replace(WRAPPED, ''), mention, name: name || null, socket, from, to };
}

/** Whether one of some items is joined to what was named before it, either way about. */
const isFed = (before: readonly Item[], item: Item, fits: Fits): boolean =>
  item.mention.type === null ||
  before.some((b) => b.mention.type === null || fits(b.mention.type, item.mention.type!) !== null);

function chainsOf(parts: readonly Part[], fits: Fits): Chain[] {
  const chains: { joint: Joint | null; items: Item[] }[][] = [];
  let chain: { joint: Joint | null; items: Item[] }[] = [];
  let before: Separator | null = null;
  parts.forEach((part, i) => {
    if (part.kind !== 'item') {
      before = part;
      return;
    }
    if (before?.kind === 'joint') chain.push({ joint: before.joint, items: [part.item] });
    else if (before?.kind === 'list' && isFedByLast(chain, part.item, fits))
      chain.push({ joint: 'to', items: [part.item] });
    else if (before?.kind === 'list' && staysInList(chain, part.item, leadsOn(parts, i), fits))
      chain.at(-1)!.items.push(part.item);
    else {
      chain = [{ joint: null, items: [part.item] }];
      chains.push(chain);
    }
    before = null;
  });
  return chains;
}

/** Whether the list that an item stands in has a way of its own after it. */
function leadsOn(parts: readonly Part[], at: number): boolean {
  for (let i = at + 1; i < parts.length; i++) if (parts[i]!.kind === 'joint') return true;
  return false;
}

/** After a comma: one more of what was named last, or the beginning of another chain. */
function staysInList(chain: Chain, item: Item, leads: boolean, fits: Fits): boolean {
  const [previous, last] = [chain.at(-2), chain.at(-1)];
  if (!last) return true;
  if (last.items.some((i) => natureOf(i) !== natureOf(item))) return false;
  if (!previous) return true;
  if (last.joint === 'from') return !leads;
  return isFed(previous.items, item, fits) && !(leads && sameKind(previous.items, item));
}

/** It is heard there, or kept. */
const isEnd = (type: DeviceType): boolean => soundsIntoRoom(type) || isWorn(type) || records(type);
const MIXED = 3;
/** It takes several sounds together. */
const mixes = (type: DeviceType): boolean =>
  type.ports.filter((p) => p.direction === 'in' && ['microphone', 'line'].includes(p.level)).length >= MIXED;

/** So much better is a lead that is meant than one that is not. */
const MEANT = 20;

/** 'Mic into the mixer, powered speakers': what was named last leads there well, what stands before it does not. */
function isFedByLast(chain: Chain, item: Item, fits: Fits): boolean {
  const [previous, last] = [chain.at(-2), chain.at(-1)];
  const { type } = item.mention;
  if (!previous || last?.joint !== 'to' || !type || natureOf(item) !== 'hardware') return false;
  const costs = (items: readonly Item[]) =>
    items.map(({ mention }) => (mention.type ? (fits(mention.type, type) ?? Number.POSITIVE_INFINITY) : 0));
  const led = Math.min(...costs(last.items));
  // Out of a mixer it goes to where it is heard.
  const isMixed =
    Number.isFinite(led) && isEnd(type) && last.items.some((i) => i.mention.type !== null && mixes(i.mention.type));
  return isMixed || Math.max(...costs(previous.items)) - led >= MEANT;
}

/** Somebody, a program, or a thing: no two of them stand in one list. */
const natureOf = ({ mention: { type } }: Item): string => type?.nature ?? 'hardware';

/** What stands at the head of a chain like this one: 'console > tv, console 2 > monitor'. */
const sameKind = (before: readonly Item[], item: Item): boolean =>
  before.some((b) => b.mention.type !== null && b.mention.type === item.mention.type);
