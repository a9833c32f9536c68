import { Box, Paper, Typography } from '@mui/material';
import { choiceText } from '@zest/core/lesson';
import type { LessonStanding, QuestionResult } from '@zest/core/results';
import { teacherText } from '@zest/core/words';

interface AnswersOf {
  nickname: string;
  standing: Pick<LessonStanding, 'answers'>;
}

/** What was answered in words. */
export function Answers({ rows }: { rows: readonly AnswersOf[] }) {
  const answers = rows.flatMap(({ nickname, standing }) =>
    standing.answers
      .filter(({ body }) => body.choices === undefined)
      .map(({ id, body }) => ({ id, nickname, ...body })),
  );
  if (answers.length === 0) return null;
  return (
    <Paper variant="outlined" sx={{ p: 2 }}>
      <Typography variant="h2">{teacherText('log.answers')}</Typography>
      <ul>
        {answers.map(({ id, nickname, question, text }) => (
          <li key={id} style={{ overflowWrap: 'anywhere' }}>
            <strong>{nickname}</strong>, {question}: {text}
          </li>
        ))}
      </ul>
    </Paper>
  );
}

/** How many of the class took each choice, as bars; the right ones are filled. */
function ChoiceBars({ result: { choices, answered } }: { result: QuestionResult }) {
  return (
    <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0, display: 'grid', gap: 0.75 }}>
      {choices.map(({ choice, by }, i) => (
        <Box component="li" key={choice.id}>
          <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 1 }}>
            <span style={{ fontWeight: choice.isRight ? 700 : 400 }}>
              {choiceText(choice, i)}
              {choice.isRight && ` (${teacherText('quiz.right')})`}
            </span>
            <span>{by}</span>
          </Box>
          <Box sx={{ height: 10, bgcolor: 'action.hover', borderRadius: 1 }}>
            <Box
              sx={{
                height: 1,
                width: `${answered === 0 ? 0 : (by / answered) * 100}%`,
                bgcolor: choice.isRight ? 'primary.main' : 'text.disabled',
                borderRadius: 1,
              }}
            />
          </Box>
        </Box>
      ))}
    </Box>
  );
}

/** What the class chose, question by question. */
export function Quiz({ results }: { results: readonly QuestionResult[] }) {
  if (results.length === 0) return null;
  return (
    <Paper variant="outlined" sx={{ p: 2 }}>
      <Typography variant="h2">{teacherText('quiz.title')}</Typography>
      {results.map((result) => (
        <Box key={result.blockId} sx={{ mt: 1.5 }}>
          <Typography variant="h3">{result.question}</Typography>
          <Typography color="text.secondary" sx={{ mb: 1 }}>
            {teacherText('quiz.answered', { right: result.right, of: result.answered })}
          </Typography>
          <ChoiceBars result={result} />
        </Box>
      ))}
    </Paper>
  );
}
