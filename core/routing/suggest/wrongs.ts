import type { Rig } from '#core/model/rig/index.ts';
import { type Evaluation, loopLimit, rolesOf } from '#core/signal/index.ts';

/** A pair that is not as the plan wants it. */
export interface Wrong {
  readonly sourceId: string;
  readonly listenerId: string;
  readonly word: 'missing' | 'unwanted' | 'twice' | 'not-alone' | 'too-loud' | 'too-quiet';
}

export const keyOf = ({ sourceId, listenerId, word }: Wrong): string => `${sourceId}>${listenerId}:${word}`;
const pairKey = (sourceId: string, listenerId: string): string => `${sourceId}>${listenerId}`;

/**
 * What the plan speaks of and is not so: what must arrive does not, or twice, or not alone where it is to be; what must
 * not, does. `kept` are tracks of one source that hold nothing else, and are to stay so.
 */
export function wrongsOf({ pairs }: Evaluation, kept: ReadonlySet<string> = NONE): Wrong[] {
  return pairs.flatMap(({ sourceId, listenerId, want, ways, besides, verdict: { word } }): Wrong[] => {
    const wrong = (is: Wrong['word']): Wrong[] => [{ sourceId, listenerId, word: is }];
    if (word === 'missing' || word === 'unwanted') return wrong(word);
    if (word === 'twice' && want === 'must') return wrong('twice');
    if (want === 'must' && besides.length > 0) return wrong('not-alone');
    return ways.length > 0 && kept.has(pairKey(sourceId, listenerId)) ? wrong('unwanted') : [];
  });
}
const NONE: ReadonlySet<string> = new Set();

/** A source this far below its former level is as good as lost, dB, even if still present. */
const SPOILED_DB = 20;

/** Required and present, but barely: it was much louder before, and no level of its own is planned for it. */
export function spoiled(rig: Rig, { pairs }: Evaluation, { pairs: before }: Evaluation): Wrong[] {
  const levelled = new Set(
    rig.plan.filter((c) => c.underVoiceDb !== undefined).map((c) => pairKey(c.sourceId, c.listenerId)),
  );
  return pairs.flatMap(({ sourceId, listenerId, want, ways }, i): Wrong[] => {
    const was = before[i]!;
    if (want !== 'must' || ways === was.ways || !ways[0] || !was.ways[0]) return [];
    if (levelled.has(pairKey(sourceId, listenerId))) return [];
    const downDb = was.ways[0].levelDb.nominal - ways[0].levelDb.nominal;
    return downDb > SPOILED_DB ? [{ sourceId, listenerId, word: 'too-quiet' }] : [];
  });
}

/** Levels that are wanted under the main voice and stand otherwise there. */
export function levelsWrong({ pairs }: Evaluation): Wrong[] {
  return pairs.flatMap(({ sourceId, listenerId, want, verdict: { word } }): Wrong[] =>
    want === 'must' && (word === 'too-loud' || word === 'too-quiet') ? [{ sourceId, listenerId, word }] : [],
  );
}

/**
 * Pairs that no one hears and no one is to hear: other sources on a track that is one source's own. It is, where the plan
 * wants one source there and says nothing of others.
 */
export function keptApart(rig: Rig, { pairs }: Evaluation): ReadonlySet<string> {
  const roles = rolesOf(rig);
  const kept = new Set<string>();
  for (const listener of rig.listeners) {
    if (roles.listener(listener) !== 'track') continue;
    const cells = rig.plan.filter((c) => c.listenerId === listener.id && c.want !== 'must-not');
    if (cells.length !== 1 || cells[0]!.want !== 'must') continue;
    for (const { sourceId, listenerId, ways, want } of pairs)
      if (listenerId === listener.id && want === null && ways.length === 0) kept.add(pairKey(sourceId, listenerId));
  }
  return kept;
}

/** Loops that howl, by the devices that they go through. */
export const howlsOf = ({ loops }: Evaluation): Set<string> =>
  new Set(
    loops
      .filter((l) => l.together.gainDb >= loopLimit(l.together).howlsDb)
      .map((l) => [...l.deviceIds].sort().join('+')),
  );
