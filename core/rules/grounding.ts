import { memoized } from '#core/base/memo/index.ts';
import type { Said, Text } from '#core/base/said/index.ts';
import { connectorOf } from '#core/model/plug/index.ts';
import { type Edit, isTransformer, runsOnBattery } from '#core/model/rig/index.ts';
import type { Box } from './box.ts';
import type { Context, Fix, Rule } from './finding.ts';
import { rule } from './finding.ts';
import { leadRule } from './lead-rule.ts';
import { isBalanced, type LeadSeen, onLead, sayLead } from './leads.ts';
import { say } from './sayings.ts';

/*
 * Hum: nodes are chassis and the ground of the house; edges are AC power ground leads (class I only) and every metal screen.
 * A cycle is a finding only where it holds an unbalanced analog lead. What mends it is an isolator, a balanced lead
 * or the battery; never a lifted AC power ground.
 */

const EARTH = 'mains-earth';
const UNBALANCED_SOURCE = {
  says: say.currentsBetweenGroundsFlow(),
  source: say.unbalancedLines(),
};

interface Joint {
  readonly a: string;
  readonly b: string;
  readonly lead: LeadSeen | null;
}

const isAnalogue = ({ from, to }: LeadSeen): boolean =>
  ['microphone', 'line', 'headphone'].includes(from.port.level) &&
  ['microphone', 'line', 'headphone'].includes(to.port.level);
const family = ({ port }: LeadSeen['from']) => connectorOf(port.connector)?.kind;

/** Whether the cable's screen joins the two devices: metal at both ends, and no transformer, light or bare network between. */
function joinsScreens(lead: LeadSeen): boolean {
  if (lead.from.port.isolated || lead.to.port.isolated) return false;
  const kinds = [family(lead.from), family(lead.to)];
  return (
    !kinds.includes('optical') && !kinds.includes('network') && !kinds.includes('loudspeaker') && kinds.some(Boolean)
  );
}

/** On the AC power by a plug with an ground, as it stands now. */
function isEarthed({ device, type }: Box): boolean {
  return type.power?.earthed === true && !runsOnBattery(device, type);
}

function jointsOf({ plugged, boxes }: Context): Joint[] {
  const screens = plugged
    .filter(joinsScreens)
    .map((lead): Joint => ({ a: lead.from.device.id, b: lead.to.device.id, lead }));
  const earths = boxes.filter(isEarthed).map(({ device }): Joint => ({ a: device.id, b: EARTH, lead: null }));
  return [...screens, ...earths];
}

/** One ring of metal that an unbalanced lead closes. */
interface HumLoop {
  /** The cable that closes it, and where it is broken best. */
  readonly lead: LeadSeen;
  /** From box to box, by the ground of the house where that is on it. */
  readonly way: readonly string[];
  /** Every unbalanced lead on it, this one first. */
  readonly leads: readonly LeadSeen[];
  /** Nothing but two sound leads side by side. */
  readonly beside: boolean;
}

const hums = (joint: Joint): joint is Joint & { readonly lead: LeadSeen } =>
  joint.lead !== null && isAnalogue(joint.lead) && !isBalanced(joint.lead);

/** Order of edges: safety ground, then links that carry no hum, then unbalanced cables; of those, ones that take an isolator last. */
const rankOf = (joint: Joint): number => {
  if (joint.lead === null) return 0;
  if (!hums(joint)) return 1;
  return mayIsolate(joint.lead) ? 3 : 2;
};

/**
 * As many independent rings as joints less devices and more parts (the cycle rank), each by the joint that closes it: a
 * spanning forest (Kruskal 1956) takes the others first. Only ground loops that an unbalanced cable closes are reported.
 */
function ringsOf(joints: readonly Joint[]): HumLoop[] {
  const part = new Map<string, string>();
  const root = (id: string): string => {
    let at = id;
    for (let up = part.get(at) ?? at; up !== at; up = part.get(at) ?? at) at = up;
    return at;
  };
  const tree = new Map<string, Step[]>();
  const grow = (from: string, to: string, joint: Joint) => {
    const list = tree.get(from);
    if (list) list.push({ to, joint });
    else tree.set(from, [{ to, joint }]);
  };
  const closing: (Joint & { readonly lead: LeadSeen })[] = [];
  for (const joint of [...joints].sort((x, y) => rankOf(x) - rankOf(y))) {
    const { a, b } = joint;
    const [rootA, rootB] = [root(a), root(b)];
    if (rootA !== rootB) {
      part.set(rootB, rootA);
      grow(a, b, joint);
      grow(b, a, joint);
    } else if (a !== b && hums(joint)) closing.push(joint);
  }
  const up = rooted(tree);
  return closing.map((joint) => {
    const steps = wayInTree(up, joint.a, joint.b);
    const only = steps.length === 1 ? steps[0]!.joint.lead : null;
    return {
      lead: joint.lead,
      way: [joint.a, ...steps.map((s) => s.to)],
      leads: [joint.lead, ...steps.flatMap((s) => (hums(s.joint) ? [s.joint.lead] : []))],
      beside: only !== null && isAnalogue(only),
    };
  });
}

