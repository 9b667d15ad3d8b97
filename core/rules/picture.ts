import {
  type Edid,
  EdidError,
  edidBytes,
  isEnough,
  LINKS,
  type Link,
  linkName,
  type Mode,
  modeName,
  needOf,
  parseEdid,
  USB_VIDEO_GBPS,
  usbVideoGbps,
  whyNot,
} from '#core/model/picture/index.ts';
import { connectorOf } from '#core/model/plug/index.ts';
import { captures, endsThatLeadTo, findCable, showsPicture } from '#core/model/rig/index.ts';
import { hertz } from '#core/model/units/index.ts';
import type { Box } from './box.ts';
import { type Context, type Draft, type PictureEnd, type PictureRun, type Rule, rule, setFix } from './finding.ts';
import { leadRule } from './lead-rule.ts';
import { modeOf } from './picture-runs.ts';
import { say } from './sayings.ts';

const SOURCE = say.hdmiByCharacterRate();
const USB_GBPS: Record<string, number> = {
  'usb-2': USB_VIDEO_GBPS['usb-2-isochronous'],
  'usb-5': USB_VIDEO_GBPS['usb-5'],
  'usb-10': USB_VIDEO_GBPS['usb-10'],
};

const isHdmiLink = (link: string): link is Link => (LINKS as readonly string[]).includes(link);
const pixels = ({ width, height, rate }: Mode): number => width * height * hertz(rate);
const coding = (run: PictureRun) => ({ bits: run.bits, chroma: '4:4:4' as const });

/** A finding about a picture on its way: it rests on the mode that is sent. */
const onRun = (run: PictureRun, at: Omit<Draft, 'severity' | 'says' | 'why'>) => ({
  rests: { box: run.from, seen: run.setting },
  ...at,
});

type End = PictureEnd;
const HALF_HERTZ = 0.5;
/** From this many lines on, a video mode counts as 2160p. */
const TALL = 2000;
const FED_BY_LEAD_M = 2;
const FRL_LEAD_M = 3;

/** Over USB the picture has another rate and other rules. */
const isHdmi = (end: End): boolean => !end.port.picture?.link?.startsWith('usb');

const between = (run: PictureRun, end: End) => ({
  at: `${run.from.device.id}>${end.box.device.id}/${end.port.id}`,
  where: { deviceIds: [run.from.device.id, end.box.device.id], cableIds: end.cableIds.slice(-1) },
});

/** Smaller modes of the source's own switch that pass here, the largest first. */
function smallerModes(context: Context, run: PictureRun, passes: (mode: Mode) => boolean) {
  const settingId = run.port.picture?.sends?.mode;
  if (!settingId || run.setting.spec.kind !== 'switch') return [];
  return run.setting.spec.options
    .map((o) => ({ value: o.value, mode: modeOf(o.value) }))
    .filter((o): o is { value: string; mode: Mode } => o.mode !== null && passes(o.mode))
    .sort((a, b) => pixels(b.mode) - pixels(a.mode))
    .slice(0, 2)
    .flatMap((o) => setFix(context.box(run.from.device.id), settingId, o.value));
}

/** One rule for every input that video reaches. */
const onEnds = (
  id: string,
  severity: Draft['severity'],
  find: (run: PictureRun, end: End) => (Pick<Draft, 'says' | 'why'> & Partial<Draft>) | null,
  fixes?: (context: Context, run: PictureRun, end: End) => ReturnType<typeof setFix>,
): Rule =>
  rule(
    'wire',
    id,
    ({ pictures }) =>
      pictures.flatMap((run) =>
        run.inputs.flatMap((end) => {
          const found = find(run, end);
          return found ? [{ severity, ...onRun(run, between(run, end)), ...found }] : [];
        }),
      ),
    (context, finding) => {
      for (const run of context.pictures) {
        const end = run.inputs.find((e) => `${id}:${between(run, e).at}` === finding.id);
        if (end) return fixes?.(context, run, end) ?? [];
      }
      return [];
    },
  );

const passesLink = (link: string, mode: Mode, bits: number): boolean =>
  !isHdmiLink(link) || isEnough(link, needOf(mode, { bits, chroma: '4:4:4' }));

