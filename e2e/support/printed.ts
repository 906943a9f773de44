import type { Page } from '@playwright/test';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

/** Points of a PDF in a millimetre. */
const POINTS_A_MM = 72 / 25.4;

/** A sheet of paper as it comes out of the printer. */
export interface PrintedSheet {
  /** Lengths of the rulers on it, of what says that it is 50 mm. */
  readonly rulersMm: readonly number[];
  readonly texts: readonly { readonly text: string; readonly xMm: number; readonly yMm: number }[];
}

/** The page on paper of a size. */
export async function printed(page: Page, format: 'A4' | 'Letter'): Promise<PrintedSheet[]> {
  const pdf = await page.pdf({ format, preferCSSPageSize: true });
  const document = await getDocument({ data: new Uint8Array(pdf) }).promise;
  const sheets: PrintedSheet[] = [];
  for (let i = 1; i <= document.numPages; i += 1) {
    const content = await (await document.getPage(i)).getTextContent();
    const texts = content.items.flatMap((item) =>
      'str' in item && item.str.trim() !== ''
        ? [
            {
              text: item.str.trim(),
              xMm: (item.transform[4] as number) / POINTS_A_MM,
              yMm: (item.transform[5] as number) / POINTS_A_MM,
            },
          ]
        : [],
    );
    const rulersMm = texts
      .filter((t) => t.text === '50' || t.text === '50 mm')
      .flatMap((end) =>
        texts
          .filter((t) => t.text === '0' && Math.abs(t.yMm - end.yMm) < 0.5)
          .map((begin) => end.xMm - begin.xMm),
      );
    sheets.push({ rulersMm, texts });
  }
  return sheets;
}
