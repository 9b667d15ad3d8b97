import { listOf } from '#core/base/said/index.ts';
import { leadsTo } from '#core/base/search/index.ts';
import { endsThat, films, type Rig, settingOf } from '#core/model/rig/index.ts';
import { say } from './sayings.ts';
import { type DayBox, type DayLead, type DayScene, dayScene, phantomOf, volumesOf } from './scene.ts';
import { type Draft, ids, inOrder, names, quietOf, type Step, socket } from './step.ts';

/** For a first time; for a desk that is plugged already; or only what differs from how it last was good. */
export type Occasion =
  | { readonly kind: 'first' }
  | { readonly kind: 'standing' }
  | { readonly kind: 'since'; readonly last: Rig };

const inPicture = (lead: DayLead): boolean => lead.carriesPicture;
const LONG_FLOOR_M = 3;

/**
 * What to plug and switch on, in which order: silence first, phantom off, picture before sound, every plug before its
 * supply, sources before what they feed, every plug before a call is started, speakers last, volumes after all.
 */
export function orderUp(rig: Rig, occasion: Occasion = { kind: 'first' }): Step[] {
  const scene = dayScene(rig);
  const quiet = scene.boxes.flatMap((b) => quietOf(b));
  const phantom = phantomOf(scene);
  const off = phantom.map(
    ({ box, settingId }): Draft => ({
      id: `phantom-off:${box.device.id}.${settingId}`,
      kind: 'phantom-off',
      says: say.phantomOffNow({ device: box.device.name }),
      why: say.pluggingOrUnpluggingWith(),
      cautions: ['phantom'],
      deviceIds: [box.device.id],
      after: ids(quiet),
    }),
  );
  const silent = [...ids(quiet), ...ids(off)];
  const plugs = plugsFor(scene, occasion, silent);
  const plugged = [...silent, ...ids(plugs)];
  const fastened = scene.leads.filter((l) => isHeld(l)).map((l) => fasten(l, plugs));
  const power = powerOn(scene, plugged);
  const starts = startsOf(scene, [...plugged, ...ids(power.filter((p) => !p.loud))]);
  const loud = power
    .filter((p) => p.loud)
    .map((p) => ({ ...p, after: [...p.after, ...ids(power.filter((q) => !q.loud)), ...ids(starts)] }));
  const calm = power.filter((p) => !p.loud);
  const balance = scene.boxes
    .filter((b) => b.device.moves && films(b.type) && fastened.some((f) => f.deviceIds.includes(b.device.id)))
    .map(
      (b): Draft => ({
        id: `balance:${b.device.id}`,
        kind: 'balance',
        says: say.balanceDevice({ device: b.device.name }),
        why: say.securingCableAfterward(),
        deviceIds: [b.device.id],
        after: ids(fastened.filter((f) => f.deviceIds.includes(b.device.id))),
      }),
    );
  const on = phantom
    .filter(({ leads }) => leads.some((l) => l.fromPort.takes?.kind === 'phantom'))
    .map(
      ({ box, settingId, leads }): Draft => ({
        id: `phantom-on:${box.device.id}.${settingId}`,
        kind: 'phantom-on',
        says: say.phantomOn({
          device: box.device.name,
          from: names(leads.filter((l) => l.fromPort.takes?.kind === 'phantom').map((l) => l.from)),
        }),
        why: say.theyAreSilentWithout(),
        cautions: ['phantom'],
        deviceIds: [box.device.id],
        after: [...plugged, ...ids(calm.filter((p) => p.deviceIds.includes(box.device.id)))],
      }),
    );
  const sets = occasion.kind === 'since' ? settingsSince(scene, occasion.last, [...plugged, ...ids(calm)]) : [];
  const before = [...plugged, ...ids(calm), ...ids(loud), ...ids(starts), ...ids(on), ...ids(sets)];
  const up = scene.boxes.flatMap((b): Draft[] =>
    volumesOf(b).length === 0
      ? []
      : [
          {
            id: `up:${b.device.id}`,
            kind: 'volume-up',
            says: say.turnUp({
              device: b.device.name,
              and: listOf(
                'and',
                volumesOf(b).map((s) => s.name),
              ),
            }),
            why: say.nothingCanPopAny(),
            cautions: ['ears'],
            deviceIds: [b.device.id],
            after: before,
            rank: b.isLoud ? 1 : 0,
          },
        ],
  );
  return inOrder(scene, [
    ...quiet,
    ...off,
    ...plugs,
    ...fastened,
    ...calm,
    ...loud,
    ...balance,
    ...sets,
    ...on,
    ...starts,
    ...up,
  ]);
}

