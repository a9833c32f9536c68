import { Alert, Button, List, ListItem, ListItemText, Stack, Typography } from '@mui/material';
import {
  compareWords,
  messageLanguage,
  messageTo,
  plainFigure,
  praiseList,
  weekStart,
  type MessageLanguage,
} from '@zest/core/results';
import { teacherText } from '@zest/core/words';
import { useMemo, useState } from 'react';
import { problemText } from '../../app/api.ts';
import { classApi } from '../../app/class-api.ts';
import { useNotice } from '../../app/notice.tsx';
import { ChoiceField } from '../../ui/fields.tsx';
import { copyText } from '../../ui/copy.ts';
import type { ClassPart } from './class-part.ts';
import { offsetMs } from './local-time.ts';

const spans = [
  ['1', teacherText('class.week')],
  ['2', teacherText('class.last-two-weeks')],
  ['4', teacherText('class.last-four-weeks')],
] as const;

interface Told {
  key: string;
  nickname: string;
  fact: string;
  /** Ready to be sent; the teacher changes what does not fit. */
  message: string;
  language: MessageLanguage;
}

function Group({ title, empty, told }: { title: string; empty: string; told: readonly Told[] }) {
  const notice = useNotice();
  const copy = async (text: string) => {
    notice(
      (await copyText(text))
        ? teacherText('class.copied')
        : teacherText('class.browser-did-not-let'),
    );
  };
  return (
    <section aria-label={title}>
      <Stack direction="row" spacing={2} sx={{ alignItems: 'center' }}>
        <Typography variant="h2">{title}</Typography>
        {told.length > 0 && (
          <Button onClick={() => void copy(told.map(({ message }) => message).join('\n\n'))}>
            {teacherText('class.copy-all-messages')}
          </Button>
        )}
      </Stack>
      {told.length === 0 && <Typography color="text.secondary">{empty}</Typography>}
      <List dense>
        {told.map(({ key, nickname, fact, message, language }) => (
          <ListItem
            key={key}
            disableGutters
            secondaryAction={
              <Button
                onClick={() => void copy(message)}
                aria-label={teacherText('class.copy-message', { nickname })}
              >
                {teacherText('class.copy')}
              </Button>
            }
            sx={{ pr: 10 }}
          >
            <ListItemText
              primary={`${nickname}: ${fact}`}
              secondary={<span lang={language}>{message}</span>}
            />
          </ListItem>
        ))}
      </List>
    </section>
  );
}

/**
 * Whom to praise, for what, in which words: effort and one's own progress, nobody beside anybody
 * else.
 */
export function Praise({ schoolClass, students }: ClassPart) {
  const [weeks, setWeeks] = useState<(typeof spans)[number][0]>('1');
  const [now] = useState(Date.now);
  const sums = classApi.useClassSumsQuery({
    classId: schoolClass.id,
    since: weekStart(now, Number(weeks) - 1, offsetMs()),
  });
  const list = useMemo(
    () =>
      praiseList(
        students.map(({ id }) => id),
        sums.data ?? { lines: [], doing: [] },
      ),
    [students, sums.data],
  );
  const toldOf = (studentId: string) => {
    const student = students.find(({ id }) => id === studentId);
    return {
      nickname: student?.nickname ?? '',
      language: messageLanguage(student?.language ?? null),
    };
  };
  const improved = list.improved.map(({ studentId, line, from, to }, i): Told => {
    const { nickname, language } = toldOf(studentId);
    const step = `${compareWords(line, from)} → ${compareWords(line, to)}`;
    return {
      key: `${studentId} ${i}`,
      nickname,
      language,
      fact: `${line.title}, ${step}`,
      message: messageTo(language, 'improved', {
        name: nickname,
        title: line.title,
        from: plainFigure(line, from, language),
        to: plainFigure(line, to, language),
      }),
    };
  });
  const plain = (id: string, kind: 'tried' | 'quiet', fact: string): Told => {
    const { nickname, language } = toldOf(id);
    return {
      key: id,
      nickname,
      language,
      fact,
      message: messageTo(language, kind, { name: nickname }),
    };
  };
  const didBetter = new Set(list.improved.map(({ studentId }) => studentId));
  const tried = list.tried
    .filter((id) => !didBetter.has(id))
    .map((id) => plain(id, 'tried', teacherText('class.kept-at-it')));
  const quiet = list.quiet.map((id) => plain(id, 'quiet', teacherText('class.nothing-came')));
  const isForeign = [...improved, ...tried, ...quiet].some(({ language }) => language !== 'en');
  if (!sums.data)
    return (
      <Typography role="status">
        {problemText(sums.error) ?? teacherText('class.adding-up')}
      </Typography>
    );
  return (
    <Stack spacing={2}>
      <ChoiceField
        label={teacherText('class.look-back-over')}
        value={weeks}
        choices={spans}
        onChange={setWeeks}
        sx={{ width: 240 }}
      />
      {isForeign && (
        <Alert severity="info">{teacherText('class.messages-language-family-have')}</Alert>
      )}
      <Group
        title={teacherText('class.beat-their-own-best')}
        empty={teacherText('class.nobody-has-beaten-number')}
        told={improved}
      />
      <Group
        title={teacherText('class.praise-kept-at-it')}
        empty={teacherText('class.nobody-else-has-sent')}
        told={tried}
      />
      <Group
        title={teacherText('class.gone-quiet')}
        empty={teacherText('class.everybody-did-something')}
        told={quiet}
      />
    </Stack>
  );
}
