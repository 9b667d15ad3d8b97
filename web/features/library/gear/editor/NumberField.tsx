import { Input } from '@chakra-ui/react';
import { useState } from 'react';

interface Props {
  readonly label: string;
  readonly value: number;
  readonly onChange: (value: number) => void;
}

/** A number as one types it: what is none yet, '-' or '1,', stays in the field and changes nothing. */
export function NumberField({ label, value, onChange }: Props) {
  const [text, setText] = useState<string | null>(null);
  return (
    <Input
      aria-label={label}
      title={label}
      width="62px"
      textAlign="right"
      inputMode="decimal"
      value={text ?? String(value)}
      onChange={(e) => {
        setText(e.target.value);
        const typed = Number(e.target.value.replace(',', '.'));
        if (e.target.value.trim() !== '' && Number.isFinite(typed)) onChange(typed);
      }}
      onBlur={() => setText(null)}
    />
  );
}
