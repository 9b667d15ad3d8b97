import type { ScanInput, ScanLink, ScanOutput, ScanRead } from './scan.ts';

type Device = ScanInput | ScanOutput;

/** One thing that is otherwise than in a scan before. */
export type ScanChange =
  | { readonly kind: 'output-gone' | 'output-new' | 'input-gone' | 'input-new'; readonly name: string }
  | {
      readonly kind: 'output-renamed' | 'input-renamed';
      readonly name: string;
      readonly before: string;
    }
  | { readonly kind: 'link-gone' | 'link-new'; readonly from: string; readonly to: string; readonly levelDb: number }
  | {
      readonly kind: 'level' | 'delay';
      readonly from: string;
      readonly to: string;
      readonly before: number;
      readonly now: number;
    }
  | { readonly kind: 'polarity' | 'sides' | 'again' | 'band'; readonly from: string; readonly to: string }
  | { readonly kind: 'rate'; readonly name: string; readonly before: number; readonly now: number };

/**
 * Levels and delays of one path repeat within this, and so far beyond the spread of both scans, dB and ms: what browsers say
 * of their own delay differs by up to 9 ms each time that devices are opened, by up to 20 where the computer is held up.
 */
const SAME_LEVEL_DB = 1;
const SAME_DELAY_MS = 25;
const SPREADS = 2;
/** A second path that is nearer to the loudest than this is said when it comes or goes, dB under it. */
const AGAIN_SAID_DB = 18;
const SAME_AGAIN_MS = 2;
/** Bands are read in third octaves: they differ where an edge moved by more than one. */
const BAND_RATIO = 2 ** 0.5;
/** A path that wasn't seen is gone where it would have been seen by so much, dB. */
const WOULD_SHOW_DB = 6;

/**
 * What moved since a scan before: devices are the same by their id, else by a name that only one has on each side, else by
 * what arrives at them.
 */
export function compareScans(before: ScanRead, now: ScanRead): ScanChange[] {
  const outputs = matched(before.outputs, now.outputs, (a, b) => alike(before, now, 'outputId', a, b));
  const inputs = matched(before.inputs, now.inputs, (a, b) => alike(before, now, 'inputId', a, b));
  const nameOf = (id: string): string => [...now.outputs, ...now.inputs].find((d) => d.id === id)?.name ?? id;
  const links: ScanChange[] = now.links.flatMap((link): ScanChange[] => {
    const [outputBefore, inputBefore] = [outputs.back.get(link.outputId), inputs.back.get(link.inputId)];
    // What is said of a device that came is not said again of each of its links.
    if (outputBefore === undefined || inputBefore === undefined) return [];
    const [from, to] = [nameOf(link.outputId), nameOf(link.inputId)];
    const was = before.links.find((l) => l.outputId === outputBefore && l.inputId === inputBefore);
    if (was) return changesOf(was, link, from, to);
    return couldShow(before, inputBefore, link.levelDb) ? [{ kind: 'link-new', from, to, levelDb: link.levelDb }] : [];
  });
  const gone = before.links.flatMap((was): ScanChange[] => {
    const [outputId, inputId] = [outputs.on.get(was.outputId), inputs.on.get(was.inputId)];
    if (outputId === undefined || inputId === undefined) return [];
    if (now.links.some((l) => l.outputId === outputId && l.inputId === inputId)) return [];
    return couldShow(now, inputId, was.levelDb)
      ? [{ kind: 'link-gone', from: nameOf(outputId), to: nameOf(inputId), levelDb: was.levelDb }]
      : [];
  });
  const rates = [
    ...sameOf(before.outputs, now.outputs, outputs.on),
    ...sameOf(before.inputs, now.inputs, inputs.on),
  ].flatMap(({ was, is }): ScanChange[] =>
    was.sampleRateHz === is.sampleRateHz
      ? []
      : [{ kind: 'rate', name: is.name, before: was.sampleRateHz, now: is.sampleRateHz }],
  );
  return [
    ...devicesChanged(before.outputs, now.outputs, outputs.on, 'output'),
    ...devicesChanged(before.inputs, now.inputs, inputs.on, 'input'),
    ...gone,
    ...links,
    ...rates,
  ];
}

