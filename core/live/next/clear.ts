import { applyEdit, markDone, type Rig } from '#core/model/rig/index.ts';
import { priceOfOutcome, type SolveProgram, totalOf } from '#core/routing/suggest/index.ts';
import { askedBy, type Finding, type Question, questionsOf } from '#core/rules/index.ts';
import { evaluationAt } from '#core/signal/index.ts';
import { BURDEN, burdenOf, type Draft, NOTHING, type Outcome, wrongIn } from './draft.ts';
import {
  bridgeRemedies,
  carriedOut,
  delayRemedies,
  fixRemedies,
  outcomeOf,
  type Remedy,
  routingRemedies,
} from './remedies.ts';
import { cautionsFor } from './safe.ts';
import { sayRemedy } from './say-remedy.ts';
import { say } from './sayings.ts';
import { secondsFor, TYPICAL_SECONDS } from './seconds.ts';
import { touchedBy } from './touched.ts';
import type { Places } from './where.ts';

/** Issues that fixes are looked for at a time: each may cost many evaluations. */
const MAX_SOUGHT = 30;
/** No way leads there: cables and devices may. */
const MISSING_RULE = 'plan-missing';
/** How often delays are worked out anew: once what they bring together is mended, other delays may be right. */
const MAX_ALIGNED = 3;
/** Steps at most: what is left then is planned once these are done. */
const MAX_STEPS = 60;

export interface Cleared {
  readonly drafts: readonly Draft[];
  readonly end: Outcome;
  /** Issues that are not planned for. */
  readonly further: number;
}

/** What a point of side effects weighs, in burden: an issue is not mended by what spoils as much elsewhere. */
const BURDEN_OF_A_POINT = 1;
/** What is left of an issue that is mended in part. */
const LEFT_OF_PART = 0.5;

/** A remedy with what it took away where it was last tried. */
interface Candidate {
  readonly remedy: Remedy;
  readonly seconds: number;
  /** What it is for: an issue that it mends in part counts though it is still found. */
  readonly forIssue: string | null;
  /** Burden that it took away there; an upper bound for what it takes away now. */
  gain: number;
  gone: ReadonlySet<string>;
}

/**
 * Steps that leave nothing wrong in a rig: what an issue rests on is looked at first; then, of all changes that are
 * known to mend something, the one that takes most away for its time; then delays; and what nothing mends is to be
 * decided. Each is tried on the rig that the ones before it leave.
 */
export function clearIssues(start: Outcome, places: Places, solve: SolveProgram | null): Cleared {
  const drafts: Draft[] = [];
  const settled = new Set<string>();
  const pool = new Map<string, Candidate>();
  const sought = new Map<string, unknown>();
  /** The step that an issue came with, where it was not there at first. */
  const cameWith = new Map<string, string>();
  let at = start;
  let aligning = 0;
  while (drafts.length < MAX_STEPS) {
    const wrong = wrongIn(at);
    if (wrong.size === 0) break;
    const next =
      looked(at, wrong, places) ??
      mended(at, wrong, pool, sought, settled, places) ??
      decided(
        at,
        [...wrong.values()].filter((f) => f.stage !== 'sync'),
        places,
      ) ??
      (aligning++ < MAX_ALIGNED ? aligned(at, wrong, solve, places) : null) ??
      decided(at, [...wrong.values()], places);
    if (!next) break;
    const after = next.draft.findingIds.flatMap((id) => cameWith.get(id) ?? []);
    drafts.push({ ...next.draft, after: [...new Set(after)] });
    for (const id of wrongIn(next.after).keys()) if (!wrong.has(id)) cameWith.set(id, next.draft.id);
    for (const key of touchedBy(next.draft.act)) settled.add(key);
    at = next.after;
  }
  return { drafts, end: at, further: wrongIn(at).size };
}

/** Issues that are looked at for a first step at once. */
const MAX_GLANCED = 2;