/** What a device's EDID says, read once; null where it has none, or one that cannot be read. */
const edids = new Map<string, Edid | null>();
function edidOf({ device }: Box): Edid | null {
  if (!device.edid) return null;
  let edid = edids.get(device.edid);
  if (edid === undefined) {
    edid = tryEdid(device.edid);
    edids.set(device.edid, edid);
  }
  return edid;
}

function tryEdid(text: string): Edid | null {
  try {
    return parseEdid(edidBytes(text));
  } catch (error) {
    if (error instanceof EdidError) return null;
    throw error;
  }
}

export const pictureRules: readonly Rule[] = [
  onEnds(
    'picture-link-too-slow',
    'stop',
    (run, end) => {
      const link = end.port.picture?.link;
      if (!link || !isHdmiLink(link) || passesLink(link, run.mode, run.bits)) return null;
      const need = needOf(run.mode, coding(run)).minimumLink;
      return {
        says: say.linkTooSlow({
          device: run.from.device.name,
          mode: modeName(run.mode),
          bits: run.bits,
          device2: end.box.device.name,
          link: linkName(link),
          carries: need ? linkName(need) : say.moreThanAnyLink(),
        }),
        why: [{ says: say.modeAtBits({ mode: modeName(run.mode), bits: run.bits }), source: SOURCE }],
      };
    },
    (context, run, end) => smallerModes(context, run, (mode) => passesLink(end.port.picture!.link!, mode, run.bits)),
  ),
  onEnds(
    'picture-mode-too-large',
    'stop',
    (run, end) => {
      const most = end.port.picture?.most && modeOf(end.port.picture.most);
      if (!most || pixels(run.mode) <= pixels(most)) return null;
      return {
        says: say.modeTooHigh({
          device: run.from.device.name,
          mode: modeName(run.mode),
          device2: end.box.device.name,
          most: modeName(most),
        }),
        why: [{ says: say.atMost({ most: modeName(most) }), source: say.typical({ type: end.box.type.name }) }],
      };
    },
    (context, run, end) =>
      smallerModes(context, run, (mode) => pixels(mode) <= pixels(modeOf(end.port.picture!.most!)!)),
  ),
  onEnds(
    'picture-edid-lacks-mode',
    'fix',
    (run, end) => {
      const edid = edidOf(end.box);
      if (!edid || end.port.connector === 'software' || !isHdmi(end)) return null;
      const why = whyNot(edid, run.mode, coding(run));
      return why
        ? {
            says: say.modeNotTaken({
              device: end.box.device.name,
              mode: modeName(run.mode),
              device2: run.from.device.name,
              why,
            }),
            why: [{ says: why, source: say.edid({ device: end.box.device.name }) }],
          }
        : null;
    },
    (context, run, end) => {
      const edid = edidOf(end.box);
      return edid ? smallerModes(context, run, (mode) => whyNot(edid, mode, coding(run)) === null) : [];
    },
  ),
  onEnds(
    'picture-protected-capture',
    'stop',
    (run, end) => {
      const { protects } = run.port.picture ?? {};
      const on = protects ? run.from.setting(protects) : null;
      if (on?.value !== 'on' || end.port.picture?.protection !== 'none') return null;
      return {
        says: say.protectedBlack({ device: run.from.device.name, device2: end.box.device.name }),
        rests: { box: run.from, seen: on },
        why: [{ says: say.protectedVideoIsNever(), source: say.hdcp() }],
      };
    },
    (context, run) => setFix(context.box(run.from.device.id), run.port.picture!.protects!, 'off'),
  ),
  onEnds(
    'picture-protection-old',
    'fix',
    (run, end) => {
      const { protects } = run.port.picture ?? {};
      const on = protects ? run.from.setting(protects) : null;
      if (on?.value !== 'on' || end.port.picture?.protection !== '1.4' || run.mode.height < TALL) return null;
      return {
        says: say.protectedOld({
          device: run.from.device.name,
          mode: modeName(run.mode),
          device2: end.box.device.name,
        }),
        rests: { box: run.from, seen: on },
        why: [
          {
            says: say.protected2160pNeedsHdcp(),
            source: say.hdcp2(),
          },
        ],
      };
    },
    (context, run) => setFix(context.box(run.from.device.id), run.port.picture!.protects!, 'off'),
  ),
  onEnds(
    'picture-sound-format',
    'fix',
    (run, end) => {
      const { soundFormat } = run.port.picture ?? {};
      const format = soundFormat ? run.from.setting(soundFormat) : null;
      const lacks = end.port.picture?.stereoPcmOnly || (edidOf(end.box) && !takesSurround(end.box));
      if (format?.value !== 'surround' || !lacks) return null;
      return {
        says: say.codedAudio({ device: run.from.device.name, device2: end.box.device.name }),
        rests: { box: run.from, seen: format },
        why: [
          {
            says: say.videoPassesItsAudio(),
            source: end.box.device.edid ? say.edidSource({ device: end.box.device.name }) : say.extractorsPassOnWhat(),
          },
        ],
      };
    },
    (context, run) => setFix(context.box(run.from.device.id), run.port.picture!.soundFormat!, 'stereo-pcm'),
  ),
  onEnds(
    'picture-overlays',
    'fix',
    (run, end) => {
      const { overlays } = run.port.picture ?? {};
      const on = overlays ? run.from.setting(overlays) : null;
      if (on?.value !== 'on' || !captures(end.box.type)) return null;
      return {
        says: say.overlays({ device: run.from.device.name, device2: end.box.device.name }),
        rests: { box: run.from, seen: on },
        why: [{ says: say.whatCamerasOwnDisplay(), source: say.camerasAtTheirDefaults() }],
      };
    },
    (context, run) => setFix(context.box(run.from.device.id), run.port.picture!.overlays!, 'off'),
  ),
  onEnds('picture-usb-too-slow', 'stop', (run, end) => {
    const usb = end.port.picture?.link;
    const gbps = usb && USB_GBPS[usb];
    if (!gbps || end.port.connector === 'software') return null;
    const sender = run.reached.find(
      (e) =>
        e.box !== end.box &&
        e.port.direction === 'out' &&
        e.port.picture?.link?.startsWith('usb') &&
        e.cableIds.length === end.cableIds.length - 1 &&
        e.cableIds.every((id, i) => end.cableIds[i] === id),
    );
    if (!sender || sender.port.picture?.compressed) return null;
    const need = usbVideoGbps(run.mode, '4:2:0');
    if (need <= gbps) return null;
    return {
      says: say.usbTooSlow({
        device: sender.box.device.name,
        mode: modeName(run.mode),
        n1: need.toFixed(1),
        device2: end.box.device.name,
        port: end.port.name,
        gbps,
      }),
      why: [
        {
          says: say.modeBits12({ mode: modeName(run.mode) }),
          source: say.visiblePixelsTimesRate(),
        },
      ],
    };
  }),
  rule('wire', 'picture-lead-too-long', ({ pictures, rig }) =>
    pictures.flatMap((run) => {
      const need = needOf(run.mode, coding(run)).minimumLink;
      if (!need?.startsWith('frl')) return [];
      return run.inputs.flatMap((end) => {
        const cable = findCable(rig, end.cableIds.at(-1));
        if (
          cable?.medium !== 'lead' ||
          !isHdmi(end) ||
          cable.lengthM <= FRL_LEAD_M ||
          end.port.connector === 'software'
        )
          return [];
        return [
          {
            ...onRun(run, between(run, end)),
            severity: 'fix' as const,
            says: say.hdmiTooLong({
              mode: modeName(run.mode),
              bits: run.bits,
              lengthM: cable.lengthM,
              device: end.box.device.name,
              need: linkName(need),
              FRL_LEAD_M,
            }),
            why: [
              {
                says: say.passiveLimit({ FRL_LEAD_M }),
                source: say.passiveCablesRuleThumb(),
              },
            ],
          },
        ];
      });
    }),
  ),
  rule('wire', 'picture-edid-broken', ({ boxes }) =>
    boxes
      .filter((box) => box.device.edid && !edidOf(box))
      .map(({ device }) => ({
        at: device.id,
        severity: 'watch' as const,
        where: { deviceIds: [device.id] },
        says: say.edidIsCorruptChecksum({ device: device.name }),
        why: [{ says: say.blockWithWrongChecksum(), source: say.vesaEEdid() }],
      })),
  ),
  rule('wire', 'picture-passive-split', ({ boxes }) =>
    boxes
      .filter(({ type }) => {
        // One input's picture at several outputs, and nothing that could make it again.
        if (type.power?.by.length !== 0) return false;
        const outs = type.ports.filter(
          (p) => p.direction === 'out' && p.level === 'digital' && connectorOf(p.connector)?.kind === 'hdmi',
        );
        const leading = endsThatLeadTo(type, outs);
        return outs.length > 1 && type.ports.some((p) => p.direction === 'in' && leading.has(p.id));
      })
      .map(({ device }) => ({
        at: device.id,
        severity: 'stop' as const,
        where: { deviceIds: [device.id] },
        says: say.passiveSplit({ device: device.name }),
        why: [{ says: say.hdmiTalksBothWays(), source: say.hdmiAsSpecified() }],
      })),
  ),
  rule('wire', 'picture-weakest-screen', ({ pictures }) =>
    pictures.flatMap((run) => {
      const ends = run.inputs.filter(
        (e) => isHdmi(e) && e.port.connector !== 'software' && (e.port.picture?.most || e.port.picture?.link),
      );
      const screens = ends.filter((e) => showsPicture(e.box.type) || captures(e.box.type));
      const weak = screens.filter((e) => !passes(e, run));
      const strong = screens.filter((e) => passes(e, run));
      if (weak.length === 0 || strong.length === 0) return [];
      return [
        {
          ...onRun(run, {
            at: run.from.device.id,
            where: { deviceIds: [run.from.device.id, ...screens.map((e) => e.box.device.id)] },
          }),
          severity: 'watch' as const,
          says: say.weakestSets({ device: weak[0]!.box.device.name, device2: strong[0]!.box.device.name }),
          why: [{ says: say.splitterOffersWhatAll(), source: say.splittersAtTheirDefaults() }],
        },
      ];
    }),
  ),
  rule('wire', 'picture-rate-not-session', ({ pictures, rig }) =>
    pictures.flatMap((run) => {
      const session = hertz(rig.session.frameRate);
      const ratio = hertz(run.mode.rate) / session;
      const even =
        Math.abs(ratio - Math.round(ratio)) * session < HALF_HERTZ ||
        Math.abs(1 / ratio - Math.round(1 / ratio)) * session < HALF_HERTZ;
      const captured = run.inputs.some((e) => captures(e.box.type));
      if (even || !captured) return [];
      return [
        {
          ...onRun(run, { at: run.from.device.id, where: { deviceIds: [run.from.device.id] } }),
          severity: 'watch' as const,
          says: say.stutters({
            device: run.from.device.name,
            n2: hertz(run.mode.rate).toFixed(2),
            n22: session.toFixed(2),
          }),
          why: [{ says: say.framesAreShownOnce(), source: say.arithmeticTwoRates() }],
        },
      ];
    }),
  ),
  leadRule('picture-fed-by-5-volts', ({ cable, from, to }) => {
    if (
      to.type.power?.by[0] !== 'hdmi' ||
      connectorOf(to.port.connector)?.kind !== 'hdmi' ||
      cable.lengthM <= FED_BY_LEAD_M
    )
      return null;
    return {
      severity: 'watch',
      where: { cableIds: [cable.id], deviceIds: [to.device.id] },
      asks: null,
      says: say.poweredByHdmi({ device: to.device.name, lengthM: cable.lengthM, device2: from.device.name }),
      why: [{ says: say.hdmiGivesMa(), source: say.hdmiAsSpecified() }],
    };
  }),
];

const passes = ({ port }: End, { mode, bits }: PictureRun): boolean => {
  const most = port.picture?.most && modeOf(port.picture.most);
  return (!most || pixels(mode) <= pixels(most)) && (!port.picture?.link || passesLink(port.picture.link, mode, bits));
};

/** Whether an EDID lists any sound format beyond two-channel PCM. */
function takesSurround(box: Box): boolean {
  return (edidOf(box)?.sound ?? []).some((s) => s.format !== 'PCM' || s.channels > 2);
}
