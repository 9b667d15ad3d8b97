import { Button, Input } from '@chakra-ui/react';
import { type DeviceType, type SettingSpec, unitOf } from '#core/rig/index.ts';
import { Choice } from '#web/parts/index.ts';
import { NumberField } from './NumberField.tsx';
import { freeName } from './names.ts';

interface Props {
  readonly draft: DeviceType;
  readonly onDraft: (draft: DeviceType) => void;
}

const KINDS: readonly (readonly [SettingSpec['kind'], string])[] = [
  ['gain', 'a level'],
  ['delay', 'a delay'],
  ['mute', 'a mute'],
  ['switch', 'a switch'],
  ['value', 'a figure of a treatment'],
];

/** What can be set on the box, by fields: range, step and where it stands as it comes. */
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
      <h2>What can be set</h2>
      <table className="table tight" aria-label="What can be set">
        <tbody>
          {draft.settings.map((spec, i) => (
            <tr key={spec.id}>
              <td>
                <Input
                  aria-label={`Name of setting ${spec.id}`}
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
                  Take out
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="row" style={{ marginTop: 6 }}>
        {KINDS.map(([kind, name]) => (
          <Button key={kind} onClick={() => add(kind)}>
            Add {name}
          </Button>
        ))}
      </p>
    </>
  );
}

type Treats = Extract<SettingSpec, { kind: 'value' }>['treats'];
const TREATED_UNITS: Record<Treats, string> = {
  'lowCut.hz': 'Hz',
  'gate.thresholdDbfs': 'dBFS',
  'gate.rangeDb': 'dB',
  'presence.gainDb': 'dB',
  'presence.hz': 'Hz',
  'deEss.thresholdDbfs': 'dBFS',
  'compressor.thresholdDbfs': 'dBFS',
  'compressor.ratio': 'to 1',
  'compressor.attackMs': 'ms',
  'compressor.releaseMs': 'ms',
  makeupDb: 'dB',
  'limiter.ceilingDbtp': 'dBTP',
};
const TREATED_NAMES: Record<Treats, string> = {
  'lowCut.hz': 'low cut',
  'gate.thresholdDbfs': 'gate, threshold',
  'gate.rangeDb': 'gate, range',
  'presence.gainDb': 'presence',
  'presence.hz': 'presence, middle',
  'deEss.thresholdDbfs': 'de-esser, threshold',
  'compressor.thresholdDbfs': 'compressor, threshold',
  'compressor.ratio': 'compressor, ratio',
  'compressor.attackMs': 'compressor, attack',
  'compressor.releaseMs': 'compressor, release',
  makeupDb: 'make-up gain',
  'limiter.ceilingDbtp': 'limiter, ceiling',
};

/** The range of a knob, or the positions of a switch, and where it stands as the box comes. */
function Range({ spec, onSpec }: { spec: SettingSpec; onSpec: (spec: SettingSpec) => void }) {
  if (spec.kind === 'mute')
    return (
      <Choice
        label={`${spec.id} as it comes`}
        value={spec.default ? 'on' : 'off'}
        options={[
          ['off', 'off as it comes'],
          ['on', 'on as it comes'],
        ]}
        onChange={(v) => onSpec({ ...spec, default: v === 'on' })}
      />
    );
  if (spec.kind === 'switch')
    return (
      <span className="row">
        <Input
          aria-label={`Positions of ${spec.id}`}
          title="Positions, with commas between"
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
          label={`${spec.id} as it comes`}
          value={spec.default}
          options={spec.options.map((o) => [o.value, `${o.label} as it comes`] as const)}
          onChange={(v) => onSpec({ ...spec, default: v })}
        />
      </span>
    );
  return (
    <span className="row">
      {(['min', 'max', 'step', 'default'] as const).map((key) => (
        <NumberField
          key={key}
          label={`${spec.id}, ${{ min: 'from', max: 'to', step: 'steps of', default: 'as it comes' }[key]}`}
          value={spec[key]}
          onChange={(value) => onSpec({ ...spec, [key]: value })}
        />
      ))}
      <span className="quiet">{unitOf(spec)}</span>
      {spec.kind === 'value' && (
        <Choice
          label={`What ${spec.id} sets`}
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
    return { ...base, kind, unit: 'Hz', min: 20, max: 300, step: 1, default: 20, off: 20, treats: 'lowCut.hz' };
  return { ...base, kind, options: positionsOf('one, two'), default: 'one' };
}
