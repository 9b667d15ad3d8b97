import type { Text } from '#core/base/said/index.ts';
import { modeName } from '#core/model/picture/index.ts';
import { endsThat, isCall, isPerson, isWorn } from '#core/model/rig/index.ts';
import { rolesOf } from '#core/signal/index.ts';
import type { Box } from './box.ts';
import { type Context, type Draft, type Fix, type Rule, rule, setFix } from './finding.ts';
import { chainOf, type LeadSeen, onLead, sayLead } from './leads.ts';
import { modeOf } from './picture-runs.ts';
import { say } from './sayings.ts';

/** A microphone this near a mouth, or earphones, go where the person goes. */
const WORN_M = 1;
const CAREFUL_SLACK_M = 1;

/** Cables that tie someone who sits away from the desk: of the microphone before them, of their headphones. */
function tyingLeads({ rig, plugged, box }: Context): LeadSeen[] {
  const near = new Set(
    rig.cables
      .filter((c) => c.medium === 'air' && c.lengthM <= WORN_M && isPerson(box(c.from.deviceId).type))
      .map((c) => c.to.deviceId),
  );
  return plugged.filter(
    ({ from, to }) =>
      (near.has(from.device.id) && ['microphone', 'line'].includes(from.port.level) && !from.type.hosts) ||
      isWorn(to.type),
  );
}

const longer = ({ cable }: LeadSeen, lengthM: number, label: Text): Fix => ({
  label,
  changes: [{ cableId: cable.id, cable: { ...cable, lengthM } }],
  edit: {
    kind: 'batch',
    edits: [
      { kind: 'unplug', cableId: cable.id },
      { kind: 'plug', cable: { ...cable, lengthM } },
    ],
  },
});

/** The sockets that choose a picture mode, where a picture of a source leaves. */
const sourcePictures = ({ rig, pictures }: Context) =>
  pictures.filter((run) =>
    rig.sources.some((s) => s.picture?.deviceId === run.from.device.id && s.picture.portId === run.port.id),
  );

const priced = ({ type }: Box): readonly [number, number] => type.priceEur ?? [0, 0];

/** What has to be bought: devices that are marked as such, and cables that no one has confirmed. */
function toBuy({ boxes, plugged }: Context): { names: Text[]; low: number; high: number } {
  const names = boxes.filter((b) => b.device.toGet).map((b) => b.device.name);
  const leads = plugged.filter((l) => l.cable.known === 'assumed');
  const parts = leads.flatMap((l) => {
    const chain = chainOf(l);
    return chain && chain !== 'nothing-to-plug' ? chain.parts : [];
  });
  const prices = [...boxes.filter((b) => b.device.toGet).map(priced), ...parts.map((p) => p.price)];
  const sum = (side: 0 | 1) => prices.reduce((all, p) => all + p[side], 0);
  return {
    names: [...names, ...(parts.length > 0 ? [say.cablesAndAdapters({ parts: parts.length })] : [])],
    low: sum(0),
    high: sum(1),
  };
}

