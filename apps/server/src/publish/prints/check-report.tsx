import { byCause, causeWords, harmName, harms, type Finding, type Harm } from '@zest/core/checks';
import { findBlock, type Lesson } from '@zest/core/lesson';
import { clockText } from '@zest/core/time';
import { View } from '@react-pdf/renderer';
import { teacherText } from '@zest/core/words';
import { Heading, Sheet, styles, Table, toPdf, Words, type Column } from './sheet.tsx';

/** Findings of one cause as they are reported: where they lie, and no remedy, which paper cannot do. */
export interface ReportedFinding {
  harm: Harm;
  where: string;
  say: string;
  why: string;
  waived: string | null;
}

/** So many places of one cause are named. */
const MOST_PLACES = 6;

function placesOf(lesson: Lesson, findings: readonly Finding[]): string {
  const places = findings.map(({ blockId, atMs }) => {
    const block = blockId === null ? null : findBlock(lesson, blockId);
    const name = block ? block.title : teacherText('report.whole-lesson');
    return atMs === null ? name : `${clockText(atMs)} ${name}`;
  });
  const named = [...new Set(places)];
  const more = named.length - MOST_PLACES;
  return more > 0
    ? teacherText('report.places', { places: named.slice(0, MOST_PLACES).join(', '), more })
    : named.join(', ');
}

/** What the check found, for paper: open findings by their cause, those ignored one by one. */
export function reported(lesson: Lesson, findings: readonly Finding[]): ReportedFinding[] {
  const isOpen = ({ waived }: Finding) => waived === null;
  const ignored = findings.filter((finding) => !isOpen(finding));
  const causes = [
    ...byCause(findings.filter(isOpen)),
    ...ignored.flatMap((finding) => byCause([finding])),
  ];
  return causes.map((cause) => ({
    harm: cause.harm,
    where: placesOf(lesson, cause.findings),
    ...causeWords(cause),
    waived: cause.findings[0].waived,
  }));
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
    { name: teacherText('report.where'), part: 18, text: ({ where }) => where },
    {
      name: teacherText('report.what'),
      part: 40,
      text: ({ say }) => say,
      style: () => styles.bold,
    },
    { name: teacherText('common.why'), part: 34, text: ({ why }) => why },
    { name: teacherText('report.done'), part: 8, text: () => '' },
  ];
  const keptColumns: Column<ReportedFinding>[] = [
    { name: teacherText('report.where'), part: 18, text: ({ where }) => where },
    { name: teacherText('report.what'), part: 46, text: ({ say }) => say },
    {
      name: teacherText('report.fine'),
      part: 36,
      text: ({ waived }) => waived ?? '',
      style: () => styles.bold,
    },
  ];
  return toPdf(
    <Sheet title={teacherText('report.title', { title })} place={place} size={SIZE}>
      <Words>
        {open.length === 0
          ? teacherText('report.nothing')
          : teacherText('report.count', { open: open.length, ignored: left.length })}
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
      {left.length > 0 && (
        <Heading size={SIZE}>{teacherText('report.ignored', { n: left.length })}</Heading>
      )}
      {left.length > 0 && <Table columns={keptColumns} rows={left} />}
    </Sheet>,
  );
}