interface Step {
  readonly to: string;
  readonly joint: Joint;
}

/** The next box toward the root of its tree, by which joint, and how deep it stands. */
interface Up {
  readonly to: string | null;
  readonly joint: Joint | null;
  readonly depth: number;
}

/** Every tree of a forest hung up at one of its devices. */
function rooted(tree: ReadonlyMap<string, readonly Step[]>): ReadonlyMap<string, Up> {
  const up = new Map<string, Up>();
  for (const top of tree.keys()) {
    if (up.has(top)) continue;
    up.set(top, { to: null, joint: null, depth: 0 });
    const open = [top];
    for (let at = open.pop(); at !== undefined; at = open.pop())
      for (const { to, joint } of tree.get(at)!) {
        if (up.has(to)) continue;
        up.set(to, { to: at, joint, depth: up.get(at)!.depth + 1 });
        open.push(to);
      }
  }
  return up;
}

/** The one way from a device to another of its tree: up from both until they meet. */
function wayInTree(up: ReadonlyMap<string, Up>, from: string, to: string): Step[] {
  const [forth, back]: [Step[], Step[]] = [[], []];
  let [a, b] = [from, to];
  while (a !== b) {
    const [x, y] = [up.get(a)!, up.get(b)!];
    if (x.depth >= y.depth) {
      forth.push({ to: x.to!, joint: x.joint! });
      a = x.to!;
    } else {
      back.push({ to: b, joint: y.joint! });
      b = y.to!;
    }
  }
  return [...forth, ...back.reverse()];
}

/** Every independent ground loop that an unbalanced cable closes. */
const humLoops = memoized((context: Context): HumLoop[] => ringsOf(jointsOf(context)));

/** A transformer may go into a line; not into phantom or plug-in power, headphones, speakers or four contacts. */
const mayIsolate = ({ from, to }: LeadSeen): boolean =>
  from.port.level !== 'microphone' &&
  to.port.level === 'line' &&
  !from.port.takes &&
  !to.port.gives &&
  from.port.connector !== 'plug-35-trrs' &&
  (from.port.connector !== 'jack-35-trrs' || to.port.connector !== 'jack-35-trrs');

const ISOLATOR = 'isolator-line';

/** An isolator in the cable: a device of its own with a short lead on either side. */
function isolate({ rig }: Context, { cable, from, to }: LeadSeen): Fix[] {
  const id = free(rig.devices, `${cable.id}-isolator`);
  const half = (end: string, more: Partial<typeof cable>): typeof cable => ({
    ...cable,
    id: free(rig.cables, `${cable.id}-${end}`),
    known: 'assumed',
    ...more,
  });
  const first: Edit = {
    kind: 'add-device',
    device: { id, typeId: ISOLATOR, name: `Isolator before ${to.device.name}`.slice(0, 120), settings: {} },
  };
  const halves = [
    half('in', { to: { deviceId: id, portId: 'in' } }),
    half('out', { from: { deviceId: id, portId: 'out' }, lengthM: 0.5 }),
  ];
  return [
    {
      label: say.isolate({ device: from.device.name, device2: to.device.name }),
      first,
      changes: [{ cableId: cable.id, cable: null }, ...halves.map((h) => ({ cableId: h.id, cable: h }))],
      edit: {
        kind: 'batch',
        edits: [first, { kind: 'unplug', cableId: cable.id }, ...halves.map((h): Edit => ({ kind: 'plug', cable: h }))],
      },
    },
  ];
}

const free = (list: readonly { readonly id: string }[], wanted: string): string => {
  const short = wanted.slice(0, 58);
  let id = short;
  for (let n = 2; list.some((e) => e.id === id); n++) id = `${short}-${n}`;
  return id;
};