/** A step that is right to begin with, at once: of the worst issues alone, before everything is planned. */
export function glance(start: Outcome, places: Places): Draft | null {
  const wrong = wrongIn(start);
  const asked = looked(start, wrong, places);
  if (asked) return asked.draft;
  const pool = new Map<string, Candidate>();
  for (const finding of [...wrong.values()].filter((f) => f.stage !== 'sync').slice(0, MAX_GLANCED)) {
    for (const remedy of fixRemedies(start.rig, finding)) enter(start, wrong, pool, remedy, null);
    const taken = best(start, wrong, pool, NOTHING_SETTLED, places);
    if (taken) return taken.draft;
  }
  return null;
}
const NOTHING_SETTLED: ReadonlySet<string> = new Set();

interface Taken {
  readonly draft: Draft;
  readonly after: Outcome;
}

/** The first question that an issue puts, answered as drawn. */
function looked(at: Outcome, wrong: ReadonlyMap<string, Finding>, places: Places): Taken | null {
  const asked = [...wrong.values()].filter((f) => f.asks);
  if (asked.length === 0) return null;
  const ids = new Set(askedBy(at.rig, asked).map((q) => q.id));
  const questions = questionsOf(at.rig, evaluationAt(at.rig, null), asked).filter((q) => ids.has(q.id));
  for (const question of questions) {
    const taken = answered(at, question, places);
    if (taken) return taken;
  }
  return null;
}

/** A question answered as it is drawn; null where that can't be. */
export function answered(at: Outcome, question: Question, places: Places): Taken | null {
  const { answers, asks, findings, deviceId } = question;
  const asDrawn = answers.find((a) => a.asDrawn);
  const done = asDrawn && applyEdit(at.rig, markDone(at.rig, asDrawn.changes));
  if (!done?.ok) return null;
  const doubts = question.decides ?? 0;
  const draft: Draft = {
    id: `answer:${question.id}`,
    act: {
      do: 'answer',
      questionId: question.id,
      answers: answers.map(({ label, asDrawn: is, changes }) => ({ label, asDrawn: is, changes })),
    },
    says: asks,
    why: findings[0] ? say.lookWhyFinding({ says: findings[0].says }) : say.lookWhy({ doubts }),
    takesAway: { ...NOTHING, doubts },
    findingIds: findings.map((f) => f.id),
    stage: null,
    deviceId: places.at(deviceId),
    far: places.isFar(deviceId),
    seconds: TYPICAL_SECONDS.look,
    cautions: [],
    after: [],
    relieves: BURDEN.doubt * Math.max(1, doubts),
  };
  return { draft, after: outcomeOf(done.rig) };
}

/** The change that takes most away for its time, of all that are known; more are sought where none takes any. */
function mended(
  at: Outcome,
  wrong: ReadonlyMap<string, Finding>,
  pool: Map<string, Candidate>,
  sought: Map<string, unknown>,
  settled: ReadonlySet<string>,
  places: Places,
): Taken | null {
  const sound = [...wrong.values()].filter((f) => f.stage !== 'sync');
  const route = sound.filter((f) => f.stage === 'route');
  const others = sound.filter((f) => f.stage !== 'route').slice(0, MAX_SOUGHT);
  const moments = [...new Set(route.map((f) => f.momentId))];
  // What makes the whole plan so weighs side effects; the fixes of a single issue know only that one.
  const idsAt = (m: string | null): string => route.flatMap((f) => (f.momentId === m ? [f.id] : [])).join(' ');
  const missing = route.filter((f) => f.rule === MISSING_RULE);
  const tiers: readonly (readonly Source[])[] = [
    [
      ...others.map((f): Source => ({ key: f.id, of: at.rig.cables, seek: () => fixRemedies(at.rig, f) })),
      ...moments.map((m): Source => ({ key: `routing ${m}`, of: idsAt(m), seek: () => routingRemedies(at.rig, m) })),
    ],
    route
      .slice(0, MAX_SOUGHT)
      .map((f): Source => ({ key: f.id, of: at.rig.cables, seek: () => fixRemedies(at.rig, f) })),
    [...new Set(missing.map((f) => f.momentId))].map(
      (m): Source => ({ key: `bridge ${m}`, of: idsAt(m), seek: () => bridgeRemedies(at.rig, m) }),
    ),
  ];
  for (const tier of tiers) {
    for (const again of [false, true]) {
      for (const { key, of, seek } of tier) {
        // What was sought before is sought again only where what it rests on has changed.
        if (again ? sought.get(key) === of : sought.has(key)) continue;
        sought.set(key, of);
        for (const remedy of seek()) enter(at, wrong, pool, remedy, remedy.partly ? key : null);
      }
      const taken = best(at, wrong, pool, settled, places);
      if (taken) return taken;
    }
  }
  return null;
}

