import { Input } from '@chakra-ui/react';
import { Fragment, type KeyboardEvent, type ReactNode, useEffect, useId, useRef, useState } from 'react';
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
  const listId = useId();
  const list = useRef<HTMLDivElement>(null);
  const field = useRef<HTMLInputElement>(null);
  const shown = shownOf(items, search);
  const more = search.trim() === '' ? 0 : filterItems(items, search).length - shown.length;
  const groups = new Map<string, number>();
  for (const { group } of shown) if (group) groups.set(group, (groups.get(group) ?? 0) + 1);
  const isGrouped = search.trim() === '' && groups.size > 0;
  const current = shown[Math.min(at, shown.length - 1)];
  useEffect(() => {
    if (autoFocus) field.current?.focus();
  }, [autoFocus]);
  useEffect(() => {
    list.current?.querySelectorAll('[role=option]')[at]?.scrollIntoView?.({ block: 'nearest' });
  }, [at]);
  const other = instead?.(search) ?? null;
  const last = useRef<string | null>(null);
  const take = (id: string) => {
    onPick(id);
    if (!clears) return;
    last.current = id;
    setSearch('');
    setAt(0);
  };
  const onKeyDown = (e: KeyboardEvent) => {
    if (other) {
      if (e.key !== 'Enter') return;
      e.preventDefault();
      return other.onEnter();
    }
    if (onSubmit && e.key === 'Enter' && (e.ctrlKey || e.metaKey)) onSubmit();
    else if (e.key === 'ArrowDown') setAt(Math.min(shown.length - 1, at + 1));
    else if (e.key === 'ArrowUp') setAt(Math.max(0, at - 1));
    else if (e.key === 'Enter' && clears && search === '') {
      if (last.current) onPick(last.current);
    } else if (e.key === 'Enter' && current) take(current.id);
    else return;
    e.preventDefault();
  };
  return (
    <>
      <Input
        ref={field}
        width="100%"
        role="combobox"
        aria-label={label}
        aria-expanded="true"
        aria-controls={listId}
        aria-activedescendant={current ? `${listId}-${current.id}` : undefined}
        autoComplete="off"
        placeholder={placeholder}
        value={search}
        onChange={(e) => {
          setSearch(e.target.value);
          setAt(0);
        }}
        onKeyDown={onKeyDown}
      />
      {other?.shown}
      <div hidden={other !== null} ref={list} id={listId} role="listbox" aria-label={label} className="pick">
        {shown.map((item, i) => (
          <Fragment key={item.id}>
            {isGrouped && item.group && item.group !== shown[i - 1]?.group && (
              <p className="pick-group small" role="presentation">
                {item.group} <span className="quiet">{groups.get(item.group)}</span>
              </p>
            )}
            {/* biome-ignore lint/a11y/useKeyWithClickEvents: the field takes the keys */}
            <div
              id={`${listId}-${item.id}`}
              role="option"
              tabIndex={-1}
              aria-selected={item === current}
              onClick={() => take(item.id)}
            >
              {item.mark} {item.label}
              {item.note && <div className="small quiet">{item.note}</div>}
            </div>
          </Fragment>
        ))}
        {more > 0 && <p className="small quiet">{say.moreMatchTypeAnother({ more })}</p>}
        {shown.length === 0 && <p className="quiet">{none}</p>}
      </div>
    </>
  );
}
