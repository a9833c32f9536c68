import { teacherText } from '@zest/core/words';
/** More are only counted. */
const MOST_SAID = 8;

/** What is wrong with lines of a table, the first of them one by one. */
export function LineFaults({ faults }: { faults: readonly { line: number; say: string }[] }) {
  return (
    <>
      {faults.slice(0, MOST_SAID).map(({ line, say }) => (
        <div key={line}>{teacherText('ui.line', { line, say })}</div>
      ))}
      {faults.length > MOST_SAID && (
        <div>{teacherText('ui.more', { n: faults.length - MOST_SAID })}</div>
      )}
    </>
  );
}
