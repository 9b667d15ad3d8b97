import type { Text } from '#core/base/said/index.ts';
import type { Edit, PlanCell, Rig } from '#core/model/rig/index.ts';
import { type ListenerRole, mainVoiceOf, rolesOf, type SourceRole } from '#core/signal/index.ts';
import { say } from './sayings.ts';

/** A want that follows from what a source and a listener are, with the reason in words. */
export interface Proposed {
  readonly cell: PlanCell;
  readonly why: Text;
}

/** What is wanted of a pair by what the two are; with how far under the main voice, dB. */
type Wanted = readonly [want: PlanCell['want'], why: Text, underVoiceDb?: number | undefined];
type Table = Partial<Record<ListenerRole, Partial<Record<SourceRole | 'own', Wanted>>>>;

/** A usual purpose: what of the usual wants it changes. */
export interface Start {
  readonly id: string;
  readonly name: Text;
  readonly says: Text;
  readonly table: Table;
  /** Every voice gets the next single track to itself. */
  readonly voicesApart?: boolean;
  /** Music keeps time with the main voice. */
  readonly musicInTime?: boolean;
}

const WHOLE = say.itIsMadeFor();
const EARS = say.peopleShouldHearEverything();
const ROOM = say.roomHearsWhatDoesnt();
const THERE = say.itAlreadySoundsIn();
const OWN_FAR = say.hearingYourselfLateOver();
const OWN_HERE = say.hearingYourselfWithNo();
/** Under the main voice, dB: the starting balance that is usual (typical). */
const BALANCE: Partial<Record<SourceRole, number>> = {
  'second-voice': 0,
  'far-voice': 2,
  'radio-voice': 2,
  game: 10,
  music: 18,
};
const BALANCED = say.typicalBalanceToStart();

const ALL: readonly SourceRole[] = ['voice', 'second-voice', 'far-voice', 'radio-voice', 'game', 'music', 'other'];
const row = (of: (role: SourceRole) => Wanted): Partial<Record<SourceRole, Wanted>> =>
  Object.fromEntries(ALL.map((role) => [role, of(role)]));
const must = (why: Text) => row(() => ['must', why]);
const balanced = row((role) => ['must', BALANCED, BALANCE[role]]);

/** What is wanted where nothing else is said. */
const USUAL: Table = {
  mix: must(WHOLE),
  ears: { ...must(EARS), own: ['may', OWN_HERE] },
  'far-ears': { ...must(EARS), own: ['must-not', OWN_FAR] },
  room: { ...must(ROOM), voice: ['may', THERE], 'second-voice': ['may', THERE] },
};

/** Starting plans for the usual occasions; each is looked at and changed afterwards. */
export const STARTS: readonly Start[] = [
  {
    id: 'usual',
    name: say.suggestedFromYourGear(),
    says: say.streamsAndRecordersGet(),
    table: {},
  },
  {
    id: 'console-stream',
    name: say.consoleOnStream(),
    says: say.streamIsBalancedWith(),
    table: {
      mix: balanced,
      ears: { voice: ['may', say.playerCanDoWithout()], music: ['may', say.playerCanDoWithout()] },
    },
  },
  {
    id: 'two-players',
    name: say.twoPlayersAndGuest(),
    says: say.streamAndGuestAre(),
    table: { mix: balanced, 'far-ears': balanced },
  },
  {
    id: 'class',
    name: say.classOverCallWith(),
    says: say.pupilsHearVoiceAnd(),
    table: {
      mix: balanced,
      'far-ears': balanced,
      ears: { music: ['may', say.teacherHasItIn()], 'far-voice': ['must', say.questionsMustBeHeard()] },
    },
    musicInTime: true,
  },
  {
    id: 'panel',
    name: say.panelInHall(),
    says: say.hallHearsPanelAnd(),
    table: {
      mix: balanced,
      'far-ears': balanced,
      room: {
        voice: ['must', say.hallIsLargerThan()],
        'second-voice': ['must', say.hallIsLargerThan()],
      },
    },
  },
  {
    id: 'interview',
    name: say.interview(),
    says: say.bothVoicesInRecording(),
    table: { mix: balanced, ears: { voice: ['must', say.cameraOperatorHearsBoth()] } },
    voicesApart: true,
  },
  {
    id: 'head-worn',
    name: say.headWornDisplayShown(),
    says: say.wearerHearsGameAnd(),
    table: { mix: balanced, ears: { music: ['may', say.itWouldCoverCrew()] } },
  },
  {
    id: 'radio',
    name: say.twoWayRadioStation(),
    says: say.operatorAndLogHear(),
    table: {
      mix: balanced,
      'radio-ears': row(() => ['must-not', say.nothingGoesOnAir()]),
    },
  },
];

/** A hearing plan for a rig by a usual purpose. To be looked at and changed. */
export function startPlan(rig: Rig, start: Start): Proposed[] {
  const roles = rolesOf(rig);
  const main = mainVoiceOf(rig);
  const proposed = rig.listeners.flatMap((listener) => {
    const role = roles.listener(listener);
    const wants = { ...USUAL[role], ...start.table[role] };
    return rig.sources.flatMap((source): Proposed[] => {
      const kind = roles.source(source);
      const own = roles.isOwn(source, listener);
      const wanted = own ? (wants.own ?? (role === 'radio-ears' ? undefined : wants[kind])) : wants[kind];
      if (!wanted) return [];
      const [want, why, underVoiceDb] = wanted;
      const inTime = start.musicInTime && kind === 'music' && want === 'must' && main !== null && main !== source.id;
      return [
        {
          cell: {
            sourceId: source.id,
            listenerId: listener.id,
            want,
            ...(underVoiceDb !== undefined && main !== null && { underVoiceDb }),
            ...(inTime && { inTimeWith: main }),
          },
          why,
        },
      ];
    });
  });
  return start.voicesApart ? [...proposed, ...apart(rig)] : proposed;
}

/** A hearing plan for a rig that has none. */
export const proposePlan = (rig: Rig): Proposed[] => startPlan(rig, STARTS[0]!);

/** The first voice alone on the first track, the second on the second, and so on. */
function apart(rig: Rig): Proposed[] {
  const roles = rolesOf(rig);
  const voices = rig.sources.filter((s) => roles.source(s).endsWith('voice'));
  const tracks = rig.listeners.filter((l) => roles.listener(l) === 'track');
  return voices.slice(0, tracks.length).map((source, i) => ({
    cell: { sourceId: source.id, listenerId: tracks[i]!.id, want: 'must', ownTrack: true },
    why: say.voiceOnItsOwn(),
  }));
}

/** The proposal as one step; with `rig`, in place of everything that is planned there. */
export const planEdit = (proposed: readonly Proposed[], rig?: Rig): Edit => {
  const kept = new Set(proposed.map(({ cell }) => `${cell.sourceId}>${cell.listenerId}`));
  const gone = rig?.plan.filter((c) => !kept.has(`${c.sourceId}>${c.listenerId}`)) ?? [];
  return {
    kind: 'batch',
    edits: [
      ...gone.map(({ sourceId, listenerId }): Edit => ({ kind: 'set-plan', sourceId, listenerId, cell: null })),
      ...proposed.map(
        ({ cell }): Edit => ({ kind: 'set-plan', sourceId: cell.sourceId, listenerId: cell.listenerId, cell }),
      ),
    ],
  };
};
