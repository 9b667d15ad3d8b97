import { useMemo } from 'react';
import { useParams, useSearchParams } from 'react-router';
import type { TakeRecord } from '#api/index.ts';
import { api } from '#web/shared/store/index.ts';
import { fileOf } from './files.ts';

export interface TakeAtHand {
  readonly id: string;
  readonly name: string;
  readonly record: TakeRecord | undefined;
}

/** The takes that the address names, in its order; a reload brings them back. Null until it is known what is kept. */
export function useTakesInAddress(most: number): {
  readonly takes: readonly TakeAtHand[] | null;
  /** Of these one was neither kept nor chosen in this page. */
  readonly missing: boolean;
  /** The way back to Measure with them. */
  readonly bench: string;
} {
  const { rigId } = useParams();
  const [params] = useSearchParams();
  const known = api.useTakesQuery(undefined);
  const address = params.get('takes') ?? '';
  const takes = useMemo(
    () =>
      known.data || known.isError
        ? address
            .split(',')
            .filter(Boolean)
            .slice(0, most)
            .map((id) => {
              const record = known.data?.find((t) => t.id === id);
              return { id, record, name: fileOf(id)?.name ?? record?.name ?? 'take' };
            })
        : null,
    [address, known.data, known.isError, most],
  );
  return {
    takes,
    missing: takes?.some((t) => !t.record && !fileOf(t.id)) ?? false,
    bench: `${rigId ? `/rigs/${rigId}` : ''}/bench?takes=${address}`,
  };
}
