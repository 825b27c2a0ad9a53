/** Reads PDFs for tests: the text of every page. */

import { createRequire } from 'node:module';

/** Without what the reader remarks about pictures, which nobody asks it for here. */
function reader(): typeof import('pdfjs-dist/legacy/build/pdf.js') {
  const { log } = console;
  console.log = () => undefined;
  try {
    return createRequire(__filename)('pdfjs-dist/legacy/build/pdf.js');
  } finally {
    console.log = log;
  }
}

export async function pdfText(pdf: Uint8Array): Promise<string[]> {
  const { getDocument } = reader();
  const doc = await getDocument({ data: new Uint8Array(pdf), isEvalSupported: false, verbosity: 0 }).promise;
  const pages = Array.from({ length: doc.numPages }, async (_, i) => {
    const { items } = await (await doc.getPage(i + 1)).getTextContent();
    return items.map((item) => ('str' in item ? item.str : '')).join(' ');
  });
  return Promise.all(pages);
}
