import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

/** Text of each page as pdf.js, a reader from outside the project, has it. */
export async function pdfPages(bytes: Uint8Array): Promise<string[]> {
  const document = await getDocument({ data: bytes, verbosity: 0 }).promise;
  return Promise.all(
    Array.from({ length: document.numPages }, async (_, i) => {
      const { items } = await (await document.getPage(i + 1)).getTextContent();
      // A letter may be drawn as two marks, of which the second stands for no letter.
      return items
        .map((item) => ('str' in item ? item.str : ''))
        .join(' ')
        .replace(/\p{Cc}/gu, '')
        .replace(/\s+/g, ' ');
    }),
  );
}

interface Branch {
  role?: string;
  alt?: string;
  type?: string;
  id?: string;
  children?: Branch[];
}

export interface ReadAloud {
  title: string;
  language: string;
  /** What is read in order on each page: `role: text`, innermost roles only. */
  pages: string[][];
}

/** A document as a reader aloud has it: by its structure, which pdf.js hands out. */
export async function readAloud(bytes: Uint8Array): Promise<ReadAloud> {
  const document = await getDocument({ data: bytes, verbosity: 0 }).promise;
  const { info } = (await document.getMetadata()) as {
    info: { Title?: string; Language?: string };
  };
  if ((await document.getMarkInfo())?.Marked !== true)
    throw new Error('The document is not tagged.');
  const pages = Array.from({ length: document.numPages }, async (_, i) => {
    const page = await document.getPage(i + 1);
    const { items } = await page.getTextContent({ includeMarkedContent: true });
    const texts = new Map<string, string>();
    const open: string[] = [];
    for (const item of items) {
      if ('str' in item) {
        const id = open.findLast((tag) => tag !== '');
        if (id !== undefined) texts.set(id, (texts.get(id) ?? '') + item.str);
      } else if (item.type === 'endMarkedContent') open.pop();
      else open.push(item.id ?? '');
    }
    const read: string[] = [];
    const walk = ({ role, alt, children = [] }: Branch) => {
      const text = children
        .filter(({ type }) => type === 'content')
        .map(({ id }) => texts.get(id ?? '') ?? '')
        .join('');
      if (text !== '' || alt !== undefined)
        read.push(`${role}: ${(alt ?? text).replace(/\p{Cc}/gu, '').trim()}`);
      else if (role === 'Table' || role === 'L') read.push(role);
      for (const child of children) if (child.type !== 'content') walk(child);
    };
    walk((await page.getStructTree()) as unknown as Branch);
    return read;
  });
  return {
    title: info.Title ?? '',
    language: info.Language ?? '',
    pages: await Promise.all(pages),
  };
}
