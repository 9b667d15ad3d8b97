import type { Paper } from '#core/output/sheets/index.ts';

const SIZES: Record<Paper, string> = { a4: 'A4', letter: 'letter' };

/**
 * Prints sheets as pages of their own, each as large as the paper, and nothing else of the page. They stand in the
 * document only while the browser prints.
 */
export function printSheets(sheets: readonly string[], paper: Paper, across: boolean): void {
  const style = new CSSStyleSheet();
  style.replaceSync(`
    @page { size: ${SIZES[paper]} ${across ? 'landscape' : 'portrait'}; margin: 0; }
    @media screen { .print-sheets { display: none; } }
    @media print {
      body > *:not(.print-sheets) { display: none !important; }
      .print-sheets svg { display: block; break-after: page; break-inside: avoid; max-width: 100%; }
      .print-sheets svg:last-child { break-after: auto; }
    }
  `);
  const parser = new DOMParser();
  const pages = document.createElement('div');
  pages.className = 'print-sheets';
  pages.append(...sheets.map((sheet) => parser.parseFromString(sheet, 'image/svg+xml').documentElement));
  const done = () => {
    pages.remove();
    document.adoptedStyleSheets = document.adoptedStyleSheets.filter((s) => s !== style);
  };
  document.body.append(pages);
  document.adoptedStyleSheets = [...document.adoptedStyleSheets, style];
  window.addEventListener('afterprint', done, { once: true });
  window.print();
}
