import type { Edit, PlanCell, Rig } from '#core/rig/index.ts';
import { type ListenerRole, mainVoiceOf, rolesOf, type SourceRole } from '#core/signal/index.ts';

/** A want that follows from what a source and a listener are, with the reason in words. */
export interface Proposed {
  readonly cell: PlanCell;
  readonly why: string;
}

/** What is wanted of a pair by what the two are; with how far under the main voice, dB. */
type Wanted = readonly [want: PlanCell['want'], why: string, underVoiceDb?: number | undefined];
type Table = Partial<Record<ListenerRole, Partial<Record<SourceRole | 'own', Wanted>>>>;

/** A usual purpose: what of the usual wants it changes. */
export interface Start {
  readonly id: string;
  readonly name: string;
  readonly says: string;
  readonly table: Table;
  /** Every voice gets the next single track to itself. */
  readonly voicesApart?: boolean;
  /** Music keeps time with the main voice. */
  readonly musicInTime?: boolean;
}

const WHOLE = 'it is made for everything';
const EARS = 'people should hear everything except their own voice';
const ROOM = 'the room hears what doesn’t already sound in it';
const THERE = 'it already sounds in the room';
const OWN_FAR = 'hearing yourself late over a call makes it hard to talk';
const OWN_HERE = 'hearing yourself with no delay is fine';
/** Under the main voice, dB: the starting balance that is usual (typical). */
const BALANCE: Partial<Record<SourceRole, number>> = {
  'second-voice': 0,
  'far-voice': 2,
  'radio-voice': 2,
  game: 10,
  music: 18,
};
const BALANCED = 'a typical balance to start with';

const ALL: readonly SourceRole[] = ['voice', 'second-voice', 'far-voice', 'radio-voice', 'game', 'music', 'other'];
const row = (of: (role: SourceRole) => Wanted): Partial<Record<SourceRole, Wanted>> =>
  Object.fromEntries(ALL.map((role) => [role, of(role)]));
const must = (why: string) => row(() => ['must', why]);
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
    name: 'Suggested from your gear',
    says: 'Streams and recorders get everything, people everything but themselves; single tracks are up to you.',
    table: {},
  },
  {
    id: 'console-stream',
    name: 'A console on the stream',
    says: 'The stream is balanced, with the game below the voice; the player hears the game first.',
    table: {
      mix: balanced,
      ears: { voice: ['may', 'the player can do without'], music: ['may', 'the player can do without'] },
    },
  },
  {
    id: 'two-players',
    name: 'Two players and a guest on a call',
    says: 'Stream and guest are balanced, the players hear each other and the guest, the guest hears everything but themselves.',
    table: { mix: balanced, 'far-ears': balanced },
  },
  {
    id: 'class',
    name: 'A class over a call, with music',
    says: 'Pupils hear the voice and, well below it, the music, the two in sync; the teacher hears the pupils.',
    table: {
      mix: balanced,
      'far-ears': balanced,
      ears: { music: ['may', 'the teacher has it in the room'], 'far-voice': ['must', 'questions must be heard'] },
    },
    musicInTime: true,
  },
  {
    id: 'panel',
    name: 'A panel in a hall',
    says: 'The hall hears the panel and remote people; stream and recorder get everything, balanced.',
    table: {
      mix: balanced,
      'far-ears': balanced,
      room: {
        voice: ['must', 'a hall is larger than a voice'],
        'second-voice': ['must', 'a hall is larger than a voice'],
      },
    },
  },
  {
    id: 'interview',
    name: 'An interview',
    says: 'Both voices in the recording, and each on a track of its own where there are tracks.',
    table: { mix: balanced, ears: { voice: ['must', 'the camera operator hears both'] } },
    voicesApart: true,
  },
  {
    id: 'head-worn',
    name: 'A head-worn display, shown on a display',
    says: 'The wearer hears the game and the crew; the stream gets everything, balanced.',
    table: { mix: balanced, ears: { music: ['may', 'it would cover the crew'] } },
  },
  {
    id: 'radio',
    name: 'A two-way radio station',
    says: 'The operator and the log hear all channels; nothing goes on the air until it is keyed: require that in a moment.',
    table: {
      mix: balanced,
      'radio-ears': row(() => ['must-not', 'nothing goes on the air unless it is keyed']),
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
    why: 'a voice on its own track can be mixed later',
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
