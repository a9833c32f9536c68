import type { Print } from '@zest/contract';
import { callSheet, changeText, frameShot, type CallSheetLine } from '@zest/core/framing';
import { kitLedger, spaceLedger } from '@zest/core/ledger';
import {
  blocksOf,
  cueTexts,
  wayTexts,
  insteadText,
  neededText,
  spaceText,
  type Lesson,
  valueName,
} from '@zest/core/lesson';
import {
  blockSummary,
  runSheet,
  scheduleLesson,
  type RunSheetLine,
  type Schedule,
} from '@zest/core/schedule';
import { clockText, lengthText } from '@zest/core/time';
import { paperWord, teacherText, type PaperWord, type Values } from '@zest/core/words';
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

/** Says the program's own words on paper in the lesson's language. */
const sayOf =
  ({ settings }: Lesson) =>
  (word: PaperWord, values?: Values) =>
    paperWord(settings.language, word, values);

function placeOf(lesson: Lesson): string {
  const { series, audience } = lesson;
  const say = sayOf(lesson);
  const level = series.level === 'standard' ? '' : say('place.form', { level: series.level });
  return [
    series.name,
    series.week === null ? '' : say('place.week', { week: series.week }),
    level,
    say('place.ages', { from: audience.ageFrom, to: audience.ageTo }),
  ]
    .filter((text) => text !== '')
    .join(' · ');
}

function roomOf(lesson: Lesson): string {
  const [width, depth, height] = spaceLedger(lesson).needs;
  if (!width || !depth || !height) return '';
  const shown = (cm: number) => spaceText(cm, lesson.settings.units);
  return sayOf(lesson)('place.room', {
    width: shown(width.cm),
    depth: shown(depth.cm),
    height: shown(height.cm),
  });
}

