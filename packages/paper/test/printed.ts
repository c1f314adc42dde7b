import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

/** One run of text on a page, in points from its lower left corner. */
export interface Run {
  page: number;
  x: number;
  y: number;
  text: string;
}

/** The text of a PDF as a reader that is not ours finds it. */
export async function runsOf(pdf: Uint8Array): Promise<{ pages: number; runs: Run[] }> {
  const document = await getDocument({ data: Uint8Array.from(pdf), verbosity: 0 }).promise;
  const runs: Run[] = [];
  for (let page = 1; page <= document.numPages; page++) {
    const { items } = await (await document.getPage(page)).getTextContent();
    for (const item of items) {
      if (!('str' in item) || item.str.trim() === '') continue;
      runs.push({ page, x: item.transform[4], y: item.transform[5], text: item.str });
    }
  }
  return { pages: document.numPages, runs };
}

/** The table of things as cells by the heads of its columns. */
export function tableOf(runs: readonly Run[]): Record<string, string>[] {
  const heads = ['Thing', 'Stands', 'Two tapes', 'Height', 'Faces', 'Set to', 'May be off by'].map((text) => {
    const run = runs.find((own) => own.text === text);
    if (!run) throw new Error(`there is no column ${text}`);
    return run;
  });
  const [first] = heads;
  const end = Math.min(...heads.map(({ x }) => x));
  const below = runs.filter(({ page, y }) => page === first?.page && y < (first?.y ?? 0) - 1);
  const foot = below.find(({ text }) => /^To be held closest|^Order of building/.test(text))?.y ?? 0;
  const column = ({ x }: Run) => heads.findLastIndex((head) => x >= head.x - 3);
  const cells = below.filter(({ x, y }) => y > foot && x >= end - 3);
  // Heights take one line each: where one stands, a row begins.
  const tops = cells.filter((run) => column(run) === 3).map(({ y }) => y);
  return tops.map((top, i) => {
    const next = tops[i + 1] ?? foot;
    const own = cells.filter(({ y }) => y <= top + 1 && y > next + 1);
    return Object.fromEntries(
      heads.map(({ text }, at) => [
        text,
        own
          .filter((run) => column(run) === at)
          .map((run) => run.text.trim())
          .join(' '),
      ]),
    );
  });
}
