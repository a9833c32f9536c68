import {
  Alert,
  Button,
  Dialog,
  DialogContent,
  DialogTitle,
  LinearProgress,
  Stack,
  Typography,
} from '@mui/material';
import {
  countsIn,
  languageSchema,
  LIMITS,
  textsOf,
  type SecondLanguage as Second,
} from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { memo, useMemo, useState } from 'react';
import { edit } from '../../app/lesson-slice.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useLessonPart, useOpenLesson } from '../../app/use-lesson.ts';
import { ShortField, TextLine } from '../../ui/fields.tsx';
import { locale } from '../../ui/locale.ts';

const LONG_TEXT = 80;
const names = new Intl.DisplayNames(locale, { type: 'language' });

function LanguageField({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (language: string) => void;
}) {
  const read = (text: string) => {
    const tag = languageSchema.safeParse(text.trim());
    return tag.success ? { value: tag.data } : { fault: tag.error.issues[0]?.message ?? '' };
  };
  return (
    <ShortField
      label={label}
      value={value}
      read={read}
      helper={names.of(value)}
      onChange={onChange}
      sx={{ width: 190 }}
    />
  );
}

interface TextOfLessonProps {
  text: string;
  language: string;
  onChange: (other: string) => void;
}

/** One text of the lesson and what it is in the second language. */
const TextOfLesson = memo(
  function TextOfLesson({ text, language, onChange }: TextOfLessonProps) {
    const other = useLessonPart(
      ({ second }) => second?.texts.find((one) => one.text === text)?.other ?? '',
    );
    return (
      <Stack direction="row" sx={{ gap: 2, alignItems: 'start' }}>
        <Typography dir="auto" sx={{ flex: 1, pt: 1, whiteSpace: 'pre-wrap' }}>
          {text}
        </Typography>
        <TextLine
          label={teacherText('script.in', { n: names.of(language) ?? language })}
          value={other}
          most={LIMITS.script}
          {...(text.length > LONG_TEXT && { rows: 3 })}
          onChange={onChange}
          sx={{ flex: 1 }}
        />
      </Stack>
    );
  },
  (was, is) => was.text === is.text && was.language === is.language,
);

interface LanguagesProps {
  second: Second | null;
  onSecond: (tag: string) => void;
}

/** The language the lesson is written in, and the second one. */
function Languages({ second, onSecond }: LanguagesProps) {
  const dispatch = useAppDispatch();
  const language = useLessonPart(({ settings }) => settings.language);
  return (
    <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 2 }}>
      <LanguageField
        label={teacherText('script.written')}
        value={language}
        onChange={(tag) =>
          dispatch(
            edit(
              teacherText('common.language'),
              ({ settings }) => {
                settings.counts = countsIn(tag, settings);
                settings.language = tag;
              },
              true,
            ),
          )
        }
      />
      {second && (
        <LanguageField
          label={teacherText('script.second-language')}
          value={second.language}
          onChange={onSecond}
        />
      )}
      {second ? (
        <Button
          color="error"
          onClick={() =>
            dispatch(
              edit(
                teacherText('script.no-second-language'),
                (d) =>
                  void Object.assign(d, {
                    second: null,
                    finish: { ...d.finish, look: { ...d.finish.look, languages: 'one' } },
                  }),
              ),
            )
          }
        >
          {teacherText('script.remove')}
        </Button>
      ) : (
        <Button
          variant="contained"
          onClick={() =>
            dispatch(
              edit(
                teacherText('script.second-language'),
                (d) =>
                  void (d.second = {
                    language: language === 'es' ? 'en' : 'es',
                    texts: [],
                  }),
              ),
            )
          }
        >
          {teacherText('script.add-second-language')}
        </Button>
      )}
    </Stack>
  );
}

/**
 * All texts of the lesson beside what they are in a second language; what is left empty stays in
 * the first.
 */
export function SecondLanguage() {
  const { lesson } = useOpenLesson();
  const [isOpen, setOpen] = useState(false);
  const dispatch = useAppDispatch();
  const second = useLessonPart((now) => now.second);
  const texts = useMemo(() => (isOpen ? textsOf(lesson) : []), [isOpen, lesson]);
  const known = useMemo(
    () => new Map(second?.texts.map(({ text, other }) => [text, other])),
    [second],
  );
  const done = texts.filter((text) => (known.get(text) ?? '').trim() !== '').length;
  const set = (label: string, recipe: (second: Second) => void) =>
    dispatch(edit(label, (d) => void (d.second && recipe(d.second)), true));
  const write = (text: string, other: string) =>
    set(teacherText('script.second-language-of', { slice: text.slice(0, 40) }), (draft) => {
      const at = draft.texts.findIndex((one) => one.text === text);
      if (at >= 0) draft.texts[at] = { text, other };
      else draft.texts.push({ text, other });
    });
  return (
    <>
      <Button onClick={() => setOpen(true)}>
        {teacherText('script.second-language-which', {
          which: second ? ` (${second.language})` : '',
        })}
      </Button>
      <Dialog
        open={isOpen}
        onClose={() => setOpen(false)}
        fullWidth
        maxWidth="md"
        aria-labelledby="second-title"
      >
        <DialogTitle id="second-title">{teacherText('script.second-language')}</DialogTitle>
        <DialogContent>
          <Stack spacing={2} sx={{ pt: 1 }}>
            <Typography color="text.secondary">
              {teacherText('script.students-can-see-lesson')}
            </Typography>
            <Languages
              second={second}
              onSecond={(tag) =>
                set(teacherText('script.second-language'), (draft) => void (draft.language = tag))
              }
            />
            {second && (
              <>
                <Typography>
                  {teacherText('script.texts', { done, count: texts.length })}
                </Typography>
                <LinearProgress
                  aria-label={teacherText('script.texts-written')}
                  variant="determinate"
                  value={(100 * done) / Math.max(1, texts.length)}
                />
                {second.texts.length >= LIMITS.wordings && (
                  <Alert severity="warning">
                    {teacherText('script.most-texts-can-written', { wordings: LIMITS.wordings })}
                  </Alert>
                )}
                {texts.map((text) => (
                  <TextOfLesson
                    key={text}
                    text={text}
                    language={second.language}
                    onChange={(other) => write(text, other)}
                  />
                ))}
              </>
            )}
          </Stack>
        </DialogContent>
      </Dialog>
    </>
  );
}
