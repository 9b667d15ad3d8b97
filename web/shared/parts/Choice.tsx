import { NativeSelect } from '@chakra-ui/react';

interface ChoiceProps {
  readonly label: string;
  readonly value: string;
  readonly options: readonly (readonly [string, string])[];
  readonly onChange: (value: string) => void;
  /** Why it cannot be chosen here. */
  readonly disabled?: string;
}

/** One of several, by the browser's own list. */
export function Choice({ label, value, options, onChange, disabled }: ChoiceProps) {
  return (
    <NativeSelect.Root {...(disabled ? { disabled: true, title: disabled } : {})}>
      <NativeSelect.Field aria-label={label} value={value} onChange={(e) => onChange(e.target.value)}>
        {options.map(([id, name]) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </NativeSelect.Field>
      <NativeSelect.Indicator />
    </NativeSelect.Root>
  );
}
