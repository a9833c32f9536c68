import { isTeacherWord, teacherText, type TeacherWord } from '../words/index.ts';
import { findingWords, type Finding, type FindingWords, type Harm } from './finding.ts';

/** Findings that have one cause: told in one line, put right or left together. */
export interface Cause {
  /** Tells it from all others of the lesson. */
  key: string;
  harm: Harm;
  /** At least one, in the order of the lesson. */
  findings: readonly [Finding, ...Finding[]];
}

const wordForMany = ({ rule }: Finding): TeacherWord | null => {
  const word = `check.${rule}.many`;
  return isTeacherWord(word) ? word : null;
};

/** The key of the cause a finding belongs to; what is told of many at once shares its rule's. */
export const causeOf = (finding: Finding): string =>
  wordForMany(finding) ? `${finding.rule} ${finding.harm}` : finding.key;

/** Findings by their cause, in their own order. */
export function byCause(findings: readonly Finding[]): Cause[] {
  const causes = new Map<string, [Finding, ...Finding[]]>();
  for (const finding of findings) {
    const key = causeOf(finding);
    const known = causes.get(key);
    if (known) known.push(finding);
    else causes.set(key, [finding]);
  }
  return [...causes].map(([key, found]) => ({ key, harm: found[0].harm, findings: found }));
}

/** A cause in words; one that has several findings is told with their number. */
export function causeWords({ findings }: Cause): FindingWords {
  const [first] = findings;
  const words = findingWords(first);
  const many = findings.length > 1 ? wordForMany(first) : null;
  return many === null
    ? words
    : { ...words, say: teacherText(many, { ...first.figures, n: findings.length }) };
}
