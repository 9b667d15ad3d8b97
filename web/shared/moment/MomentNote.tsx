import { momentName } from '#core/model/rig/index.ts';
import { selectMomentId, selectRig, useAppSelector } from '#web/shared/store/index.ts';
import { moment as say } from '#words/index.ts';

/** What an edit on a screen belongs to: what is pressed and wanted is a moment's own, all else is the same in all of them. */
export type EditsGo = 'into-the-moment' | 'into-all';

const SAYS: Readonly<Record<EditsGo, { readonly own: string; readonly all: string }>> = {
  'into-the-moment': {
    own: say.switchedHere(),
    all: say.switchedEverywhere(),
  },
  'into-all': {
    own: say.devicesCablesAndDelays(),
    all: say.whatYouChangeHere(),
  },
};

/** Said where one edits, in a session of several moments: which one is shown, and which ones an edit applies to. */
export function MomentNote({ edits }: { edits: EditsGo }) {
  const rig = useAppSelector(selectRig);
  const momentId = useAppSelector(selectMomentId);
  if (!rig || rig.moments.length === 0) return null;
  const says = SAYS[edits];
  return (
    <p className="small moment-note" role="note">
      {say.selectedMoment()} <span className="strong">{momentName(rig, momentId)}</span>.{' '}
      {momentId === null ? says.all : says.own}
    </p>
  );
}
