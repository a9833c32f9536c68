import { findingWords, harmName, harms, type Finding, type Harm } from '@zest/core/checks';
import { findBlock, type Lesson } from '@zest/core/lesson';
import { clockText } from '@zest/core/time';
import { View } from '@react-pdf/renderer';
import { Heading, Sheet, styles, Table, toPdf, Words, type Column } from './sheet.tsx';

/** A finding as it is reported: where it lies in words, and no remedy, which paper cannot do. */
export interface ReportedFinding {
  harm: Harm;
  where: string;
  say: string;
  why: string;
  waived: string | null;
}

/** What the check found, for paper. */
export function reported(lesson: Lesson, findings: readonly Finding[]): ReportedFinding[] {
  return findings.map((finding) => {
    const { harm, blockId, atMs, waived } = finding;
    const { say, why } = findingWords(finding);
    const block = blockId === null ? null : findBlock(lesson, blockId);
    return {
      harm,
      where: [atMs === null ? '' : clockText(atMs), block ? block.title : 'Whole lesson']
        .filter((text) => text !== '')
        .join(' '),
      say,
      why,
      waived,
    };
  });
}

const SIZE = 9;

/**
 * The check's report: open findings by what a student would suffer, with room to tick them off,
 * then those ignored, with the reason.
 */
export function checkReportPdf(
  title: string,
  place: string,
  findings: readonly ReportedFinding[],
): Promise<Buffer> {
  const open = findings.filter(({ waived }) => waived === null);
  const left = findings.filter(({ waived }) => waived !== null);
  const columns: Column<ReportedFinding>[] = [
    { name: 'Where', part: 18, text: ({ where }) => where },
    { name: 'What', part: 40, text: ({ say }) => say, style: () => styles.bold },
    { name: 'Why', part: 34, text: ({ why }) => why },
    { name: 'Done', part: 8, text: () => '' },
  ];
  const keptColumns: Column<ReportedFinding>[] = [
    { name: 'Where', part: 18, text: ({ where }) => where },
    { name: 'What', part: 46, text: ({ say }) => say },
    {
      name: 'Why it’s fine here',
      part: 36,
      text: ({ waived }) => waived ?? '',
      style: () => styles.bold,
    },
  ];
  return toPdf(
    <Sheet title={`Check: ${title}`} place={place} size={SIZE}>
      <Words>
        {open.length === 0
          ? 'Nothing stands in the way.'
          : `${open.length} to look at, ${left.length} ignored.`}
      </Words>
      {harms.map((harm) => {
        const ofHarm = open.filter((finding) => finding.harm === harm);
        return ofHarm.length === 0 ? null : (
          <View key={harm}>
            <Heading size={SIZE}>{`${harmName(harm)} (${ofHarm.length})`}</Heading>
            <Table columns={columns} rows={ofHarm} />
          </View>
        );
      })}
      {left.length > 0 && <Heading size={SIZE}>{`Ignored (${left.length})`}</Heading>}
      {left.length > 0 && <Table columns={keptColumns} rows={left} />}
    </Sheet>,
  );
}
