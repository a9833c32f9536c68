import type { Print } from '@zest/contract';
import { callSheet, changeText, frameShot, type CallSheetLine } from '@zest/core/framing';
import { kitLedger, spaceLedger } from '@zest/core/ledger';
import { blocksOf, needsText, spaceText, type Lesson } from '@zest/core/lesson';
import {
  blockSummary,
  runSheet,
  scheduleLesson,
  type RunSheetLine,
  type Schedule,
} from '@zest/core/schedule';
import { clockText, lengthText } from '@zest/core/time';
import { View } from '@react-pdf/renderer';
import { checkReportPdf, type ReportedFinding } from './check-report.tsx';
import {
  Heading,
  INK,
  List,
  Sheet,
  styles,
  Table,
  toPdf,
  Words,
  type Column,
  type Style,
} from './sheet.tsx';

function placeOf({ series, audience }: Lesson): string {
  const level = series.level === 'standard' ? '' : `${series.level} form`;
  return [
    series.name,
    series.week === null ? '' : `week ${series.week}`,
    level,
    `ages ${audience.ageFrom} to ${audience.ageTo}`,
  ]
    .filter((text) => text !== '')
    .join(' · ');
}

function roomOf(lesson: Lesson): string {
  const [width, depth, height] = spaceLedger(lesson).needs;
  if (!width || !depth || !height) return '';
  const shown = (cm: number) => spaceText(cm, lesson.settings.units);
  return `Room: ${shown(width.cm)} wide, ${shown(depth.cm)} deep, ${shown(height.cm)} high`;
}

const kitOf = (schedule: Schedule, { settings }: Lesson) =>
  kitLedger(schedule, settings.language).map(
    ({ name, needs, standIns }) =>
      `${name}: ${needsText(needs)}${standIns.length > 0 ? ` (or ${standIns.join(', or ')})` : ''}`,
  );
const cautionsOf = (lesson: Lesson) =>
  [...new Set(blocksOf(lesson).flatMap(({ cautions }) => cautions))].filter(
    (text) => text.trim() !== '',
  );

interface PlanRow {
  startMs: number;
  studentStartMs: number;
  title: string;
  isSection: boolean;
  length: string;
  what: string;
  cues: string;
}

function planRows({ sections }: Schedule, withBlocks: boolean): PlanRow[] {
  return sections.flatMap(({ section, blocks, startMs, studentStartMs, durationMs }) => {
    const head: PlanRow = {
      startMs,
      studentStartMs,
      title: section.title,
      isSection: true,
      length: lengthText(durationMs),
      what: withBlocks ? '' : `${blocks.length} blocks`,
      cues: '',
    };
    const rows = blocks.map(({ block, ...at }): PlanRow => {
      const pause = block.pauseAfter
        ? `, then ${lengthText(block.pauseAfter.practiceMs)} off the video`
        : '';
      return {
        ...at,
        title: block.title,
        isSection: false,
        length: lengthText(at.durationMs),
        what: blockSummary(block) + pause,
        cues: block.cues
          .map(({ text }) => text)
          .filter((text) => text !== '')
          .join(' / '),
      };
    });
    return withBlocks ? [head, ...rows] : [head];
  });
}

const bold = (row: { isSection: boolean }): Style => (row.isSection ? styles.bold : {});

function Plan({
  lesson,
  schedule,
  size,
  detail,
  onPages,
}: {
  lesson: Lesson;
  schedule: Schedule;
  size: number;
  detail: Detail;
  onPages: (n: number) => void;
}) {
  const columns: Column<PlanRow>[] = [
    { name: 'Video', part: 6, text: ({ startMs }) => clockText(startMs) },
    { name: 'Student', part: 7, text: ({ studentStartMs }) => clockText(studentStartMs) },
    { name: 'Block', part: 20, text: ({ title }) => title, style: bold },
    { name: 'Length', part: 10, text: ({ length }) => length },
    { name: 'What', part: 28, text: ({ what }) => what },
    ...(detail === 'cues' ? [{ name: 'Cues', part: 28, text: ({ cues }: PlanRow) => cues }] : []),
  ];
  const kit = kitOf(schedule, lesson);
  const care = cautionsOf(lesson);
  return (
    <Sheet
      title={lesson.title}
      place={placeOf(lesson)}
      size={size}
      language={lesson.settings.language}
      onPages={onPages}
    >
      <Words style={styles.bold}>{lesson.outcome}</Words>
      <Words>
        {[
          `Video ${clockText(schedule.videoMs)}, with pauses ${clockText(schedule.studentMs)}`,
          roomOf(lesson),
        ]
          .filter((text) => text !== '')
          .join('. ')}
      </Words>
      <Words>{kit.length > 0 ? `What is needed: ${kit.join('; ')}` : ''}</Words>
      <Words>{care.length > 0 ? `Care: ${care.join(' ')}` : ''}</Words>
      <View style={{ marginTop: size * 0.6 }}>
        <Table columns={columns} rows={planRows(schedule, detail !== 'sections')} />
      </View>
      {detail === 'sections' && (
        <Words style={styles.soft}>
          The blocks are on the run sheet: there are too many for one page.
        </Words>
      )}
    </Sheet>
  );
}

