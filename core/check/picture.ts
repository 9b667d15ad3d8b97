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
} from '#core/picture/index.ts';
import { connectorOf } from '#core/plug/index.ts';
import { captures, endsThatLeadTo, showsPicture } from '#core/rig/index.ts';
import { hertz } from '#core/units/index.ts';
import type { Box } from './box.ts';
import { type Context, type Draft, type PictureEnd, type PictureRun, type Rule, rule, setFix } from './finding.ts';
import { leadRule } from './lead-rule.ts';
import { modeOf } from './picture-runs.ts';

const SOURCE = 'HDMI by character rate and lanes, CTA-861 timings';
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
/** From so many lines on, a picture counts as 2160p. */
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

/** One rule on every end that a picture comes to. */
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
        says: `${run.from.device.name} sends ${modeName(run.mode)}, ${run.bits} bits; ${end.box.device.name} passes a ${linkName(link)}, and that needs ${need ? `a ${linkName(need)}` : 'more than any link carries'}. The screen stays black or falls back.`,
        why: [{ says: `${modeName(run.mode)} at ${run.bits} bits, RGB`, source: SOURCE }],
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
        says: `${run.from.device.name} sends ${modeName(run.mode)}; ${end.box.device.name} takes at most ${modeName(most)}.`,
        why: [{ says: `at most ${modeName(most)}`, source: `typical of ${end.box.type.name}` }],
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
            says: `${end.box.device.name} does not take ${modeName(run.mode)} from ${run.from.device.name}: ${why}`,
            why: [{ says: why, source: `EDID of ${end.box.device.name}` }],
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
        says: `${run.from.device.name} protects its picture against copying; ${end.box.device.name} shows black. Switch the protection off in the console’s menu.`,
        rests: { box: run.from, seen: on },
        why: [{ says: 'a protected picture is not handed to what may keep it', source: 'copy protection of HDMI' }],
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
        says: `${run.from.device.name} sends a protected ${modeName(run.mode)}; ${end.box.device.name} knows only the older protection: 1080p or black.`,
        rests: { box: run.from, seen: on },
        why: [
          {
            says: 'protected 2160p needs the newer protection in every box on the way',
            source: 'copy protection of HDMI, 2.2',
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
        says: `${run.from.device.name} sends surround or coded sound; ${end.box.device.name} takes two-channel PCM only: silence, or noise. Set the console to two-channel PCM.`,
        rests: { box: run.from, seen: format },
        why: [
          {
            says: 'the picture passes, its sound does not',
            source: end.box.device.edid ? `EDID of ${end.box.device.name}` : 'extractors give what they are given',
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
        says: `${run.from.device.name} draws its marks and menus over the picture that goes to ${end.box.device.name}. Set its HDMI to the clean picture.`,
        rests: { box: run.from, seen: on },
        why: [{ says: 'what the camera’s own screen shows is sent along', source: 'cameras as they come' }],
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
      says: `${sender.box.device.name} hands on ${modeName(run.mode)} uncompressed: ${need.toFixed(1)} Gbit/s; ${end.box.device.name}, ${end.port.name} leaves ${gbps} for pictures. Use a faster socket, or a smaller mode.`,
      why: [
        {
          says: `${modeName(run.mode)} at 12 bits a pixel`,
          source: 'visible pixels times rate; what USB leaves for video, typical',
        },
      ],
    };
  }),
  rule('wire', 'picture-lead-too-long', ({ pictures, rig }) =>
    pictures.flatMap((run) => {
      const need = needOf(run.mode, coding(run)).minimumLink;
      if (!need?.startsWith('frl')) return [];
      return run.inputs.flatMap((end) => {
        const cable = rig.cables.find((c) => c.id === end.cableIds.at(-1));
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
            says: `${modeName(run.mode)} at ${run.bits} bits runs over ${cable.lengthM} m of HDMI to ${end.box.device.name}; passive leads carry a ${linkName(need)} for ${FRL_LEAD_M} m. Take an optical one, which runs one way.`,
            why: [
              {
                says: `passive leads: careful 2 m, at most ${FRL_LEAD_M} m at 48 Gbit/s`,
                source: 'passive leads, as practised',
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
        says: `What ${device.name} says of itself cannot be read: its bytes do not add up. Read it out of the device again.`,
        why: [{ says: 'a block whose sum is wrong is not believed', source: 'VESA E-EDID' }],
      })),
  ),
  rule('wire', 'picture-passive-split', ({ boxes }) =>
    boxes
      .filter(({ type }) => {
        // One input's picture at several outputs, and nothing that could make it anew.
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
        says: `${device.name} only joins wires: two screens cannot both answer the source. Take a splitter with power.`,
        why: [{ says: 'HDMI talks both ways with one screen', source: 'HDMI as specified' }],
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
          says: `${weak[0]!.box.device.name} takes less than ${strong[0]!.box.device.name}: behind a splitter, the weakest sets the mode for both.`,
          why: [{ says: 'a splitter offers what all its screens take', source: 'splitters as they come' }],
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
          says: `${run.from.device.name} sends ${hertz(run.mode.rate).toFixed(2)} pictures a second, the session has ${session.toFixed(2)}: movement will stutter.`,
          why: [{ says: 'frames are shown once, or twice, in turns', source: 'arithmetic of the two rates' }],
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
      says: `${to.device.name} lives on the 5 V of a ${cable.lengthM} m lead from ${from.device.name}. Where the picture comes and goes, take one with its own supply.`,
      why: [{ says: 'HDMI gives 55 mA', source: 'HDMI as specified' }],
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
