import type { Said, Text } from '#core/base/said/index.ts';
import type { Mode } from '#core/model/picture/index.ts';
import {
  type Change,
  type Dismissal,
  type Edit,
  type PortSpec,
  type Rig,
  type SettingValue,
  sayValue,
  type Types,
} from '#core/model/rig/index.ts';
import type { Evaluation } from '#core/signal/index.ts';
import type { Box, SettingSeen } from './box.ts';
import type { LeadSeen } from './leads.ts';
import { say } from './sayings.ts';

/** `stop`: will not work, or can harm; `fix`: will be heard or seen; `watch`: may be. */
export type Severity = 'stop' | 'fix' | 'watch';

/** A change that mends a finding: one step, that can be looked at before it is made. */
export interface Fix {
  readonly label: Text;
  /** It leaves something of it: less than before, as its label says. */
  readonly partly?: true;
  /** What has to be drawn before: a device that is put in. */
  readonly first?: Edit;
  /** What is set or plugged, to be done at the desk or so already. */
  readonly changes: readonly Change[];
  /** The same as one edit of the drawing. */
  readonly edit: Edit;
}

/** Where in the work it is looked at. */
export type Stage = 'wire' | 'route' | 'level' | 'sync';

type Where = Partial<Finding['where']>;

/** A figure that a finding is based on, with its source. */
export interface Reason {
  readonly says: Text;
  readonly source: Text;
}

export interface Finding {
  /** The same for the same thing in the same rig: rule and place. */
  readonly id: string;
  readonly rule: string;
  readonly stage: Stage;
  readonly severity: Severity;
  readonly where: {
    readonly deviceIds: readonly string[];
    readonly cableIds: readonly string[];
    readonly sourceId?: string;
    readonly listenerId?: string;
    /** The setting that it rests on. */
    readonly setting?: { readonly deviceId: string; readonly settingId: string };
  };
  /** What is wrong, where, and what to do about it. */
  readonly says: Said;
  /** Where it rests on something assumed: what to look at, as a question. It is then asked, and not claimed. */
  readonly asks: Said | null;
  readonly why: readonly Reason[];
  /** Ignored by someone, with the reason; null while it counts. */
  readonly dismissed: Dismissal | null;
  /** The moment in which it is so; null where it is so in the plain rig. */
  readonly momentId: string | null;
}

/** A video signal: the mode that an output sends, and every input it reaches. */
export interface PictureRun {
  readonly from: Box;
  readonly port: PortSpec;
  readonly mode: Mode;
  readonly bits: number;
  readonly setting: SettingSeen;
  readonly reached: readonly PictureEnd[];
  /** Those of them that are inputs. */
  readonly inputs: readonly PictureEnd[];
}
export interface PictureEnd {
  readonly box: Box;
  readonly port: PortSpec;
  /** The cables that it came through. */
  readonly cableIds: readonly string[];
}

export interface Context {
  readonly rig: Rig;
  readonly types: Types;
  readonly evaluation: Evaluation;
  readonly boxes: readonly Box[];
  box(deviceId: string): Box;
  /** Every cable that is a cable. */
  readonly leads: readonly LeadSeen[];
  /** Every cable once: without those that share the plugs of another one. */
  readonly plugged: readonly LeadSeen[];
  readonly pictures: readonly PictureRun[];
}

/** One rule: reports what is wrong, or nothing where it can't tell, and on request what would fix it. */
export interface Rule {
  readonly id: string;
  readonly check: (context: Context) => readonly Finding[];
  /** Each tried on the rig, so it costs an evaluation or more: asked for one finding at a time. */
  readonly fixes: (context: Context, finding: Finding) => readonly Fix[];
}

export type Draft = Omit<Finding, 'id' | 'rule' | 'stage' | 'asks' | 'where' | 'dismissed' | 'momentId'> & {
  readonly at: string;
  readonly where?: Where;
  readonly asks?: Said | null;
  /** The setting that it rests on: asked while no one has looked at it. */
  readonly rests?: { readonly box: Pick<Box, 'device'>; readonly seen: SettingSeen };
};

/** A finding of a rule; its id is made of the rule and its place. */
export function findingOf(stage: Stage, rule: string, { at, where, asks, rests, ...draft }: Draft): Finding {
  const setting = rests && { deviceId: rests.box.device.id, settingId: rests.seen.spec.id };
  return {
    id: `${rule}:${at}`,
    rule,
    stage,
    severity: draft.severity,
    where: { deviceIds: [], cableIds: [], ...(setting && { setting }), ...where },
    says: draft.says,
    asks: asks ?? (rests ? askSetting(rests.box, rests.seen) : null),
    why: draft.why,
    dismissed: null,
    momentId: null,
  };
}

/** A rule from findings of it that know nothing of what is ignored. */
export const ruleOf = (
  id: string,
  find: (context: Context) => readonly Finding[],
  fixes: Rule['fixes'] = () => [],
): Rule => ({
  id,
  check: (context) => {
    const found = find(context);
    if (context.rig.dismissed.length === 0) return found;
    return found.map((f) => ({ ...f, dismissed: context.rig.dismissed.find((a) => a.id === f.id) ?? null }));
  },
  fixes,
});

/** A rule from what it finds. */
export const rule = (
  stage: Stage,
  id: string,
  find: (context: Context) => readonly Draft[],
  fixes?: Rule['fixes'],
): Rule => ruleOf(id, (context) => find(context).map((draft) => findingOf(stage, id, draft)), fixes);

/** Where a finding rests on a setting that no one has looked at: the question; null once it is known. */
const askSetting = ({ device }: Pick<Box, 'device'>, seen: SettingSeen): Said | null =>
  seen.known === 'assumed'
    ? say.isItValue({ device: device.name, spec: seen.spec.name, value: sayValue(seen.spec, seen.value) })
    : null;

/** A setting to be set, as a fix. */
export function setFix({ device, type }: Pick<Box, 'device' | 'type'>, settingId: string, value: SettingValue): Fix[] {
  const spec = type.settings.find((s) => s.id === settingId);
  if (!spec) return [];
  return [
    {
      label: say.setIt({ device: device.name, setting: spec.name, value: sayValue(spec, value) }),
      changes: [{ deviceId: device.id, settingId, value }],
      edit: { kind: 'set-setting', deviceId: device.id, settingId, setting: { value, known: 'assumed' } },
    },
  ];
}