/** Devices on a way that can run from their battery instead of the AC power: that opens the ring at the ground, if it is not closed elsewhere too. */
const onBattery = (context: Context, { lead, way }: HumLoop): Fix[] => {
  const joints = jointsOf(context);
  const opens = (id: string): boolean =>
    !ringsOf(joints.filter((j) => !(j.a === id && j.b === EARTH))).some((ring) => ring.lead === lead);
  return way
    .filter((id) => id !== EARTH)
    .map(context.box)
    .filter((b) => isEarthed(b) && b.type.power?.supply && opens(b.device.id))
    .map((b) => ({
      label: say.onBattery({ device: b.device.name }),
      changes: [{ deviceId: b.device.id, settingId: b.type.power!.supply!, value: 'battery' }],
      edit: {
        kind: 'set-setting' as const,
        deviceId: b.device.id,
        settingId: b.type.power!.supply!,
        setting: { value: 'battery', known: 'assumed' as const },
      },
    }));
};

const sayWay = ({ box }: Context, way: readonly string[]): Text[] =>
  way.map((id) => (id === EARTH ? say.houseGround() : box(id).device.name));

const sayRing = (context: Context, lead: LeadSeen, way: readonly string[]): Said =>
  say.groundLoop({
    lead: sayLead(lead),
    way: sayWay(context, way),
    it: mayIsolate(lead) ? say.putLineIsolatorIn() : say.usingBalancedCableOr(),
  });
const sayBeside = (lead: LeadSeen): Said => say.cablesInParallel({ lead: sayLead(lead) });

export const groundingRules: readonly Rule[] = [
  rule(
    'wire',
    'ground-hum-loop',
    (context) =>
      humLoops(context).map(({ lead, way, leads, beside }) => ({
        at: lead.cable.id,
        severity: beside ? ('watch' as const) : ('fix' as const),
        where: { cableIds: leads.map((l) => l.cable.id), deviceIds: way.filter((id) => id !== EARTH) },
        says: beside ? sayBeside(lead) : sayRing(context, lead, way),
        asks:
          lead.cable.known === 'assumed' ? say.isThereCable({ lead: sayLead(lead), port: lead.to.port.name }) : null,
        why: [
          UNBALANCED_SOURCE,
          { says: say.loop({ way: sayWay(context, way) }), source: say.shieldsAndPowerGrounds() },
        ],
      })),
    (context, { where }) => {
      const loop = humLoops(context).find(({ lead }) => lead.cable.id === where.cableIds[0]);
      if (!loop) return [];
      return [...(mayIsolate(loop.lead) ? isolate(context, loop.lead) : []), ...onBattery(context, loop)];
    },
  ),
  leadRule('ground-isolator-misplaced', (lead) => {
    const { from, to } = lead;
    const before = isTransformer(to.type) && (from.port.level === 'microphone' || from.port.takes !== undefined);
    const behind = isTransformer(from.type) && ['headphone', 'speaker', 'microphone'].includes(to.port.level);
    if (!before && !behind) return null;
    return {
      severity: 'fix',
      asks: null,
      says: say.isolatorMisplaced({ lead: sayLead(lead) }),
      why: [{ says: say.transformerPassesNoDirect(), source: say.lineIsolators() }],
    };
  }),
  leadRule('ground-leakage', (lead) => {
    if (!isAnalogue(lead) || isBalanced(lead) || !joinsScreens(lead) || lead.to.port.level !== 'microphone')
      return null;
    const feeds = [lead.from.type.power, lead.to.type.power];
    if (!feeds.some((p) => p?.by[0] === 'mains' && !p.earthed) || !feeds.every((p) => p?.by[0] === 'mains'))
      return null;
    return {
      severity: 'watch',
      asks: null,
      says: say.leakage({ lead: sayLead(lead) }),
      why: [
        {
          says: say.filterCapacitorsClassIi(),
          source: say.classIiSupplies(),
        },
      ],
    };
  }),
  rule('wire', 'ground-two-strips', (context) =>
    humLoops(context).flatMap(({ lead, beside }) => {
      const [a, b] = [context.box(lead.from.device.id).device.fedBy, context.box(lead.to.device.id).device.fedBy];
      if (beside || !a || !b || a === b) return [];
      return [
        {
          at: lead.cable.id,
          severity: 'watch' as const,
          where: { ...onLead(lead), deviceIds: [lead.from.device.id, lead.to.device.id, a, b] },
          says: say.twoStrips({ device: lead.from.device.name, device2: lead.to.device.name }),
          why: [{ says: say.longerGroundBetweenTwo(), source: say.ruleThumb() }],
        },
      ];
    }),
  ),
];