/** Where remedies come from: what it is called, what it rests on, and the search itself. */
interface Source {
  readonly key: string;
  readonly of: unknown;
  readonly seek: () => readonly Remedy[];
}

function enter(
  at: Outcome,
  wrong: ReadonlyMap<string, Finding>,
  pool: Map<string, Candidate>,
  remedy: Remedy,
  forIssue: string | null,
): void {
  const candidate: Candidate = {
    remedy,
    forIssue,
    seconds: secondsFor(at.rig, remedy.changes, remedy.first),
    gain: Number.POSITIVE_INFINITY,
    gone: new Set(),
  };
  tryOut(at, wrong, candidate);
  pool.set(remedy.key, candidate);
}

/** Tries a remedy on the rig as it is: what goes, and by how much the burden is less, with what is worse for anyone. */
function tryOut(at: Outcome, wrong: ReadonlyMap<string, Finding>, candidate: Candidate): Outcome | null {
  const after = carriedOut(at.rig, candidate.remedy);
  const left = after ? wrongIn(after) : wrong;
  const gone = new Set([...wrong.keys()].filter((id) => !left.has(id)));
  const part = candidate.forIssue === null || !after || after.rig === at.rig ? undefined : left.get(candidate.forIssue);
  if (part) gone.add(part.id);
  const spoils = after ? totalOf(priceOfOutcome(at.rig, evaluationAt(at.rig, null), evaluationAt(after.rig, null))) : 0;
  candidate.gone = gone;
  candidate.gain =
    burdenOf(wrong.values()) -
    burdenOf(left.values()) +
    (part ? LEFT_OF_PART * BURDEN[part.severity] : 0) -
    BURDEN_OF_A_POINT * spoils;
  return after;
}

/** Lazy greedy (Minoux 1978): what was found of a remedy before bounds what it does now, so few are tried again. */
function best(
  at: Outcome,
  wrong: ReadonlyMap<string, Finding>,
  pool: Map<string, Candidate>,
  settled: ReadonlySet<string>,
  places: Places,
): Taken | null {
  const rate = (c: Candidate): number => {
    // What a step before has set is not undone.
    if (touchedBy({ do: 'change', ...c.remedy }).some((key) => settled.has(key))) return 0;
    const still = [...c.gone].flatMap((id) => wrong.get(id) ?? []);
    return Math.min(c.gain, burdenOf(still)) / c.seconds;
  };
  const tried = new Map<Candidate, Outcome | null>();
  for (;;) {
    const [first] = [...pool.values()].filter((c) => rate(c) > 0).sort((a, b) => rate(b) - rate(a));
    if (!first) return null;
    const after = tried.get(first);
    if (after) return { draft: draftOf(at, after, wrong, first, places), after };
    tried.set(first, tryOut(at, wrong, first));
  }
}

