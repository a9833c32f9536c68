/**
 * One line of JSON to standard error with the time; for an operator and for programs that collect
 * them. No names of people go in.
 */
export function logger(part: string): (line: string) => void {
  return (line) =>
    process.stderr.write(`${JSON.stringify({ at: new Date().toISOString(), part, say: line })}\n`);
}
