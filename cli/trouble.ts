import { type Entry, inquire, lineUp, SYMPTOM_IDS, SYMPTOMS, type SymptomId } from '#core/live/troubleshoot/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { cli as say, textOf } from '#words/index.ts';
import type { Command } from './command.ts';
import { UsageError } from './edges.ts';
import { readRig } from './rig-file.ts';

const TOLD = 8;

/** What can be wrong where something is heard wrong, and where to look first; --said has what was looked at, 'key=answer;…'. */
export const trouble: Command = async ([path, symptom, listener], { values }) => {
  const rig = await readRig(path!);
  const entry = complaintOf(rig, symptom!, listener!, values.source);
  const said = (values.said ?? '')
    .split(';')
    .filter(Boolean)
    .map((text): Entry => {
      const cut = text.indexOf('=');
      if (cut < 1)
        throw new UsageError(
          say.isLike({ option: '--said', example: 'tap|mixer/strip-1|wren=nothing;look|power=well' }),
        );
      return { kind: 'look', key: text.slice(0, cut), answer: text.slice(cut + 1) };
    });
  const { odds, culprit, next } = inquire(rig, lineUp(rig), [entry, ...said]);
  const suspects = odds.slice(0, TOLD).map((o) => ({
    share: o.share,
    says:
      o.kind === 'fault'
        ? o.suspect.fault.says
        : o.kind === 'drawn'
          ? say.rigDoesThisAs()
          : say.somethingOutsideModel(),
    ...(o.kind === 'fault' ? { id: o.suspect.fault.id, mend: o.suspect.fault.mend } : {}),
  }));
  const look = next && {
    key: next.look.key,
    asks: next.asks,
    seconds: next.look.seconds,
    answers: next.outcomes.map((o) => ({ answer: o.answer, says: o.says, share: o.share })),
  };
  return {
    json: { named: culprit !== null, suspects, next: look },
    text: [
      ...suspects.map((s) => `${(100 * s.share).toFixed(0).padStart(3)}% ${s.says}`),
      ...(look
        ? [say.check({ asks: textOf(look.asks) }), ...look.answers.map((a) => `  ${a.says}: ${look.key}=${a.answer}`)]
        : []),
    ].join('\n'),
  };
};

function complaintOf(rig: Rig, symptom: string, listenerId: string, sourceId: string | undefined): Entry {
  const found = SYMPTOMS.find((s) => s.id === symptom);
  if (!found) throw new UsageError(say.unknownSymptomChooseOne({ symptom, names: SYMPTOM_IDS.join(', ') }));
  if (!rig.listeners.some((l) => l.id === listenerId))
    throw new UsageError(
      say.unknownDestinationChoose({ destination: listenerId, names: rig.listeners.map((l) => l.id).join(', ') }),
    );
  if (found.of === 'source' && !rig.sources.some((s) => s.id === sourceId))
    throw new UsageError(say.concernsOneSourceAdd({ symptom, names: rig.sources.map((s) => s.id).join(', ') }));
  const complaint = { symptomId: symptom as SymptomId, listenerId, sourceId: found.of === 'source' ? sourceId! : null };
  return { kind: 'complaint', complaint };
}