function changesOf(was: ScanLink, is: ScanLink, from: string, to: string): ScanChange[] {
  const out: ScanChange[] = [];
  const levelDb = Math.max(SAME_LEVEL_DB, SPREADS * (was.levelSpreadDb + is.levelSpreadDb));
  if (Math.abs(is.levelDb - was.levelDb) > levelDb)
    out.push({ kind: 'level', from, to, before: was.levelDb, now: is.levelDb });
  const delayMs = Math.max(SAME_DELAY_MS, SPREADS * (was.spreadMs + is.spreadMs));
  if (Math.abs(is.delayMs - was.delayMs) > delayMs)
    out.push({ kind: 'delay', from, to, before: was.delayMs, now: is.delayMs });
  if (was.polarity !== null && is.polarity !== null && was.polarity !== is.polarity)
    out.push({ kind: 'polarity', from, to });
  if (was.sides !== is.sides) out.push({ kind: 'sides', from, to });
  if (!(sameAgain(was, is) && sameAgain(is, was))) out.push({ kind: 'again', from, to });
  const moved = (a: number, b: number) => Math.max(a / b, b / a) > BAND_RATIO;
  if (moved(was.lowHz, is.lowHz) || moved(was.highHz, is.highHz)) out.push({ kind: 'band', from, to });
  return out;
}

const sameAgain = (a: ScanLink, b: ScanLink): boolean =>
  a.again.every(
    ({ afterMs, underDb }) =>
      underDb > AGAIN_SAID_DB || b.again.some((other) => Math.abs(other.afterMs - afterMs) < SAME_AGAIN_MS),
  );

/** Whether an input would have shown a path of this level. */
function couldShow({ inputs }: ScanRead, inputId: string, levelDb: number): boolean {
  const input = inputs.find((i) => i.id === inputId);
  return input !== undefined && levelDb > input.seesFromDb + WOULD_SHOW_DB;
}

interface Matched {
  /** Ids now by ids before, and back. */
  readonly on: ReadonlyMap<string, string>;
  readonly back: ReadonlyMap<string, string>;
}

function matched(
  before: readonly Device[],
  now: readonly Device[],
  likeness: (before: Device, now: Device) => number,
): Matched {
  const on = new Map<string, string>();
  const isOpen = (d: Device) => !on.has(d.id);
  const taken = new Set<string>();
  const take = (was: Device, is: Device | undefined) => {
    if (!is || taken.has(is.id)) return;
    on.set(was.id, is.id);
    taken.add(is.id);
  };
  for (const was of before)
    take(
      was,
      now.find((d) => d.id === was.id),
    );
  const alone = (list: readonly Device[], name: string) => {
    const [one, ...more] = list.filter((d) => d.name === name && (list === before ? isOpen(d) : !taken.has(d.id)));
    return more.length === 0 ? one : undefined;
  };
  for (const was of before.filter(isOpen)) if (alone(before, was.name)) take(was, alone(now, was.name));
  for (const was of before.filter(isOpen)) {
    const [best, next] = now
      .filter((d) => !taken.has(d.id))
      .map((is) => ({ is, like: likeness(was, is) }))
      .sort((a, b) => b.like - a.like);
    if (best && best.like > 0 && best.like > (next?.like ?? 0)) take(was, best.is);
  }
  return { on, back: new Map([...on].map(([a, b]) => [b, a])) };
}

/** Paths that two devices have in common with the same device at their other end. */
function alike(before: ScanRead, now: ScanRead, end: 'outputId' | 'inputId', a: Device, b: Device): number {
  const far = end === 'outputId' ? 'inputId' : 'outputId';
  const was = before.links.filter((l) => l[end] === a.id);
  const is = now.links.filter((l) => l[end] === b.id);
  const same = was.filter((l) =>
    is.some(
      (m) =>
        m[far] === l[far] &&
        Math.abs(m.delayMs - l.delayMs) < SAME_DELAY_MS &&
        Math.abs(m.levelDb - l.levelDb) < SAME_LEVEL_DB,
    ),
  );
  return same.length === was.length && same.length === is.length ? same.length : 0;
}

const sameOf = (before: readonly Device[], now: readonly Device[], on: ReadonlyMap<string, string>) =>
  before.flatMap((was) => {
    const is = now.find((d) => d.id === on.get(was.id));
    return is ? [{ was, is }] : [];
  });

function devicesChanged(
  before: readonly Device[],
  now: readonly Device[],
  on: ReadonlyMap<string, string>,
  what: 'output' | 'input',
): ScanChange[] {
  const kept = new Set(on.values());
  return [
    ...before.filter((d) => !on.has(d.id)).map((d): ScanChange => ({ kind: `${what}-gone`, name: d.name })),
    ...now.filter((d) => !kept.has(d.id)).map((d): ScanChange => ({ kind: `${what}-new`, name: d.name })),
    ...sameOf(before, now, on)
      .filter(({ was, is }) => was.name !== is.name)
      .map(({ was, is }): ScanChange => ({ kind: `${what}-renamed`, name: is.name, before: was.name })),
  ];
}
