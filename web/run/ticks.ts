import { z } from 'zod';
import { CAUTIONS, type Step } from '#core/run/index.ts';

/** What became of a step: done, or left out for a reason, and when. */
const Tick = z.strictObject({ at: z.iso.datetime(), leftOut: z.string().max(300).optional() });
export type Tick = z.infer<typeof Tick>;

/** The ticks of one run through an order, by step. */
export const Ticks = z.record(z.string().max(200), Tick);
export type Ticks = z.infer<typeof Ticks>;

export type Way = 'first' | 'standing' | 'down';
export const WAYS: readonly (readonly [Way, string])[] = [
  ['first', 'Everything, for a first time'],
  ['standing', 'The desk stands as it was'],
  ['down', 'The way down'],
];

const nameOf = (rigId: string, way: Way): string => `mellow-tap.run.${rigId}.${way}`;

/** Ticks as they are kept in this browser: a reload or a lost server takes none. */
export function readTicks(rigId: string, way: Way): Ticks {
  try {
    return Ticks.parse(JSON.parse(localStorage.getItem(nameOf(rigId, way)) ?? '{}'));
  } catch {
    return {};
  }
}

export function keepTicks(rigId: string, way: Way, ticks: Ticks): void {
  try {
    localStorage.setItem(nameOf(rigId, way), JSON.stringify(ticks));
  } catch {
    // No room, or none allowed: they last as long as the page.
  }
}

/** The first step that is open and rests on nothing that is open: what is to be done now; null when all is done. */
export const nextStep = (steps: readonly Step[], ticks: Ticks): Step | null =>
  steps.find((s) => !ticks[s.id] && s.after.every((a) => ticks[a] || !steps.some((o) => o.id === a))) ?? null;

/** Open steps that a step rests on: doing it now would break the order. */
export const openBefore = (step: Step, steps: readonly Step[], ticks: Ticks): readonly Step[] =>
  steps.filter((s) => step.after.includes(s.id) && !ticks[s.id]);

export const withTick = (ticks: Ticks, id: string, tick: Tick): Ticks => ({ ...ticks, [id]: tick });
export function withoutTick(ticks: Ticks, id: string): Ticks {
  const { [id]: _, ...rest } = ticks;
  return rest;
}

/** The step that was ticked last; null for none. */
export const lastTicked = (steps: readonly Step[], ticks: Ticks): Step | null =>
  steps
    .filter((s) => ticks[s.id])
    .reduce<Step | null>((last, s) => (last && ticks[last.id]!.at > ticks[s.id]!.at ? last : s), null);

/** The order as a list to take along (Markdown, task list): reasons and cautions under each step. */
export function orderToMarkdown(title: string, steps: readonly Step[], ticks: Ticks): string {
  const lines = steps.map((s) => {
    const tick = ticks[s.id];
    const said = tick?.leftOut ? ` (left out: ${tick.leftOut})` : '';
    return [
      `- [${tick ? 'x' : ' '}] ${s.says}${said}`,
      `  ${s.why}`,
      ...s.cautions.map((c) => `  **Mind:** ${CAUTIONS[c]}`),
    ].join('\n');
  });
  return `# ${title}\n\n${lines.join('\n')}\n`;
}
