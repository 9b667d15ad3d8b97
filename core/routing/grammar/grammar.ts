import { type DeviceType, isPerson, isWorn, records, soundsIntoRoom, type Types } from '#core/model/rig/index.ts';
import { isNamedAgain } from './again.ts';
import type { Chain, Fits, Hop, Item } from './chain.ts';
import { compoundOf } from './compound.ts';
import { type Lexeme, lexemesOf } from './lexer.ts';
import { type OwnWords, readMention } from './mention.ts';
import { partsAsSockets } from './part.ts';
import { isBareConnector, isBareSocket, isJoining, type Joint, joiningName, jointAt, socketWords } from './phrases.ts';
import { bySubject } from './subject.ts';
import { numberOf, tokensOf } from './tokens.ts';
import { FILLERS, type Vocabulary, vocabularyOf } from './vocabulary.ts';

type Separator = { readonly kind: 'joint'; readonly joint: Joint; readonly each?: boolean } | { readonly kind: 'list' };
type Part = { readonly kind: 'item'; readonly item: Item } | Separator;

/**
 * Reads what people type of a desk: chains from box to box by arrows or words ('into', 'via', 'from', 'with', 'on'),
 * lists by commas, '&' and 'and', sentences by semicolons, lines and full stops. After a comma a new chain begins where
 * what follows has a way of its own and is not fed by what is fed before it.
 */
export function readChains(typed: string, types: Types, fits: Fits, own?: OwnWords): Chain[] {
  // Same length as before: positions of words are reported.
  const text = typed.replace(SEATED, (words) => ' '.repeat(words.length));
  const vocabulary = vocabularyOf(types);
  const statements: Lexeme[][] = [[]];
  for (const lexeme of lexemesOf(text)) {
    if (lexeme.kind === 'break') statements.push([]);
    // 'Church: three mics into…': what stands before is a title.
    else if (lexeme.kind === 'colon') statements.splice(-1, 1, isTitle(statements.at(-1)!) ? [] : statements.at(-1)!);
    else statements.at(-1)!.push(lexeme);
  }
  const chains = statements.flatMap((s) => {
    const beside: Chain[] = [];
    const parts = partsOf(s, text, types, vocabulary, own).map((part): Part => {
      const compound = part.kind === 'item' ? compoundOf(part.item, types, fits, own) : null;
      if (compound) beside.push(compound.beside);
      return compound ? { kind: 'item', item: compound.item } : part;
    });
    return [...chainsOf(parts, fits).flatMap((chain) => bySubject(chain, fits)), ...beside];
  });
  return partsAsSockets(chains);
}

/** Where people sit says nothing of what they have. */
const SEATED = /\b(?:sitting )?(?:a?round|at) (?:a|the|one|my|our) (?:table|desk)\b/giu;

const MAX_IN_TITLE = 6;
const isTitle = (lexemes: readonly Lexeme[]): boolean =>
  lexemes.length <= MAX_IN_TITLE && lexemes.every((l) => l.kind === 'word' || l.kind === 'and' || l.kind === 'name');

