import { Progress as ChakraProgress } from '@chakra-ui/react';

interface Props {
  /** What is under way. */
  readonly label: string;
  readonly value: number;
  readonly max?: number;
  readonly width?: string;
}

/** How far something has come. */
export const Progress = ({ label, value, max = 1, width = '160px' }: Props) => (
  <ChakraProgress.Root value={Math.max(0, Math.min(max, value))} max={max} width={width} flex="none">
    <ChakraProgress.Track aria-label={label}>
      <ChakraProgress.Range />
    </ChakraProgress.Track>
  </ChakraProgress.Root>
);