const kitOf = (schedule: Schedule, { settings }: Lesson) =>
  kitLedger(schedule, settings.language).map(({ name, needs, standIns }) =>
    insteadText(neededText(name, needs, settings.language), standIns, settings.language),
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

function planRows(lesson: Lesson, { sections }: Schedule, withBlocks: boolean): PlanRow[] {
  const { language } = lesson.settings;
  return sections.flatMap(({ section, blocks, startMs, studentStartMs, durationMs }) => {
    const head: PlanRow = {
      startMs,
      studentStartMs,
      title: section.title,
      isSection: true,
      length: lengthText(durationMs),
      what: withBlocks ? '' : paperWord(language, 'plan.blocks', { n: blocks.length }),
      cues: '',
    };
    const rows = blocks.map(({ block, ...at }): PlanRow => {
      const what = blockSummary(block, language);
      return {
        ...at,
        title: block.title,
        isSection: false,
        length: lengthText(at.durationMs),
        what: block.pauseAfter
          ? paperWord(language, 'plan.then-off', {
              what,
              length: lengthText(block.pauseAfter.practiceMs),
            })
          : what,
        cues: [...cueTexts(block, language), ...wayTexts(block, lesson)].join(' / '),
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
  const say = sayOf(lesson);
  const columns: Column<PlanRow>[] = [
    { name: say('column.video'), part: 6, text: ({ startMs }) => clockText(startMs) },
    {
      name: say('column.student'),
      part: 7,
      text: ({ studentStartMs }) => clockText(studentStartMs),
    },
    { name: say('column.block'), part: 20, text: ({ title }) => title, style: bold },
    { name: say('column.length'), part: 10, text: ({ length }) => length },
    { name: say('column.what'), part: 28, text: ({ what }) => what },
    ...(detail === 'cues'
      ? [{ name: say('heading.cues'), part: 28, text: ({ cues }: PlanRow) => cues }]
      : []),
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
          say('plan.lengths', {
            video: clockText(schedule.videoMs),
            student: clockText(schedule.studentMs),
          }),
          roomOf(lesson),
        ]
          .filter((text) => text !== '')
          .join('. ')}
      </Words>
      <Words>{kit.length > 0 ? say('plan.needed', { kit: kit.join('; ') }) : ''}</Words>
      <Words>{care.length > 0 ? say('plan.care', { care: care.join(' ') }) : ''}</Words>
      <View style={{ marginTop: size * 0.6 }}>
        <Table columns={columns} rows={planRows(lesson, schedule, detail !== 'sections')} />
      </View>
      {detail === 'sections' && <Words style={styles.soft}>{say('plan.too-many')}</Words>}
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
  const say = sayOf(lesson);
  const kit = kitOf(schedule, lesson);
  const care = cautionsOf(lesson);
  return toPdf(
    <Sheet
      title={say('kit-list.title', { title: lesson.title })}
      place={placeOf(lesson)}
      size={size}
      language={lesson.settings.language}
    >
      {kit.length === 0 && <Words>{say('kit-list.none')}</Words>}
      <List
        lines={kit}
        style={{ paddingVertical: 5 }}
        mark={
          <View
            style={{ width: 16, height: 16, borderWidth: 1.5, borderColor: INK, marginRight: 10 }}
          />
        }
      />
      <Heading size={size}>{say('heading.time-and-room')}</Heading>
      <Words>{`${say('kit-list.minutes', { n: Math.ceil(schedule.studentMs / 60_000) })} ${roomOf(lesson)}`}</Words>
      {care.length > 0 && <Heading size={size}>{say('heading.care')}</Heading>}
      <List
        lines={care}
        mark={
          <View
            style={{ width: 4, height: 4, borderRadius: 2, backgroundColor: INK, marginRight: 8 }}
          />
        }
      />
      <Words style={{ marginTop: size * 0.6 }}>{say('kit-list.stop')}</Words>
      {lesson.glossary.length > 0 && <Heading size={size}>{say('heading.words')}</Heading>}
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
function paperLines(schedule: Schedule, language: string): SheetLine[] {
  const lines: SheetLine[] = [];
  for (const line of runSheet(schedule, language)) {
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
  const say = sayOf(lesson);
  const all = paperLines(schedule, lesson.settings.language);
  const isShort = all.length <= MOST_LINES;
  const lines = isShort ? all : all.filter(({ level }) => level === 'section' || level === 'block');
  const weight = ({ level }: RunSheetLine): Style =>
    level === 'section'
      ? { ...styles.bold, fontSize: 11 }
      : level === 'block'
        ? styles.bold
        : { paddingLeft: 12 };
  const columns: Column<SheetLine>[] = [
    { name: say('column.video'), part: 8, text: ({ videoMs }) => clockText(videoMs) },
    { name: say('column.student'), part: 8, text: ({ studentMs }) => clockText(studentMs) },
    { name: say('column.what'), part: 38, text: ({ text }) => text, style: weight },
    { name: say('column.called'), part: 24, text: ({ said }) => said },
    {
      name: say('column.length'),
      part: 12,
      text: ({ durationMs }) => (durationMs > 0 ? lengthText(durationMs) : ''),
    },
    { name: say('column.done'), part: 8, text: () => '' },
  ];
  return toPdf(
    <Sheet
      title={say('run-sheet.title', { title: lesson.title })}
      place={placeOf(lesson)}
      size={9}
      language={lesson.settings.language}
    >
      {!isShort && (
        <Words style={styles.soft}>{say('run-sheet.blocks-only', { n: all.length })}</Words>
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
  if (!placing) return teacherText('call-sheet.no-fit');
  const shown = (cm: number) => spaceText(Math.round(cm), settings.units);
  return teacherText('call-sheet.camera', {
    away: shown(placing.camera.distanceCm),
    high: shown(placing.camera.heightCm),
  });
}

function callSheetPdf(lesson: Lesson): Promise<Buffer> {
  const sheet = callSheet(lesson);
  const mirror =
    lesson.settings.sides === 'mirrored'
      ? teacherText('call-sheet.mirrored')
      : teacherText('call-sheet.not-mirrored');
  const columns: Column<CallSheetLine>[] = [
    { name: teacherText('call-sheet.from'), part: 7, text: ({ startMs }) => clockText(startMs) },
    {
      name: teacherText('call-sheet.first'),
      part: 22,
      text: ({ change, toFilm }) =>
        change ? changeText(change, toFilm).join(', ') : teacherText('call-sheet.set-up'),
    },
    {
      name: teacherText('call-sheet.block'),
      part: 20,
      text: ({ toFilm }) => toFilm.block.title,
      style: () => styles.bold,
    },
    {
      name: teacherText('call-sheet.shot'),
      part: 16,
      text: ({ toFilm: { shot } }) =>
        [
          valueName(shot.angle),
          valueName(shot.framing),
          ...(shot.performers > 1
            ? [teacherText('call-sheet.performers', { n: shot.performers })]
            : []),
        ].join(', '),
    },
    { name: teacherText('call-sheet.camera-at'), part: 14, text: (line) => cameraOf(line, lesson) },
    {
      name: teacherText('call-sheet.takes'),
      part: 11,
      text: ({ toFilm }) => `${lesson.filming.takesEach} × ${clockText(toFilm.durationMs)}`,
    },
    {
      name: teacherText('call-sheet.kit-and-note'),
      part: 18,
      text: ({ toFilm: { kit, shot } }) =>
        [kit.join(', '), shot.note].filter((text) => text !== '').join('. '),
    },
  ];
  return toPdf(
    <Sheet
      title={teacherText('call-sheet.title', { title: lesson.title })}
      place={placeOf(lesson)}
      size={9}
    >
      <Words>
        {teacherText('call-sheet.about', {
          totalMs: Math.round(sheet.totalMs / 1000) * 1000,
          changesMs: Math.round(sheet.changesMs / 1000) * 1000,
          mirror,
        })}
      </Words>
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