/** What the session needs, against what the rig has. */
export const briefRules: readonly Rule[] = [
  rule(
    'wire',
    'brief-picture',
    (context) => {
      const wanted = context.rig.session.pictureMode;
      const mode = wanted && modeOf(wanted.replace('@', '-'));
      if (!mode) return [];
      return sourcePictures(context).flatMap((run): Draft[] => {
        const hz = (m: typeof mode) => m.rate.num / m.rate.den;
        const short = run.mode.width * run.mode.height < mode.width * mode.height || hz(run.mode) < hz(mode) - 0.1;
        if (!short) return [];
        return [
          {
            at: `${run.from.device.id}/${run.port.id}`,
            severity: 'fix',
            where: { deviceIds: [run.from.device.id] },
            rests: { box: run.from, seen: run.setting },
            says: say.sendsSessionNeedsChange({
              device: run.from.device.name,
              mode: modeName(run.mode),
              mode2: modeName(mode),
            }),
            why: [{ says: say.requiredVideo({ mode: modeName(mode) }), source: say.sessionInPlan() }],
          },
        ];
      });
    },
    (context, { where }) => {
      const { setting } = where;
      const wanted = context.rig.session.pictureMode?.replace('@', '-');
      const box = setting && context.box(setting.deviceId);
      const spec = setting && box?.setting(setting.settingId)?.spec;
      if (!box || !wanted || spec?.kind !== 'switch' || !spec.options.some((o) => o.value === wanted)) return [];
      return setFix(box, setting!.settingId, wanted);
    },
  ),
  rule('wire', 'brief-budget', (context) => {
    const { budgetEur } = context.rig.session;
    if (budgetEur === undefined) return [];
    const { names, low, high } = toBuy(context);
    if (high <= budgetEur) return [];
    const over = low > budgetEur;
    return [
      {
        at: 'all',
        severity: over ? 'fix' : 'watch',
        says: say.overBudget({ n0: low.toFixed(0), n02: high.toFixed(0), budgetEur, join: names.join(', ') }),
        why: [{ says: say.typicalPricesSuchDevices(), source: say.deviceLibraryTypical() }],
      },
    ];
  }),
  rule(
    'wire',
    'brief-distance',
    (context) => {
      const { distanceM } = context.rig.session;
      if (distanceM === undefined) return [];
      return tyingLeads(context)
        .filter((l) => l.cable.lengthM < distanceM)
        .map((lead) => ({
          at: lead.cable.id,
          severity: 'watch' as const,
          where: onLead(lead),
          says: say.cableTooShort({ lead: sayLead(lead), lengthM: lead.cable.lengthM, distanceM }),
          asks:
            lead.cable.known === 'assumed' ? say.howLongIs({ lead: sayLead(lead), lengthM: lead.cable.lengthM }) : null,
          why: [{ says: say.mFromDesk({ distanceM }), source: say.sessionInPlan() }],
        }));
    },
    ({ rig, plugged }, { where }) => {
      const lead = plugged.find((l) => l.cable.id === where.cableIds[0]);
      const { distanceM } = rig.session;
      if (!lead || distanceM === undefined) return [];
      const lengthM = Math.ceil(distanceM) + CAREFUL_SLACK_M;
      return [longer(lead, lengthM, say.newLength({ lengthM, lead: sayLead(lead) }))];
    },
  ),
  rule('wire', 'brief-moves', ({ rig, box, evaluation }) => {
    if (!rig.session.movesAbout) return [];
    const roles = rolesOf(rig);
    const here = rig.sources.filter((s) => ['voice', 'second-voice'].includes(roles.source(s)));
    // Where someone is marked as walking, it is they; else it may be anyone.
    const walking = here.filter((s) => box(s.sound.deviceId).device.moves);
    return (walking.length > 0 ? walking : here).flatMap((source): Draft[] => {
      const heard = new Set(
        evaluation.pairs.filter((p) => p.sourceId === source.id).flatMap((p) => p.ways.flatMap((w) => w.deviceIds)),
      );
      const ears = rig.cables
        .filter((c) => c.medium === 'air' && c.from.deviceId === source.sound.deviceId && heard.has(c.to.deviceId))
        .sort((a, b) => a.lengthM - b.lengthM);
      const [first] = ears;
      if (!first) return [];
      const microphone = box(first.to.deviceId).device;
      if (microphone.moves) return [];
      return [
        {
          at: `${source.id}/${microphone.id}`,
          severity: 'watch',
          where: { deviceIds: [microphone.id], cableIds: [first.id], sourceId: source.id },
          says: say.presenterMoves({ source: source.name, microphone: microphone.name }),
          why: [
            { says: say.mAwayAsDrawn({ lengthM: first.lengthM }), source: 'distance' },
            { says: say.presenterMoves2(), source: say.sessionInPlan() },
          ],
        },
      ];
    });
  }),
  rule('route', 'brief-two-way', ({ rig, boxes, evaluation }) => {
    if (!rig.session.twoWay) return [];
    const outside = boxes
      .filter((b) => isCall(b.type) || endsThat(b.type, 'on-air').length > 0)
      .map((b) => b.device.id);
    const roles = rolesOf(rig);
    const isOutside = (role: string) => role.startsWith('far') || role.startsWith('radio');
    const away = new Set(rig.sources.filter((s) => isOutside(roles.source(s))).map((s) => s.id));
    const here = new Set(rig.listeners.filter((l) => !isOutside(roles.listener(l))).map((l) => l.id));
    if (evaluation.pairs.some((p) => p.ways.length > 0 && away.has(p.sourceId) && here.has(p.listenerId))) return [];
    return [
      {
        at: 'all',
        severity: 'fix',
        where: { deviceIds: outside },
        says: outside.length === 0 ? say.noCall() : say.nothingFromCall(),
        why: [{ says: 'two-way', source: say.sessionInPlan() }],
      },
    ];
  }),
];
