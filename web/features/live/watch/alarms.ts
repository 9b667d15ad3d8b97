import type { WatchAlarmId } from '#core/audio/measure/index.ts';
import type { Complaint, SymptomId } from '#core/live/troubleshoot/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { mainVoiceOf, type State } from '#core/signal/index.ts';
import { watch as say, textOf } from '#words/index.ts';
import type { Watcher } from './watchers.ts';

type AlarmId = WatchAlarmId | 'gone' | 'other-device';

/** What is wrong with a watched input, as one reads it from three meters. */
export const ALARM_WORDS: Record<AlarmId, string> = {
  silent: say.silent(),
  'one-side': say.oneSideOnly(),
  clipping: say.clips(),
  hum: say.hum(),
  'off-usual': say.levelChanged(),
  'no-voice': say.noVoice(),
  gone: say.gone(),
  'other-device': say.otherDevice(),
};

/** What one would complain of, by what the watch saw; of another device nothing, before something is wrong with it. */
const SYMPTOMS: Record<AlarmId, SymptomId | null> = {
  silent: 'nothing-at-all',
  gone: 'nothing-at-all',
  'one-side': 'one-side',
  clipping: 'distorted',
  hum: 'hum',
  'off-usual': 'too-quiet',
  'no-voice': 'no-sound',
  'other-device': null,
};
/** Complaints that are of one source. */
const OF_ONE: ReadonlySet<SymptomId> = new Set(['one-side', 'too-quiet', 'too-loud', 'no-sound']);

export interface Seen {
  readonly watcher: Watcher;
  readonly id: AlarmId;
  readonly says: string;
  readonly symptomId: SymptomId | null;
}

/** Everything that is wrong just now. */
export const seenBy = (watchers: readonly Watcher[]): Seen[] =>
  watchers.flatMap((watcher): Seen[] =>
    watcher.gone !== null
      ? [{ watcher, id: 'gone', says: watcher.gone, symptomId: SYMPTOMS.gone }]
      : [
          ...(watcher.state?.alarms ?? []).map((a) => ({
            watcher,
            id: a.id,
            says:
              a.id === 'clipping' ? textOf(a.says) : say.alarmFor({ says: textOf(a.says), forS: Math.round(a.forS) }),
            symptomId: a.louder ? ('too-loud' as const) : SYMPTOMS[a.id],
          })),
          ...(watcher.before === null
            ? []
            : [
                {
                  watcher,
                  id: 'other-device' as const,
                  says: say.cameOnBefore({ before: watcher.before, now: watcher.name }),
                  symptomId: null,
                },
              ]),
        ],
  );

export const stateOf = (watcher: Watcher): State =>
  watcher.gone !== null
    ? 'stop'
    : watcher.state && (watcher.state.alarms.length > 0 || watcher.before !== null)
      ? 'fix'
      : watcher.state
        ? 'good'
        : 'none';

/** What the watch saw as a complaint, null where it is none; one that is of a single source is about this. */
export const complaintOf = ({ watcher: { listenerId }, symptomId }: Seen, sourceId: string): Complaint | null =>
  symptomId && { symptomId, listenerId, sourceId: OF_ONE.has(symptomId) ? sourceId : null };

/** All that the watch saw as complaints about destinations of the rig; what is of one source is about its main voice. */
export function complaintsIn(rig: Rig, seen: readonly Seen[]): Complaint[] {
  const sourceId = mainVoiceOf(rig) ?? rig.sources[0]?.id;
  if (sourceId === undefined) return [];
  return seen.flatMap((s) => {
    const complaint = complaintOf(s, sourceId);
    return complaint && rig.listeners.some((l) => l.id === complaint.listenerId) ? [complaint] : [];
  });
}
