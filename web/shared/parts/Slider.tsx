import { Slider as ChakraSlider } from '@chakra-ui/react';

interface Props {
  readonly label: string;
  readonly value: number;
  readonly min: number;
  readonly max: number;
  readonly step?: number;
  readonly width?: string;
  /** The value in words, for those who hear it. */
  readonly says?: string;
  readonly onValue: (value: number) => void;
}

/** A value that is moved by pointer or arrow keys. */
export const Slider = ({ label, value, min, max, step = 1, width = '130px', says, onValue }: Props) => (
  <ChakraSlider.Root
    aria-label={[label]}
    value={[value]}
    min={min}
    max={max}
    step={step}
    width={width}
    getAriaValueText={({ value: now }) => says ?? String(now)}
    onValueChange={({ value: [now] }) => now !== undefined && onValue(now)}
  >
    <ChakraSlider.Control>
      <ChakraSlider.Track>
        <ChakraSlider.Range />
      </ChakraSlider.Track>
      <ChakraSlider.Thumb index={0}>
        <ChakraSlider.HiddenInput />
      </ChakraSlider.Thumb>
    </ChakraSlider.Control>
  </ChakraSlider.Root>
);
