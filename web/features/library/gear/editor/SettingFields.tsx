import { Button, chakra, Input } from '@chakra-ui/react';
import { type DeviceType, type SettingSpec, unitOf } from '#core/model/rig/index.ts';
import { Choice, NumberInput, Table } from '#web/shared/parts/index.ts';
import { common, gear as say } from '#words/index.ts';
import { freeName } from './names.ts';

interface Props {
  readonly draft: DeviceType;
  readonly onDraft: (draft: DeviceType) => void;
}

const KINDS: readonly (readonly [SettingSpec['kind'], string])[] = [
  ['gain', say.levelWord()],
  ['delay', say.delay()],
  ['mute', say.mute()],
  ['switch', say.switch()],
  ['value', say.processingValue()],
];

/** Settings of a device type: range, step and default. */
export function SettingFields({ draft, onDraft }: Props) {
  const put = (at: number, spec: SettingSpec) =>
    onDraft({ ...draft, settings: draft.settings.map((s, i) => (i === at ? spec : s)) });
  const add = (kind: SettingSpec['kind']) =>
    onDraft({
      ...draft,
      settings: [...draft.settings, newSetting(kind, freeName(kind, new Set(draft.settings.map((s) => s.id))))],
    });
  return (
    <>
      <h2>{say.settings()}</h2>
      <Table tight aria-label={say.settings()}>
        <tbody>
          {draft.settings.map((spec, i) => (
            <tr key={spec.id}>
              <td>
                <Input
                  aria-label={say.nameSetting({ id: spec.id })}
                  value={spec.name}
                  onChange={(e) => put(i, { ...spec, name: e.target.value })}
                />
              </td>
              <td className="quiet">{KINDS.find(([k]) => k === spec.kind)![1]}</td>
              <td>
                <Range spec={spec} onSpec={(next) => put(i, next)} />
              </td>
              <td className="number">
                <Button onClick={() => onDraft({ ...draft, settings: draft.settings.filter((_, k) => k !== i) })}>
                  {common.remove()}
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
      <chakra.p className="row" marginTop="6px">
        {KINDS.map(([kind, name]) => (
          <Button key={kind} onClick={() => add(kind)}>
            {say.add({ name })}
          </Button>
        ))}
      </chakra.p>
    </>
  );
}

type Treats = Extract<SettingSpec, { kind: 'value' }>['treats'];
const TREATED_UNITS: Record<Treats, string> = {
  'lowCut.hz': say.hz(),
  'gate.thresholdDbfs': 'dBFS',
  'gate.rangeDb': 'dB',
  'presence.gainDb': 'dB',
  'presence.hz': say.hz(),
  'deEss.thresholdDbfs': 'dBFS',
  'compressor.thresholdDbfs': 'dBFS',
  'compressor.ratio': say.valuesTitle(),
  'compressor.attackMs': 'ms',
  'compressor.releaseMs': 'ms',
  makeupDb: 'dB',
  'limiter.ceilingDbtp': 'dBTP',
};
const TREATED_NAMES: Record<Treats, string> = {
  'lowCut.hz': say.lowCut(),
  'gate.thresholdDbfs': say.gateThreshold(),
  'gate.rangeDb': say.gateRange(),
  'presence.gainDb': say.presence(),
  'presence.hz': say.presenceCenter(),
  'deEss.thresholdDbfs': say.deEsserThreshold(),
  'compressor.thresholdDbfs': say.compressorThreshold(),
  'compressor.ratio': say.compressorRatio(),
  'compressor.attackMs': say.compressorAttack(),
  'compressor.releaseMs': say.compressorRelease(),
  makeupDb: say.makeUpGain(),
  'limiter.ceilingDbtp': say.limiterCeiling(),
};

/** The range of a control, or the positions of a switch, and the default. */
function Range({ spec, onSpec }: { spec: SettingSpec; onSpec: (spec: SettingSpec) => void }) {
  if (spec.kind === 'mute')
    return (
      <Choice
        label={say.defaultWord({ id: spec.id })}
        value={spec.default ? say.on() : say.off()}
        options={[
          ['off', say.offByDefault()],
          ['on', say.onByDefault()],
        ]}
        onChange={(v) => onSpec({ ...spec, default: v === 'on' })}
      />
    );
  if (spec.kind === 'switch')
    return (
      <span className="row">
        <Input
          aria-label={say.positions({ id: spec.id })}
          title={say.positionsSeparatedByCommas()}
          width="220px"
          defaultValue={spec.options.map((o) => o.label).join(', ')}
          onBlur={(e) => {
            const options = positionsOf(e.target.value);
            if (options.length < 2) return;
            const stays = options.some((o) => o.value === spec.default);
            onSpec({ ...spec, options, default: stays ? spec.default : options[0]!.value });
          }}
        />
        <Choice
          label={say.defaultWord({ id: spec.id })}
          value={spec.default}
          options={spec.options.map((o) => [o.value, say.byDefault({ o: o.label })] as const)}
          onChange={(v) => onSpec({ ...spec, default: v })}
        />
      </span>
    );
  return (
    <span className="row">
      {(['min', 'max', 'step', 'default'] as const).map((key) => (
        <NumberInput
          key={key}
          label={`${spec.id}, ${{ min: say.rangeFrom(), max: say.rangeTo(), step: say.step(), default: say.defaultWordWord() }[key]}`}
          value={spec[key]}
          width="62px"
          onValue={(value) => value !== undefined && onSpec({ ...spec, [key]: value })}
        />
      ))}
      <span className="quiet">{unitOf(spec)}</span>
      {spec.kind === 'value' && (
        <Choice
          label={say.whatSets({ id: spec.id })}
          value={spec.treats}
          options={Object.keys(TREATED_UNITS).map((key) => [key, TREATED_NAMES[key as Treats]])}
          onChange={(key) => onSpec({ ...spec, treats: key as Treats, unit: TREATED_UNITS[key as Treats] })}
        />
      )}
    </span>
  );
}

/** 'USB, jack' as positions with ids of their own. */
export function positionsOf(text: string): { value: string; label: string }[] {
  const taken = new Set<string>();
  return text
    .split(',')
    .map((t) => t.trim())
    .filter(Boolean)
    .map((label) => {
      const plain =
        label
          .toLowerCase()
          .replace(/[^a-z0-9]+/g, '-')
          .replace(/^-+|-+$/g, '') || 'position';
      let value = plain;
      for (let n = 2; taken.has(value); n++) value = `${plain}-${n}`;
      taken.add(value);
      return { value, label };
    });
}

function newSetting(kind: SettingSpec['kind'], id: string): SettingSpec {
  const base = { id, name: id.replace('-', ' ') };
  if (kind === 'gain') return { ...base, kind, min: -90, max: 10, step: 1, default: 0, offAtMin: true };
  if (kind === 'delay') return { ...base, kind, unit: 'ms', min: 0, max: 1000, step: 1, default: 0 };
  if (kind === 'mute') return { ...base, kind, default: false };
  if (kind === 'value')
    return { ...base, kind, unit: say.hz(), min: 20, max: 300, step: 1, default: 20, off: 20, treats: 'lowCut.hz' };
  return { ...base, kind, options: positionsOf(say.oneTwo()), default: 'one' };
}
