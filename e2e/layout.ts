import type { Page } from '@playwright/test';

/** A letter lower than this is read by few. */
const LEAST_LETTER_PX = 12;

/** What is wrong with texts on a page as it is drawn, one line each. */
interface TextFaults {
  /** Under 12 px as drawn: text of a drawing counts with its zoom. */
  readonly small: readonly string[];
  /** Lines that reach out of what clips them, where neither an ellipsis nor a title says so. */
  readonly cut: readonly string[];
  /** Lines that cross each other. */
  readonly overlapping: readonly string[];
}

/** Reads every line of text by the rectangles that it takes: of pages and of drawings, as far as they are shown. */
export const textFaults = (page: Page): Promise<TextFaults> =>
  page.evaluate((least) => {
    interface Box {
      left: number;
      top: number;
      right: number;
      bottom: number;
    }
    interface Line {
      readonly text: string;
      readonly node: Node;
      /** What it is over, where it is drawn over others: a sticky head, a panel. */
      readonly layer: Element | null;
      readonly box: Box;
    }
    const small = new Set<string>();
    const cut = new Set<string>();
    const overlapping = new Set<string>();
    const lines: Line[] = [];
    const meet = (a: Box, b: Box): Box => ({
      left: Math.max(a.left, b.left),
      top: Math.max(a.top, b.top),
      right: Math.min(a.right, b.right),
      bottom: Math.min(a.bottom, b.bottom),
    });
    const scaleOf = (element: Element): number =>
      element instanceof SVGGraphicsElement
        ? Math.hypot(element.getScreenCTM()?.a ?? 1, element.getScreenCTM()?.b ?? 0)
        : 1;

    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
      const element = node.parentElement!;
      const text = node.textContent!.trim();
      if (!text || element.closest('script, style, option, noscript, .visually-hidden, [aria-hidden=true] :not(svg *)'))
        continue;
      if (!element.checkVisibility({ opacityProperty: true, visibilityProperty: true })) continue;
      const range = document.createRange();
      range.selectNodeContents(node);
      const rects = [...range.getClientRects()].filter((r) => r.width > 0.5 && r.height > 0.5);
      if (rects.length === 0) continue;

      let shown: Box = { left: -1e6, top: -1e6, right: 1e6, bottom: 1e6 };
      /** What cuts for good; what scrolls does not. */
      let fixed: Box = { ...shown };
      let layer: Element | null = null;
      let isShortened = false;
      for (let at: Element | null = element; at && at !== document.documentElement; at = at.parentElement) {
        const style = getComputedStyle(at);
        if (['absolute', 'fixed', 'sticky'].includes(style.position)) layer ??= at;
        if (style.textOverflow === 'ellipsis' || style.webkitLineClamp !== 'none') isShortened = true;
        const box = at.getBoundingClientRect();
        const x = { ...shown, left: box.left, right: box.right };
        const y = { ...shown, top: box.top, bottom: box.bottom };
        if (style.overflowX !== 'visible') shown = meet(shown, x);
        if (style.overflowY !== 'visible') shown = meet(shown, y);
        const isDrawing = at instanceof SVGElement;
        if (['hidden', 'clip'].includes(style.overflowX) && !isDrawing)
          fixed = meet(fixed, { ...fixed, left: box.left, right: box.right });
        if (['hidden', 'clip'].includes(style.overflowY) && !isDrawing)
          fixed = meet(fixed, { ...fixed, top: box.top, bottom: box.bottom });
      }
      const size = Number.parseFloat(getComputedStyle(element).fontSize) * scaleOf(element);
      const isSeen = rects.some((r) => {
        const seen = meet(r, shown);
        return seen.right - seen.left > 1 && seen.bottom - seen.top > 1;
      });
      if (isSeen && size < least - 0.05) small.add(`${text.slice(0, 60)} (${size.toFixed(1)} px)`);
      for (const r of rects) {
        if (
          !isShortened &&
          isSeen &&
          (r.right > fixed.right + 2 || r.left < fixed.left - 2 || r.bottom > fixed.bottom + 4)
        )
          cut.add(text.slice(0, 80));
        const box = meet(r, shown);
        if (box.right - box.left > 3 && box.bottom - box.top > 3) lines.push({ text, node, layer, box });
      }
    }

    lines.sort((a, b) => a.box.top - b.box.top);
    lines.forEach((a, i) => {
      for (let j = i + 1; j < lines.length && lines[j]!.box.top < a.box.bottom - 4; j++) {
        const b = lines[j]!;
        // What is over the page covers it, and is not mixed up with it.
        if (a.node === b.node || a.layer !== b.layer) continue;
        const wide = Math.min(a.box.right, b.box.right) - Math.max(a.box.left, b.box.left);
        const high = Math.min(a.box.bottom, b.box.bottom) - Math.max(a.box.top, b.box.top);
        // Lines of one paragraph touch.
        if (wide > 3 && high > 6) overlapping.add(`${a.text.slice(0, 60)} / ${b.text.slice(0, 60)}`);
      }
    });
    return { small: [...small], cut: [...cut], overlapping: [...overlapping] };
  }, LEAST_LETTER_PX);
