/** What a button of the page does, found by its name. */
export interface Act {
  readonly id: string;
  readonly label: string;
  /** The heading that it is below; null at the top of the page. */
  readonly section: string | null;
  readonly run: () => void;
}

const HEADING = 'h2, h3';

/** What a person reads on it, without the key that it bears. */
function nameOf(button: HTMLElement): string {
  const given = button.getAttribute('aria-label');
  if (given) return given;
  const copy = button.cloneNode(true) as HTMLElement;
  for (const key of copy.querySelectorAll('kbd')) key.remove();
  return copy.textContent?.replace(/\s+/g, ' ').trim() ?? '';
}

/**
 * Everything that can be pressed on a page, without what has a key and so stands in the list already.
 * @param page  of the frame: the page itself, and its top line
 * @param known  the names of what has a key
 */
export function actsOn(page: ParentNode, known: ReadonlySet<string>): Act[] {
  const acts = new Map<string, Act>();
  const headings = [...page.querySelectorAll(HEADING)];
  const buttons = page.querySelectorAll<HTMLElement>('.button:not(:disabled):not([aria-disabled=true])');
  buttons.forEach((button, at) => {
    const label = nameOf(button);
    if (!/\p{L}{2}/u.test(label) || known.has(label) || button.closest('[hidden], [role=dialog]')) return;
    const before = headings.filter((h) => h.compareDocumentPosition(button) & Node.DOCUMENT_POSITION_FOLLOWING);
    const section = before.at(-1)?.textContent?.trim() ?? null;
    const name = `${label} ${section}`;
    // Of many of one name in a list the first one.
    if (!acts.has(name)) acts.set(name, { id: String(at), label, section, run: () => press(button) });
  });
  return [...acts.values()];
}

/** Brings it into sight, and presses it: focus is there, as after a click. */
function press(button: HTMLElement): void {
  if (!button.isConnected) return;
  button.scrollIntoView({ block: 'center' });
  button.focus();
  button.click();
}
