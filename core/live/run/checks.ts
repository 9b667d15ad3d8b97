import { quoted, type Said, type Text, textOf } from '#core/base/said/index.ts';
import {
  deviceIn,
  endName,
  findTypes,
  isCall,
  isProgram,
  type PortRef,
  type Rig,
  sourceIn,
} from '#core/model/rig/index.ts';
import { check, type Finding } from '#core/rules/index.ts';
import { deviceName, type Evaluation, evaluate, rolesOf } from '#core/signal/index.ts';
import type { Budget } from './budgets.ts';
import { say } from './sayings.ts';
import type { Ticks } from './session.ts';

type CheckKind = 'seen' | 'meter' | 'hears' | 'silent' | 'call' | 'take' | 'budget' | 'finding';

/** Something to be found well before one begins. */
export interface DayCheck {
  readonly id: string;
  readonly kind: CheckKind;
  readonly says: Said;
  readonly why: Text;
  /** Where one looks; null where it is no one place. */
  readonly tap: PortRef | null;
  /** Without it one does not begin. */
  readonly must: boolean;
}

/** Devices with meters. */

/** Checks before a session, in signal order. */
export function checksOf(
  rig: Rig,
  budgets: readonly Budget[],
  evaluation: Evaluation = evaluate(rig),
  findings: readonly Finding[] = check(rig, evaluation),
): DayCheck[] {
  return [
    ...seen(rig),
    ...meters(rig, evaluation),
    ...hearing(rig, evaluation),
    ...calls(rig),
    ...takes(rig),
    ...budgets
      .filter((b) => b.kind === 'battery' || b.kind === 'disk' || b.kind === 'upstream')
      .map(
        (b): DayCheck => ({
          id: `budget:${b.id}`,
          kind: 'budget',
          says: say.resource({ name: b.name, says: b.says }),
          why: say.reasons({ reasons: b.why.map((w) => w.says) }),
          tap: null,
          must: b.state === 'fix',
        }),
      ),
    ...drawn(findings.filter((f) => !f.dismissed)),
  ];
}

/** One check for each blocker; one for all other issues. */
function drawn(findings: readonly Finding[]): DayCheck[] {
  const fixes = findings.filter((f) => f.severity === 'fix');
  return [
    ...findings
      .filter((f) => f.severity === 'stop')
      .map(
        (f): DayCheck => ({
          id: `finding:${f.id}`,
          kind: 'finding',
          says: say.fixedIssue({ says: f.says }),
          why: say.reasons({ reasons: f.why.map((w) => say.reasonFrom({ says: w.says, source: w.source })) }),
          tap: null,
          must: true,
        }),
      ),
    ...(fixes.length > 0
      ? [
          {
            id: 'findings',
            kind: 'finding' as const,
            says: say.issuesLeft({ fixes: fixes.length }),
            why: fixes[0]!.says,
            tap: null,
            must: false,
          },
        ]
      : []),
  ];
}

/** Every program sees what it takes. */
function seen(rig: Rig): DayCheck[] {
  const types = findTypes(rig);
  const isProgramAt = (id: string) => isProgram(types.get(deviceIn(rig, id).typeId)!);
  return rig.cables
    .filter((c) => c.medium === 'software' && isProgramAt(c.to.deviceId) && !isProgramAt(c.from.deviceId))
    .map(
      (c): DayCheck => ({
        id: `seen:${c.id}`,
        kind: 'seen',
        says: say.isSelected({
          deviceId: deviceName(rig, c.to.deviceId),
          to: endName(rig, types, c.to),
          from: endName(rig, types, c.from),
        }),
        why: say.appOftenDoesntSee(),
        tap: c.to,
        must: true,
      }),
    );
}

