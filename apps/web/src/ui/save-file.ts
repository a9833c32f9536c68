import { teacherText } from '@zest/core/words';
import { problemSchema } from '@zest/contract';

function hand(name: string, content: Blob): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(content);
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}

/** Hands the user a file made in the page. */
export function saveFile(name: string, content: string, type: string): void {
  hand(name, new Blob([content], { type }));
}

/** Spreadsheets know UTF-8 by the mark at its beginning. */
const UTF8_MARK = '\uFEFF';

/** Hands the user a table made in the page. */
export const saveCsv = (name: string, content: string): void =>
  saveFile(name, UTF8_MARK + content, 'text/csv');

/** Hands the user a file the server makes. Gives what went wrong in words, or null. */
export async function fetchFile(name: string, url: string): Promise<string | null> {
  try {
    const answer = await fetch(url);
    if (answer.ok) {
      hand(name, await answer.blob());
      return null;
    }
    const known = problemSchema.safeParse(await answer.json());
    return known.success ? known.data.message : teacherText('ui.server-did-not-make');
  } catch {
    return teacherText('ui.server-does-not-answer');
  }
}
