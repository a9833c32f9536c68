/** Gives a draft a part it may have, or takes it away: what is not said is not stored. */
export function setOrLeave<D extends object, K extends keyof D>(
  draft: D | undefined,
  key: K,
  value: D[K] | undefined,
): void {
  if (!draft) return;
  if (value === undefined) delete draft[key];
  else draft[key] = value;
}