/** Of each source that anyone must hear: the first meter on its way moves. */
function meters(rig: Rig, { pairs, graph }: Evaluation): DayCheck[] {
  const types = findTypes(rig);
  return rig.sources.flatMap((source): DayCheck[] => {
    const wanted = pairs.filter((p) => p.sourceId === source.id && p.want === 'must' && p.ways.length > 0);
    const nodes = wanted.flatMap((p) => {
      const way: number[] = [];
      for (let at: (typeof p.ways)[number]['arrival'] | null = p.ways[0]!.arrival; at; at = at.from)
        way.unshift(at.node);
      return [way.map((n) => graph.nodes[n]!)];
    });
    const first = nodes[0]?.find((n) => types.get(deviceIn(rig, n.deviceId).typeId)!.shows?.levels === 'on-it');
    if (!first) return [];
    return [
      {
        id: `meter:${source.id}`,
        kind: 'meter',
        says: say.meterMoves({
          source: source.name,
          deviceId: deviceName(rig, first.deviceId),
          first: endName(rig, types, first),
        }),
        why: say.neededBy({ wanted: wanted.length }),
        tap: { deviceId: first.deviceId, portId: first.portId },
        must: true,
      },
    ];
  });
}

function hearing(rig: Rig, { pairs }: Evaluation): DayCheck[] {
  const roles = rolesOf(rig);
  const name = (id: string) => sourceIn(rig, id).name;
  return rig.listeners.flatMap((listener): DayCheck[] => {
    const own = pairs.filter((p) => p.listenerId === listener.id);
    const must = own.filter((p) => p.want === 'must').map((p) => name(p.sourceId));
    const not = own.filter((p) => p.want === 'must-not').map((p) => name(p.sourceId));
    const far = roles.listener(listener) === 'far-ears';
    return [
      ...(must.length > 0
        ? [
            {
              id: `hears:${listener.id}`,
              kind: 'hears' as const,
              says: (far ? say.confirmsHearing : say.allHeard)({ listener: listener.name, sources: must.map(quoted) }),
              why: say.checkOneAtTime(),
              tap: listener.sound,
              must: true,
            },
          ]
        : []),
      ...(not.length > 0
        ? [
            {
              id: `silent:${listener.id}`,
              kind: 'silent' as const,
              says: say.mustNotHear({ listener: listener.name, join: not.map(quoted) }),
              why: say.hearingYourselfLateMakes(),
              tap: listener.sound,
              must: true,
            },
          ]
        : []),
    ];
  });
}

function calls(rig: Rig): DayCheck[] {
  const types = findTypes(rig);
  return rig.devices
    .filter((d) => isCall(types.get(d.typeId)!))
    .map(
      (d): DayCheck => ({
        id: `call:${d.id}`,
        kind: 'call',
        says: say.testCall({ d: d.name }),
        why: say.onlyFarSideHears(),
        tap: null,
        must: true,
      }),
    );
}

/** A short take of what goes out, held against the plan. */
function takes(rig: Rig): DayCheck[] {
  const roles = rolesOf(rig);
  const mixes = rig.listeners.filter((l) => roles.listener(l) === 'mix');
  return mixes.map(
    (l): DayCheck => ({
      id: `take:${l.id}`,
      kind: 'take',
      says: say.thirtySeconds({ l: l.name }),
      why: say.whatYouHearAt(),
      tap: l.sound,
      must: false,
    }),
  );
}

/** Whether one can begin. */
export interface Readiness {
  readonly go: boolean;
  /** Found and not well. */
  readonly amiss: readonly DayCheck[];
  /** No one has looked yet, and it has to be. */
  readonly open: readonly DayCheck[];
  readonly leftOut: readonly DayCheck[];
  readonly done: number;
}

/** Go, or no go with what is open: everything that has to be was found well, or left out with a reason. */
export function readinessOf(checks: readonly DayCheck[], ticks: Ticks): Readiness {
  const of = (test: (c: DayCheck) => boolean) => checks.filter(test);
  const amiss = of((c) => ticks[c.id]?.amiss === true);
  const openChecks = of((c) => c.must && !ticks[c.id]);
  return {
    go: amiss.length === 0 && openChecks.length === 0,
    amiss,
    open: openChecks,
    leftOut: of((c) => ticks[c.id]?.leftOut !== undefined),
    done: of((c) => ticks[c.id] !== undefined).length,
  };
}

/** Checks that a figure measured since then answers: takes of a listener that the rig has figures of. */
export function answeredBy(rig: Rig, checks: readonly DayCheck[], since: string): ReadonlyMap<string, string> {
  const answers = new Map<string, string>();
  for (const m of rig.measurements) {
    if (m.takenAt < since || !('listenerId' in m)) continue;
    const found = checks.find((c) => c.id === `take:${m.listenerId}`);
    if (found) answers.set(found.id, textOf(say.measuredBy({ m: m.label })));
  }
  return answers;
}