type Detail = 'cues' | 'blocks' | 'sections';
/** Tried in turn until the plan is one page. */
const PLAN_TRIES: readonly (readonly [number, Detail])[] = [
  [10, 'cues'],
  [8.5, 'cues'],
  [7.5, 'cues'],
  [7, 'blocks'],
  [6, 'blocks'],
  [7, 'sections'],
];

async function planPdf(lesson: Lesson, schedule: Schedule): Promise<Buffer> {
  // A table of so many rows cannot be one page at any size.
  const tries =
    schedule.blocks.length + schedule.sections.length > 110 ? PLAN_TRIES.slice(-1) : PLAN_TRIES;
  let made: Buffer = Buffer.alloc(0);
  for (const [size, detail] of tries) {
    let pages = 0;
    made = await toPdf(
      <Plan
        lesson={lesson}
        schedule={schedule}
        size={size}
        detail={detail}
        onPages={(count) => (pages = count)}
      />,
    );
    if (pages === 1) break;
  }
  return made;
}

function kitPdf(lesson: Lesson, schedule: Schedule): Promise<Buffer> {
  const size = 14;
  const kit = kitOf(schedule, lesson);
  const care = cautionsOf(lesson);
  return toPdf(
    <Sheet
      title={`What you need for “${lesson.title}”`}
      place={placeOf(lesson)}
      size={size}
      language={lesson.settings.language}
    >
      {kit.length === 0 && <Words>Nothing but yourself and some room.</Words>}
      <List
        lines={kit}
        style={{ paddingVertical: 5 }}
        mark={
          <View
            style={{ width: 16, height: 16, borderWidth: 1.5, borderColor: INK, marginRight: 10 }}
          />
        }
      />
      <Heading size={size}>Time and room</Heading>
      <Words>{`About ${Math.ceil(schedule.studentMs / 60_000)} minutes. ${roomOf(lesson)}`}</Words>
      {care.length > 0 && <Heading size={size}>Care</Heading>}
      <List
        lines={care}
        mark={
          <View
            style={{ width: 4, height: 4, borderRadius: 2, backgroundColor: INK, marginRight: 8 }}
          />
        }
      />
      <Words style={{ marginTop: size * 0.6 }}>
        Stop if something hurts. What your school and your doctor say goes before this sheet.
      </Words>
      {lesson.glossary.length > 0 && <Heading size={size}>Words you will hear</Heading>}
      <List lines={lesson.glossary.map(({ term, plain }) => `${term}: ${plain}`)} mark={null} />
    </Sheet>,
  );
}

/** More lines than this are printed without what happens inside a block. */
const MOST_LINES = 900;

interface SheetLine extends RunSheetLine {
  said: string;
}

/**
 * Lines as they are worked through on paper: what is called stands beside what it starts, and a
 * block of one span is one line.
 */
function paperLines(schedule: Schedule): SheetLine[] {
  const lines: SheetLine[] = [];
  for (const line of runSheet(schedule)) {
    const last = lines.at(-1);
    if (line.level === 'call' && last && last.level !== 'section')
      last.said += `${last.said && ' '}“${line.text}”`;
    else if (!(
      line.level === 'span' &&
      last?.level === 'block' &&
      last.text === line.text &&
      last.durationMs === line.durationMs
    ))
      lines.push({ ...line, said: '' });
  }
  return lines;
}

