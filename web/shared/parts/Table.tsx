import { Table as ChakraTable } from '@chakra-ui/react';

type Props = ChakraTable.RootProps & {
  /** Rows as low as their text. */
  readonly tight?: boolean;
};

/** A table. Its rows and cells are plain elements, which the theme's recipe for tables styles. */
export const Table = ({ tight = false, ...props }: Props) => (
  <ChakraTable.Root native size={tight ? 'sm' : 'md'} {...props} />
);