function draftOf(
  at: Outcome,
  after: Outcome,
  wrong: ReadonlyMap<string, Finding>,
  { remedy, seconds, gone, gain }: Pick<Candidate, 'remedy' | 'seconds' | 'gone' | 'gain'>,
  places: Places,
): Draft {
  const { key, label: _, partly: __, ...carried } = remedy;
  const cleared = [...gone].flatMap((id) => wrong.get(id) ?? []);
  const [worst] = [...cleared].sort((a, b) => BURDEN[b.severity] - BURDEN[a.severity]);
  const deviceId = placeOfChanges(at.rig, remedy, places);
  return {
    id: `change:${key}`,
    act: { do: 'change', ...carried },
    says: sayRemedy(at.rig, remedy),
    why: worst?.says ?? '',
    takesAway: {
      blockers: cleared.filter((f) => f.severity === 'stop').length,
      fixes: cleared.filter((f) => f.severity === 'fix').length,
      doubts: 0,
    },
    findingIds: cleared.map((f) => f.id),
    stage: worst?.stage ?? null,
    deviceId,
    far: deviceId !== null && places.isFar(deviceId),
    seconds,
    cautions: cautionsFor(at.rig, after.rig, carried),
    after: [],
    relieves: Math.max(1, gain),
  };
}

/** Where most of it is done: at the device that is set, or that the cable goes into. */
function placeOfChanges(rig: Rig, { changes }: Remedy, places: Places): string | null {
  const count = new Map<string, number>();
  for (const change of changes) {
    const at =
      'settingId' in change
        ? change.deviceId
        : (change.cable ?? rig.cables.find((c) => c.id === change.cableId))?.to.deviceId;
    if (at === undefined || !rig.devices.some((d) => d.id === at)) continue;
    count.set(places.at(at), (count.get(places.at(at)) ?? 0) + 1);
  }
  return [...count].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null;
}

/** All delays at once, once every sound takes the way that it is to take. */
function aligned(
  at: Outcome,
  wrong: ReadonlyMap<string, Finding>,
  solve: SolveProgram | null,
  places: Places,
): Taken | null {
  if (!solve || ![...wrong.values()].some((f) => f.stage === 'sync')) return null;
  for (const remedy of delayRemedies(at.rig, solve)) {
    const candidate: Candidate = {
      remedy,
      forIssue: null,
      seconds: secondsFor(at.rig, remedy.changes),
      gain: 0,
      gone: new Set(),
    };
    const after = tryOut(at, wrong, candidate);
    // What arrives together then may be heard twice: that is mended next.
    if (!after || candidate.gone.size === 0) continue;
    const draft = draftOf(at, after, wrong, candidate, places);
    return { draft: { ...draft, why: say.delaysWhy({ count: candidate.gone.size }) }, after };
  }
  return null;
}

/** What nothing known mends: someone decides. In the plan it is accepted. */
function decided(at: Outcome, findings: readonly Finding[], places: Places): Taken | null {
  const [finding] = findings;
  if (!finding) return null;
  const dismissal = { id: finding.id, reason: '-', at: '2000-01-01T00:00:00Z' };
  const done = applyEdit(at.rig, { kind: 'dismiss', dismissal });
  if (!done.ok) return null;
  const [deviceId] = finding.where.deviceIds;
  const place = deviceId === undefined ? null : places.at(deviceId);
  const draft: Draft = {
    id: `decide:${finding.id}`,
    act: { do: 'decide', findingId: finding.id },
    stage: finding.stage,
    says: say.decide({ says: finding.says }),
    why: say.decideWhy(),
    takesAway: {
      blockers: finding.severity === 'stop' ? 1 : 0,
      fixes: finding.severity === 'fix' ? 1 : 0,
      doubts: 0,
    },
    findingIds: [finding.id],
    deviceId: place,
    far: false,
    seconds: TYPICAL_SECONDS.decide,
    cautions: [],
    after: [],
    relieves: BURDEN[finding.severity],
  };
  return { draft, after: outcomeOf(done.rig) };
}
