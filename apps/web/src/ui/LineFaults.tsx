/** More are only counted. */
const MOST_SAID = 8;

/** What is wrong with lines of a table, the first of them one by one. */
export function LineFaults({ faults }: { faults: readonly { line: number; say: string }[] }) {
  return (
    <>
      {faults.slice(0, MOST_SAID).map(({ line, say }) => (
        <div key={line}>
          Line {line}: {say}
        </div>
      ))}
      {faults.length > MOST_SAID && <div>and {faults.length - MOST_SAID} more</div>}
    </>
  );
}
