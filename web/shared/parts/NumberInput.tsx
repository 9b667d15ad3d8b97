import { Field, Input } from '@chakra-ui/react';
import { useState } from 'react';
import { parts as say } from '#words/index.ts';

interface Props {
  readonly label: string;
  /** Undefined: no value, and the field is empty. */
  readonly value: number | undefined;
  /** The range that it may be in; any, where absent. */
  readonly min?: number;
  readonly max?: number;
  readonly onValue: (value: number | undefined) => void;
  readonly id?: string;
  readonly width?: string;
  readonly placeholder?: string;
  /** Where the focus goes when it is done by Enter; it stays here where absent. */
  readonly onEnter?: () => void;
}

/** A number, typed with comma or point and either minus; empty says nothing. It counts when one leaves it, or at Enter. */
export function NumberInput({
  label,
  value,
  min = Number.NEGATIVE_INFINITY,
  max = Number.POSITIVE_INFINITY,
  onValue,
  id,
  width = '64px',
  placeholder,
  onEnter,
}: Props) {
  const now = value === undefined ? '' : String(value);
  const [text, setText] = useState(now);
  const [before, setBefore] = useState(now);
  // Another value from outside, an undo for instance, replaces what is typed.
  if (before !== now) {
    setBefore(now);
    setText(now);
  }
  const typed = Number(text.replace(',', '.').replace('−', '-'));
  const empty = text.trim() === '';
  const valid = empty || (Number.isFinite(typed) && typed >= min && typed <= max);
  const settle = () => {
    if (valid && text.trim() !== now) onValue(empty ? undefined : typed);
  };
  return (
    <Field.Root invalid={!valid} role="presentation" display="inline-flex" width="auto" {...(id && { id })}>
      <Input
        aria-label={label}
        title={label}
        width={width}
        textAlign="right"
        inputMode="decimal"
        placeholder={placeholder}
        value={text}
        onChange={(e) => setText(e.target.value)}
        onBlur={settle}
        onKeyDown={(e) => {
          if (e.key !== 'Enter') return;
          // Leaving it is what settles it: once, and not a second time when the focus has gone.
          if (!onEnter) return settle();
          e.currentTarget.blur();
          onEnter();
        }}
      />
      <Field.ErrorText>{Number.isFinite(max - min) ? say.numberFromTo({ min, max }) : say.aNumber()}</Field.ErrorText>
    </Field.Root>
  );
}