/** The cables that are to be plugged; for a desk that stands one look at all of them. */
function plugsFor(scene: DayScene, occasion: Occasion, silent: readonly string[]): Draft[] {
  if (occasion.kind === 'standing')
    return [
      {
        id: 'look:leads',
        kind: 'look',
        says: say.lookAtCables({ leads: scene.leads.length }),
        why: say.thingsMovedForCleaning(),
        cautions: scene.leads.some((l) => l.cable.lengthM > LONG_FLOOR_M) ? ['floor'] : [],
        deviceIds: [],
        after: silent,
      },
    ];
  const last = occasion.kind === 'since' ? dayScene(occasion.last) : null;
  const key = (l: DayLead) => `${l.from.device.id}/${l.fromPort.id}>${l.to.device.id}/${l.toPort.id}`;
  const stood = new Set(last?.leads.map(key));
  const stands = new Set(scene.leads.map(key));
  const gone = (last?.leads ?? []).filter((l) => !stands.has(key(l)));
  const fresh = scene.leads.filter((l) => !stood.has(key(l)));
  const unplug = gone.map(
    (lead): Draft => ({
      id: `unplug:${lead.cable.id}`,
      kind: 'unplug',
      says: say.unplugCable({ name: socket(lead.from, lead.fromPort.name), name2: socket(lead.to, lead.toPort.name) }),
      why: say.itsNoLongerIn(),
      deviceIds: [lead.from.device.id, lead.to.device.id].filter((id) => scene.rig.devices.some((d) => d.id === id)),
      cableId: lead.cable.id,
      after: silent,
    }),
  );
  const picture = fresh.filter(inPicture).map((l) => plug(l, [...silent, ...ids(unplug)], 0));
  const sound = fresh.filter((l) => !inPicture(l)).map((l) => plug(l, [...silent, ...ids(unplug), ...ids(picture)], 1));
  return [...unplug, ...picture, ...sound];
}

function plug(lead: DayLead, after: readonly string[], rank: number): Draft {
  const { cable, from, to, fromPort, toPort } = lead;
  return {
    id: `plug:${cable.id}`,
    kind: 'plug',
    says: say.connect({ name: socket(from, fromPort.name), name2: socket(to, toPort.name), lengthM: cable.lengthM }),
    why: inPicture(lead) ? say.videoBeforeAudioSources() : say.beforeEitherEndIs(),
    cautions: cable.lengthM > LONG_FLOOR_M ? ['floor'] : [],
    deviceIds: [from.device.id, to.device.id],
    cableId: cable.id,
    after: [...after],
    rank: rank * 10_000 + from.rank,
  };
}

/** A cable that one end of is carried about. */
const isHeld = ({ from, to }: DayLead): boolean => Boolean(from.device.moves || to.device.moves);

function fasten(lead: DayLead, plugs: readonly Draft[]): Draft {
  const { cable, from, to } = lead;
  return {
    id: `fasten:${cable.id}`,
    kind: 'fasten',
    says: say.secure({ device: from.device.name, device2: to.device.name }),
    why: say.socketIsWeakestPoint(),
    deviceIds: [from.device.id, to.device.id],
    cableId: cable.id,
    after: ids(plugs),
  };
}

