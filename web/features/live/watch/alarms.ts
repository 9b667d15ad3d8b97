import type { WatchAlarmId } from '#core/audio/measure/index.ts';
import type { Complaint, SymptomId } from '#core/live/troubleshoot/index.ts';
import type { State } from '#core/signal/index.ts';
import { watch as say, textOf } from '#words/index.ts';
import type { Watcher } from './watchers.ts';

/** What is wrong with a watched input, as one reads it from three meters. */
export const ALARM_WORDS: Record<WatchAlarmId | 'gone', string> = {
  silent: 'SILENT',
  'one-side': say.oneSideOnly(),
  clipping: 'CLIPS',
  hum: 'HUM',
  'off-usual': say.levelChanged(),
  gone: 'GONE',
};

/** What one would complain of, by what the watch saw. */
const SYMPTOMS: Record<WatchAlarmId | 'gone', SymptomId> = {
  silent: 'nothing-at-all',
  gone: 'nothing-at-all',
  'one-side': 'one-side',
  clipping: 'distorted',
  hum: 'hum',
  'off-usual': 'too-quiet',
};

export interface Seen {
  readonly watcher: Watcher;
  readonly id: WatchAlarmId | 'gone';
  readonly says: string;
}

/** Everything that is wrong just now. */
export const seenBy = (watchers: readonly Watcher[]): Seen[] =>
  watchers.flatMap((watcher): Seen[] =>
    watcher.gone !== null
      ? [{ watcher, id: 'gone', says: watcher.gone }]
      : (watcher.state?.alarms ?? []).map((a) => ({
          watcher,
          id: a.id,
          says: a.id === 'clipping' ? textOf(a.says) : say.alarmFor({ says: textOf(a.says), forS: Math.round(a.forS) }),
        })),
  );

export const stateOf = (watcher: Watcher): State =>
  watcher.gone !== null ? 'stop' : !watcher.state ? 'none' : watcher.state.alarms.length > 0 ? 'fix' : 'good';

/** What the watch saw as a complaint; one that is of a single source is about the first of them. */
export const complaintOf = ({ watcher, id }: Seen, sourceId: string): Complaint => {
  const symptomId = SYMPTOMS[id];
  const ofOne = symptomId === 'one-side' || symptomId === 'too-quiet';
  return { symptomId, listenerId: watcher.listenerId, sourceId: ofOne ? sourceId : null };
};
