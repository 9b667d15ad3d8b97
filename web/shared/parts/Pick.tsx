import { createListCollection, Input, Listbox } from '@chakra-ui/react';
import { rollup } from 'd3-array';
import { Fragment, type KeyboardEvent, type ReactNode, useEffect, useMemo, useRef, useState } from 'react';
import { parts as say } from '#words/index.ts';

export interface PickItem {
  readonly id: string;
  /** What is searched and shown first. */
  readonly label: string;
  /** Searched too, and shown below in the second ink. */
  readonly note?: string;
  readonly mark?: ReactNode;
  /** Searched too, and not shown: other names, what it is for. */
  readonly also?: string;
  /** Its heading while nothing is typed. */
  readonly group?: string;
}

interface Props {
  readonly label: string;
  readonly items: readonly PickItem[];
  readonly onPick: (id: string) => void;
  readonly placeholder?: string;
  /** What to say when nothing matches. */
  readonly none?: string;
  readonly autoFocus?: boolean;
  /** After one is taken the field is empty again, for the next; Enter in the empty field takes the same again. */
  readonly clears?: boolean;
  /** Ctrl and Enter. */
  readonly onSubmit?: () => void;
  /** Where the text is more than a search: what is shown instead of the list, and what Enter does. */
  readonly instead?: (text: string) => { readonly shown: ReactNode; readonly onEnter: () => void } | null;
}

const SHOWN = 60;
/** Nothing stays chosen: what is taken goes on at once. */
const NOTHING: string[] = [];
/** Where something is listed under headings, all of it is. */
const shownOf = (items: readonly PickItem[], search: string): PickItem[] =>
  search.trim() === '' && items.some((i) => i.group) ? [...items] : filterItems(items, search).slice(0, SHOWN);

/** All words have to stand somewhere; what begins with them comes first, what is only meant by them last. */
export function filterItems(items: readonly PickItem[], search: string): PickItem[] {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0) return [...items];
  const has = (text: string) => words.every((w) => text.toLowerCase().includes(w));
  const whole = search.trim().toLowerCase();
  const isNamed = ({ label, note = '' }: PickItem) => has(`${label} ${note}`);
  const isMeant = ({ label, also }: PickItem) => also !== undefined && has(`${label} ${also}`);
  // A name as people say it, all of it: before what only has the words somewhere.
  const isCalled = ({ also }: PickItem) => also?.toLowerCase().split(', ').includes(whole) ?? false;
  const begins = ({ label }: PickItem) =>
    label
      .toLowerCase()
      .split(/[\s,]+/)
      .some((w) => w.startsWith(words[0]!));
  const rank = (i: PickItem): number =>
    (i.label.toLowerCase() === whole ? 0 : 8) + (isCalled(i) ? 0 : 4) + (begins(i) ? 0 : 2) + (isNamed(i) ? 0 : 1);
  return items
    .filter((i) => isNamed(i) || isMeant(i))
    .map((item) => ({ item, rank: rank(item) }))
    .sort((x, y) => x.rank - y.rank)
    .map(({ item }) => item);
}

/** A list that one searches by typing and chooses from by arrow keys and Enter, or by pointer. */
export function Pick({
  label,
  items,
  onPick,
  placeholder = say.typeToSearch(),
  none = say.noMatches(),
  autoFocus = false,
  clears = false,
  onSubmit,
  instead,
}: Props) {
  const [search, setSearch] = useState('');
  const [at, setAt] = useState(0);
  const field = useRef<HTMLInputElement>(null);
  const last = useRef<string | null>(null);
  const shown = useMemo(() => shownOf(items, search), [items, search]);
  const collection = useMemo(
    () => createListCollection({ items: shown, itemToValue: (i) => i.id, itemToString: (i) => i.label }),
    [shown],
  );
  const more = search.trim() === '' ? 0 : filterItems(items, search).length - shown.length;
  const groups = rollup(
    search.trim() === '' ? shown : [],
    (of) => of.length,
    (i) => i.group,
  );
  const current = shown[Math.min(at, shown.length - 1)];
  useEffect(() => {
    if (autoFocus) field.current?.focus();
  }, [autoFocus]);
  const other = instead?.(search) ?? null;
  const searchFor = (text: string) => {
    setSearch(text);
    setAt(0);
  };
  const take = (id: string) => {
    onPick(id);
    if (!clears) return;
    last.current = id;
    searchFor('');
    field.current?.focus();
  };
  /** What Enter does besides taking what is marked. */
  const onEnter = (e: KeyboardEvent): (() => void) | null => {
    if (e.key !== 'Enter') return null;
    if (other) return other.onEnter;
    if (onSubmit && (e.ctrlKey || e.metaKey)) return onSubmit;
    return clears && search === '' ? () => last.current && onPick(last.current) : null;
  };
  return (
    <Listbox.Root
      collection={collection}
      value={NOTHING}
      onValueChange={({ value: [id] }) => id !== undefined && take(id)}
      highlightedValue={current?.id ?? null}
      onHighlightChange={({ highlightedValue: id }) => id !== null && setAt(shown.findIndex((i) => i.id === id))}
    >
      <Listbox.Input asChild>
        <Input
          ref={field}
          width="100%"
          role="combobox"
          aria-label={label}
          aria-expanded="true"
          placeholder={placeholder}
          value={search}
          onChange={(e) => searchFor(e.target.value)}
          onKeyDownCapture={(e) => {
            const act = onEnter(e);
            if (!act) return;
            e.preventDefault();
            act();
          }}
        />
      </Listbox.Input>
      {other?.shown}
      <Listbox.Content hidden={other !== null} aria-label={label} tabIndex={-1} className="pick">
        {shown.map((item, i) => (
          <Fragment key={item.id}>
            {item.group && groups.has(item.group) && item.group !== shown[i - 1]?.group && (
              <p className="pick-group small" role="presentation">
                {item.group} <span className="quiet">{groups.get(item.group)}</span>
              </p>
            )}
            {/* Marked before the first key as well. */}
            <Listbox.Item item={item} data-highlighted={item === current ? '' : undefined}>
              {item.mark} {item.label}
              {item.note && <div className="small quiet">{item.note}</div>}
            </Listbox.Item>
          </Fragment>
        ))}
        {more > 0 && <p className="small quiet">{say.moreMatchTypeAnother({ more })}</p>}
        {shown.length === 0 && <p className="quiet">{none}</p>}
      </Listbox.Content>
    </Listbox.Root>
  );
}