function powerOn(scene: DayScene, plugged: readonly string[]): (Draft & { readonly loud: boolean })[] {
  const on = scene.boxes.filter((b) => b.switched);
  const waits = powerOnPrerequisites(scene, on);
  return on.map((b) => {
    const feeds = waits.get(b) ?? [];
    const battery = b.type.power!.by[0] === 'battery';
    return {
      id: `power-on:${b.device.id}`,
      kind: 'power-on' as const,
      says: say.switchOn({ device: b.device.name, full: battery ? say.withFullBattery() : '' }),
      why: b.isLoud
        ? say.speakersLastTheyAmplify()
        : feeds.length > 0
          ? say.afterFeeds({ feeds: names(feeds) })
          : say.sourcesFirstThenWhat(),
      cautions: [...(b.type.power!.earthed ? (['earth'] as const) : []), ...(battery ? (['batteries'] as const) : [])],
      deviceIds: [b.device.id],
      after: [...plugged, ...feeds.map((o) => `power-on:${o.device.id}`)],
      rank: b.rank,
      loud: b.isLoud,
    };
  });
}

/**
 * Which devices each one waits for: what gives it its power before what gives it its signal. What would go round in a
 * circle is left out, the signal first.
 */
function powerOnPrerequisites(scene: DayScene, on: readonly DayBox[]): ReadonlyMap<DayBox, readonly DayBox[]> {
  const waits = new Map<DayBox, DayBox[]>();
  const wait = (b: DayBox, forBox: DayBox | undefined) => {
    if (!forBox || forBox === b || !on.includes(forBox) || !on.includes(b)) return;
    // Speakers wait for all others anyway, and nothing waits for them.
    if (forBox.isLoud || (waits.get(b) ?? []).includes(forBox) || leadsTo(forBox, b, (at) => waits.get(at) ?? []))
      return;
    waits.set(b, [...(waits.get(b) ?? []), forBox]);
  };
  for (const b of on) if (b.device.fedBy !== undefined) wait(b, scene.box(b.device.fedBy));
  for (const l of scene.leads) if (l.from.rank < l.to.rank) wait(l.to, l.from);
  return waits;
}

/** Programs once everything that they use is there; calls when everything else runs. */
function startsOf(scene: DayScene, before: readonly string[]): Draft[] {
  const programs = scene.boxes.filter((b) => b.isProgram);
  const calls = programs.filter((b) => b.isCall);
  const others = programs.filter((b) => !b.isCall);
  const start = (b: DayBox, after: readonly string[]): Draft => ({
    id: `start:${b.device.id}`,
    kind: 'start',
    says: say.startApp({
      device: b.device.name,
      name: b.device.on ? say.onComputer({ device: scene.box(b.device.on).device.name }) : '',
    }),
    why: b.isCall ? say.callAppGrabsAudio() : say.appsListDevicesThat(),
    cautions: b.isCall ? ['consent'] : endsThat(b.type, 'stream').length > 0 ? ['consent', 'rights'] : [],
    deviceIds: [b.device.id],
    after: [...before, ...after],
    rank: b.isCall ? 1 : 0,
  });
  const first = others.map((b) => start(b, []));
  return [...first, ...calls.map((b) => start(b, ids(first)))];
}

/** Settings that stand otherwise than when it was good. */
function settingsSince(scene: DayScene, last: Rig, after: readonly string[]): Draft[] {
  return scene.boxes.flatMap((box): Draft[] => {
    const before = last.devices.find((d) => d.id === box.device.id && d.typeId === box.device.typeId);
    if (!before) return [];
    const changed = box.type.settings.filter((s) => settingOf(box.device, s).value !== settingOf(before, s).value);
    if (changed.length === 0) return [];
    const said = changed.map((s) =>
      say.settingChanged({
        s: s.name,
        value: String(settingOf(before, s).value),
        value2: String(settingOf(box.device, s).value),
      }),
    );
    return [
      {
        id: `set:${box.device.id}`,
        kind: 'set',
        says: say.settingsChanged({ device: box.device.name, what: said }),
        why: say.itWasSetDifferently(),
        deviceIds: [box.device.id],
        after: [...after],
      },
    ];
  });
}
