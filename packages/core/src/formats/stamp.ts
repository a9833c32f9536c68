/** `hh:mm:ss` and the thousandths after `point`, as caption files write moments. */
export function clockStamp(ms: number, point: '.' | ','): string {
  const two = (n: number) => String(n).padStart(2, '0');
  const hours = Math.floor(ms / 3_600_000);
  const minutes = Math.floor(ms / 60_000) % 60;
  const seconds = Math.floor(ms / 1000) % 60;
  return `${two(hours)}:${two(minutes)}:${two(seconds)}${point}${String(ms % 1000).padStart(3, '0')}`;
}