function runSheetPdf(lesson: Lesson, schedule: Schedule): Promise<Buffer> {
  const all = paperLines(schedule);
  const isShort = all.length <= MOST_LINES;
  const lines = isShort ? all : all.filter(({ level }) => level === 'section' || level === 'block');
  const weight = ({ level }: RunSheetLine): Style =>
    level === 'section'
      ? { ...styles.bold, fontSize: 11 }
      : level === 'block'
        ? styles.bold
        : { paddingLeft: 12 };
  const columns: Column<SheetLine>[] = [
    { name: 'Video', part: 8, text: ({ videoMs }) => clockText(videoMs) },
    { name: 'Student', part: 8, text: ({ studentMs }) => clockText(studentMs) },
    { name: 'What', part: 38, text: ({ text }) => text, style: weight },
    { name: 'Called', part: 24, text: ({ said }) => said },
    {
      name: 'Length',
      part: 12,
      text: ({ durationMs }) => (durationMs > 0 ? lengthText(durationMs) : ''),
    },
    { name: 'Done', part: 8, text: () => '' },
  ];
  return toPdf(
    <Sheet
      title={`Run sheet: ${lesson.title}`}
      place={placeOf(lesson)}
      size={9}
      language={lesson.settings.language}
    >
      {!isShort && (
        <Words
          style={styles.soft}
        >{`Blocks only: ${all.length} lines are too many for paper. The table file of the run sheet has every repetition and call.`}</Words>
      )}
      <Table columns={columns} rows={lines} />
    </Sheet>,
  );
}

/** Where the camera goes for a shot, in a line. */
function cameraOf(
  { toFilm: { block, shot } }: CallSheetLine,
  { filming, settings }: Lesson,
): string {
  const { placing } = frameShot(block, shot, filming);
  if (!placing) return 'does not fit this lens';
  const shown = (cm: number) => spaceText(Math.round(cm), settings.units);
  return `${shown(placing.camera.distanceCm)} away, ${shown(placing.camera.heightCm)} high`;
}

function callSheetPdf(lesson: Lesson): Promise<Buffer> {
  const sheet = callSheet(lesson);
  const mirror =
    lesson.settings.sides === 'mirrored'
      ? 'The picture is mirrored afterwards: say the student’s side.'
      : 'The picture is not mirrored: say whose side you mean.';
  const columns: Column<CallSheetLine>[] = [
    { name: 'From', part: 7, text: ({ startMs }) => clockText(startMs) },
    {
      name: 'First',
      part: 22,
      text: ({ change, toFilm }) => (change ? changeText(change, toFilm).join(', ') : 'set up'),
    },
    { name: 'Block', part: 20, text: ({ toFilm }) => toFilm.block.title, style: () => styles.bold },
    {
      name: 'Shot',
      part: 16,
      text: ({ toFilm: { shot } }) =>
        `${shot.angle}, ${shot.framing}${shot.performers > 1 ? `, ${shot.performers} performers` : ''}`,
    },
    { name: 'Camera', part: 14, text: (line) => cameraOf(line, lesson) },
    {
      name: 'Takes',
      part: 11,
      text: ({ toFilm }) => `${lesson.filming.takesEach} × ${clockText(toFilm.durationMs)}`,
    },
    {
      name: 'Kit and note',
      part: 18,
      text: ({ toFilm: { kit, shot } }) =>
        [kit.join(', '), shot.note].filter((text) => text !== '').join('. '),
    },
  ];
  return toPdf(
    <Sheet
      title={`Call sheet: ${lesson.title}`}
      place={placeOf(lesson)}
      size={9}
      language={lesson.settings.language}
    >
      <Words>{`About ${lengthText(Math.round(sheet.totalMs / 1000) * 1000)} of filming, ${lengthText(Math.round(sheet.changesMs / 1000) * 1000)} of it changes and rests. ${mirror}`}</Words>
      <Table columns={columns} rows={sheet.lines} />
    </Sheet>,
  );
}

/**
 * A lesson on paper: the plan on one page, the kit list for families, the run sheet, the call
 * sheet, or what the check found. PDF, A4.
 */
export function printLesson(
  print: Print,
  lesson: Lesson,
  findings: readonly ReportedFinding[],
): Promise<Buffer> {
  const schedule = scheduleLesson(lesson);
  switch (print) {
    case 'plan':
      return planPdf(lesson, schedule);
    case 'kit':
      return kitPdf(lesson, schedule);
    case 'run-sheet':
      return runSheetPdf(lesson, schedule);
    case 'call-sheet':
      return callSheetPdf(lesson);
    case 'check':
      return checkReportPdf(lesson.title, placeOf(lesson), findings);
  }
}
