import { Link } from 'react-router';
import type { Rig } from '#core/model/rig/index.ts';
import { findListener } from '#core/model/rig/index.ts';
import { rich, StateMark } from '#web/shared/parts/index.ts';
import { watch as say } from '#words/index.ts';
import { ALARM_WORDS, seenBy } from './alarms.ts';
import { FirstLook } from './Suspected.tsx';
import { useWatchers } from './useWatchers.ts';

/** Over every view: what the watch sees wrong just now. */
export function WatchNotice({ rig, rigId }: { rig: Rig; rigId: string }) {
  const seen = seenBy(useWatchers());
  const [first, ...others] = seen;
  if (!first) return null;
  const name = findListener(rig, first.watcher.listenerId)?.name ?? first.watcher.name;
  return (
    <div className="notice fix" role="alert">
      <StateMark state="fix" />
      <span className="strong">
        {name}: {ALARM_WORDS[first.id].toLowerCase()}
      </span>
      <span>{first.says}</span>
      <FirstLook rig={rig} seen={seen} />
      {others.length > 0 && <span className="quiet">{say.andMore({ others: others.length })}</span>}
      <Link to={`/rigs/${rigId}/trouble`}>{rich(say.troubleshoot, {})}</Link>
    </div>
  );
}