/** What someone wrote over a desk, before a colon: 'Church: …'; null where there is nothing. */
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
  let isAnd = false;
  const close = () => {
    const words = open.map((l) => l.text).join(' ');
    const last = parts.at(-2);
    if (open.length > 0 && isCable(words) && !isName(words, vocabulary)) {
      // 'Mixer > usb > computer', 'to the computer by usb': how it is plugged, and no device.
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
    // 'TV, soundbar via optical, headset': the way is that of what stands before.
    const of = parts.at(-2);
    if (separator.kind === 'list' && via !== null && last.kind === 'joint' && of?.kind === 'item') {
      parts.splice(-2, 2, { kind: 'item', item: { ...of.item, socket: via } }, separator);
      via = null;
      return;
    }
    if (last.kind === 'item') parts.push(separator);
    else if (isThen && last.kind === 'list') return;
    // 'On it, headphones from it': what a word for something said before leads to is over.
    else if (separator.kind !== last.kind) parts.splice(-1, 1, separator);
  };
  /** Behind 'and', the same way as the last thing was led: one more that is led so. */
  const isAlso = (joint: Joint): boolean => {
    const led = parts.at(-3);
    return isAnd && open.length === 0 && parts.at(-1)?.kind === 'list' && led?.kind === 'joint' && led.joint === joint;
  };
  for (let i = 0; i < lexemes.length; i++) {
    const lexeme = lexemes[i]!;
    if (lexeme.kind !== 'word') isAnd = lexeme.kind === 'and';
    if (lexeme.kind === 'arrow') part({ kind: 'joint', joint: 'to' });
    else if (lexeme.kind === 'back') part({ kind: 'joint', joint: 'from' });
    else if (lexeme.kind === 'comma' || lexeme.kind === 'and') part({ kind: 'list' });
    else if (lexeme.kind === 'name') open.push(lexeme);
    else {
      const run = wordsFrom(lexemes, i);
      const named = joiningName(run, vocabulary);
      const said = named > 0 ? 0 : socketWords(run);
      // 'Mixer recording to the laptop': it does so on its way.
      const doing = open.length > 0 && /^(?:recording|streaming|running|playing)$/i.test(run[0]!) ? 1 : 0;
      const way = named > 0 || said > 0 ? null : jointAt(run.slice(doing));
      const joint = way && { ...way, length: way.length + doing };
      if (isCounted(open, run)) open.push(lexeme);
      else if (open.length > 0 && isBareSocket(run)) socket = lexeme.text;
      // 'Mixer usb > laptop': where the wire leaves, behind a whole name.
      else if (
        open.length > 0 &&
        (run.length === 1 || jointAt(run.slice(1)) !== null) &&
        isBareConnector(lexeme.text) &&
        socketWords(run) === 0 &&
        isName(textOf(open), vocabulary) &&
        !isName(`${textOf(open)} ${lexeme.text}`, vocabulary)
      )
        socket = lexeme.text;
      else if (named > 0) {
        open.push(...lexemes.slice(i, i + named));
        i += named - 1;
      } else if (said > 0 && isSocketOf(run, said, open)) {
        socket = run.slice(0, said).join(' ');
        // Before the device that it is on: 'line in of the laptop' is read as 'laptop line in'.
        i += said - 1;
        if (/^(?:of|on)$/i.test(run[said] ?? '') && open.length === 0) i++;
      } else if (
        joint?.joint === 'either' &&
        open.length === 0 &&
        isAll(lexeme.text) &&
        parts.at(-1)?.kind !== 'joint'
      ) {
        // 'Mixer into the laptop, all on headphones': everyone is.
        const item = itemOf([{ ...lexeme, text: 'everyone' }], null, text, types, own);
        if (parts.at(-1)?.kind === 'item') parts.push({ kind: 'list' });
        if (item) parts.push({ kind: 'item', item });
        part({ kind: 'joint', joint: 'either' });
        i += joint.length - 1;
      } else if (joint && COUNTED_WITH.test(run.slice(0, joint.length + 2).join(' '))) {
        // 'Interface with 8 inputs': what it has, and nothing that is plugged there.
        open.push(...lexemes.slice(i, i + joint.length + 2));
        i += joint.length + 1;
      } else if (joint && isAlso(joint.joint)) {
        // 'Mixer to the speakers and to the laptop': to both.
        i += joint.length - 1;
      } else if (joint) {
        const said = run.slice(0, joint.length).join(' ');
        part({ kind: 'joint', joint: joint.joint, each: /\beach\b/i.test(said) }, /^then$/i.test(said));
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

const COUNTED_WITH = /^with (?:\d{1,2}|two|three|four|six|eight) (?:in|inputs?|channels?|ch|tracks?|ports?|preamps?)$/i;
const isAll = (word: string): boolean => /^all$/i.test(word);

/** '4 in' and '2 out' count sockets: no way leads in there. */
const isCounted = (open: readonly Lexeme[], [word = '', next = '']: readonly string[]): boolean =>
  /^(?:in|out)$/i.test(word) && numberOf(open.at(-1)?.text.toLowerCase()) !== null && !/^(?:the|my|a|an)$/i.test(next);

/** Words for a cable and for what is at its ends; 'aux' and 'phones' may be devices. */
const CABLES = new Set(
  'out output input usb hdmi xlr optical jack cable lead cord wire bluetooth wireless rca coax spdif network ethernet displayport arc earc loop aux'.split(
    ' ',
  ),
);
const isCable = (words: string): boolean => {
  const tokens = tokensOf(words).filter((t) => !FILLERS.has(t));
  return tokens.length > 0 && tokens.every((t) => CABLES.has(t) || /^\d$/.test(t) || t === 'c');
};

/** Whether words are a whole name: 'rca to usb' is a device. */
function isName(words: string, { types }: Vocabulary): boolean {
  const tokens = tokensOf(words);
  const texts = [tokens.join(' '), tokens.filter((t) => !FILLERS.has(t)).join(' ')];
  return types.some(({ phrases }) => phrases.some((p) => texts.includes(p.join(' '))));
}

const textOf = (lexemes: readonly Lexeme[]): string => lexemes.map((l) => l.text).join(' ');

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

type OpenHop = Omit<Hop, 'items'> & { readonly items: Item[] };

function chainsOf(parts: readonly Part[], fits: Fits): Chain[] {
  const chains: OpenHop[][] = [];
  let chain: OpenHop[] = [];
  let before: Separator | null = null;
  parts.forEach((part, i) => {
    if (part.kind !== 'item') {
      before = part;
      return;
    }
    if (before?.kind === 'joint') {
      const loose = before.joint === 'either' ? looseBefore(chain, part.item, fits) : [];
      if (loose.length > 0) {
        chains.splice(-1, 0, [{ joint: null, each: false, items: loose }]);
        chain[0]!.items.splice(0, chain[0]!.items.length, ...chain[0]!.items.filter((i) => !loose.includes(i)));
      }
      chain.push({ joint: before.joint, each: before.each ?? false, items: [part.item] });
    } else if (before?.kind === 'list' && leadsOn(parts, i) && isKnown(chain, part.item)) {
      // 'Mics into the mixer, mixer into the laptop'
      chain = [{ joint: null, each: false, items: [part.item] }];
      chains.push(chain);
    } else if (before?.kind === 'list' && !saysWhere(parts[i + 1]) && isFedByLast(chain, part.item, fits))
      chain.push({ joint: 'to', each: false, items: [part.item] });
    else if (before?.kind === 'list' && staysInList(chain, part.item, leadsOn(parts, i), fits))
      chain.at(-1)!.items.push(part.item);
    else {
      chain = [{ joint: null, each: false, items: [part.item] }];
      chains.push(chain);
    }
    before = null;
  });
  return chains;
}

/** 'Headset, mic on the interface': things of a list at the beginning that have no place there, where the last one has. */
function looseBefore(chain: Chain, goal: Item, fits: Fits): Item[] {
  const [list, ...more] = chain;
  if (!list || more.length > 0 || list.items.length < 2 || !goal.mention.type) return [];
  const hasPlace = (item: Item) => !item.mention.type || isFed([item], goal, fits) || isFed([goal], item, fits);
  return hasPlace(list.items.at(-1)!) ? list.items.filter((i) => !hasPlace(i)) : [];
}

/** 'Headset in the controller': what stands before it has no part in that. */
const saysWhere = (next: Part | undefined): boolean => next?.kind === 'joint' && next.joint === 'either';

const isKnown = (chain: Chain, item: Item): boolean =>
  chain.length > 1 && chain.some((hop) => hop.items.some((i) => isNamedAgain(i, item)));

/** Whether the list that contains an item is followed by a chain of its own. */
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
  // 'Headphones from the interface, webcam': the webcam has no part in that.
  const gives = previous.items.some(
    ({ mention: { type } }) => !type || !item.mention.type || fits(item.mention.type, type) !== null,
  );
  if (last.joint === 'from') return !leads && gives;
  // 'Hosts with a mic and headphones': one leads to them, and one comes from them.
  const isMet =
    last.joint === 'either' &&
    previous.items.some(
      ({ mention: { type } }) => type && isPerson(type) && item.mention.type && fits(item.mention.type, type) !== null,
    );
  // 'Mic on the interface, pc': no one puts it on that.
  const isNear =
    last.joint !== 'either' ||
    previous.items.some(
      ({ mention: { type } }) =>
        !type || !item.mention.type || Math.min(costOf(type, item, fits), costOf(type, item, fits, true)) < GOOD,
    );
  return (isMet || (isNear && isFed(previous.items, item, fits))) && !(leads && sameKind(previous.items, item));
}

/** A cable as everybody has it. */
const GOOD = 35;
const costOf = (a: DeviceType, { mention: { type: b } }: Item, fits: Fits, isBack = false): number =>
  (b ? (isBack ? fits(b, a) : fits(a, b)) : null) ?? Number.POSITIVE_INFINITY;

/** It is heard there, or kept. */
const isEnd = (type: DeviceType): boolean => soundsIntoRoom(type) || isWorn(type) || records(type);
const MIXED = 3;
/** It takes several sounds together. */
const mixes = (type: DeviceType): boolean =>
  type.ports.filter((p) => p.direction === 'in' && ['microphone', 'line'].includes(p.level)).length >= MIXED;

/** Score advantage of an explicit cable over an implied one. */
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

/** A person, an app, or a device: no two of them share a list. */
const natureOf = ({ mention: { type } }: Item): string => type?.nature ?? 'hardware';

/** Heads of chains like this one: 'console > tv, console 2 > monitor'. */
const sameKind = (before: readonly Item[], item: Item): boolean =>
  before.some((b) => b.mention.type !== null && b.mention.type === item.mention.type);
