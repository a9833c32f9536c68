/** One line to standard error with the time; what an operator reads. */
export function logger(part: string): (line: string) => void {
  return (line) => process.stderr.write(`${new Date().toISOString()} ${part} ${line}\n`);
}
