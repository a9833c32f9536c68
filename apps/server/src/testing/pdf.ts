import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

/** Text of each page as pdf.js, a reader from outside the project, has it. */
export async function pdfPages(bytes: Uint8Array): Promise<string[]> {
  const document = await getDocument({ data: bytes, verbosity: 0 }).promise;
  return Promise.all(
    Array.from({ length: document.numPages }, async (_, i) => {
      const { items } = await (await document.getPage(i + 1)).getTextContent();
      // A letter may be drawn as two marks, of which the second stands for no letter.
      return items.map((item) => ('str' in item ? item.str : '')).join(' ').replace(/\p{Cc}/gu, '').replace(/\s+/g, ' ');
    }),
  );
}
