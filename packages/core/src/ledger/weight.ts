/**
 * Usual weights in kilograms by age in years: medians, boys' and girls' averaged (CDC growth charts
 * 2000, from memory), and of grown-ups as energy tables take them (common practice).
 */
const KG_BY_AGE: readonly (readonly [age: number, kg: number])[] = [
  [3, 14],
  [5, 18],
  [8, 26],
  [10, 32],
  [12, 41],
  [14, 50],
  [16, 57],
  [18, 63],
  [20, 70],
];

/** Usual weight at an age in years, in kilograms. */
export function usualKg(age: number): number {
  const after = KG_BY_AGE.findIndex(([at]) => at >= age);
  const [from, to] = [KG_BY_AGE[after - 1], KG_BY_AGE[after] ?? KG_BY_AGE.at(-1)];
  if (!from || !to) return to?.[1] ?? 0;
  const [[a, low], [b, high]] = [from, to];
  return low + ((age - a) / (b - a)) * (high - low);
}

/**
 * Energy in kilocalories of so many MET-minutes at a weight: 1 kcal for each kilogram and hour of
 * 1 MET (2011 Compendium of Physical Activities).
 */
export const kcalOf = (metMinutes: number, kg: number): number => (metMinutes * kg) / 60;
