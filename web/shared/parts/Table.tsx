import { Table as ChakraTable } from '@chakra-ui/react';
import type { ReactNode } from 'react';

type Props = ChakraTable.RootProps & {
  /** Rows as low as their text. */
  readonly tight?: boolean;
};

/** A table. Its rows and cells are plain elements, which the theme's recipe for tables styles. */
export const Table = ({ tight = false, ...props }: Props) => (
  <ChakraTable.Root native size={tight ? 'sm' : 'md'} {...props} />
);

interface Column {
  readonly of: ReactNode;
  readonly as?: 'number' | 'hidden';
}
export const plain = (of: ReactNode): Column => ({ of });
/** Over figures. */
export const figures = (of: ReactNode): Column => ({ of, as: 'number' });
/** Read out, and not shown: what a column holds is plain to the eye. */
export const hidden = (of: ReactNode): Column => ({ of, as: 'hidden' });

/** The head of a table: a row of what its columns are. */
export const Head = ({ columns }: { columns: readonly (Column | string)[] }) => (
  <thead>
    <tr>
      {columns.map((c, i) => {
        const { of, as } = typeof c === 'string' ? plain(c) : c;
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: columns stay in their order
          <th key={i} scope="col" className={as === 'number' ? 'number' : undefined}>
            {as === 'hidden' ? <span className="visually-hidden">{of}</span> : of}
          </th>
        );
      })}
    </tr>
  </thead>
);
