import {
  Alert,
  Box,
  Button,
  Chip,
  IconButton,
  Paper,
  Stack,
  Tooltip,
  Typography,
} from '@mui/material';
import CopyIcon from '@mui/icons-material/ContentCopy';
import PhoneIcon from '@mui/icons-material/PhoneIphone';
import { routes, urlOf, type Class, type Share } from '@zest/contract';
import { byStudent, FINISHED, sayCode, standingOf } from '@zest/core/results';
import { teacherText } from '@zest/core/words';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { api, problemText } from '../../app/api.ts';
import { saveFirst } from '../../app/autosave.ts';
import { classApi } from '../../app/class-api.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useAddress } from '../../app/use-address.ts';
import { useOpenLesson } from '../../app/use-lesson.ts';
import { soonText } from '../../ui/dates.ts';
import { copyText } from '../../ui/copy.ts';
import { MenuButton } from '../../ui/MenuButton.tsx';
import { fetchFile } from '../../ui/save-file.ts';
import { DateFields } from './DateFields.tsx';
import { QrPicture } from './QrPicture.tsx';

const nameOf = (schoolClass: Class | undefined) =>
  schoolClass?.name ?? teacherText('share.anybody');

/** When the link leads somewhere, in words and as a sign. */
function stateOf(
  { opensAt, closesAt }: Share,
  now: number,
): { words: string; color: 'success' | 'warning' | 'default' } {
  if (opensAt && Date.parse(opensAt) > now)
    return { words: teacherText('share.opens', { when: soonText(opensAt) }), color: 'warning' };
  if (closesAt && Date.parse(closesAt) <= now)
    return { words: teacherText('share.closed', { when: soonText(closesAt) }), color: 'default' };
  return {
    words: closesAt
      ? teacherText('share.open-until', { when: soonText(closesAt) })
      : teacherText('share.open'),
    color: 'success',
  };
}

/** The two codes a class finds the lesson by, large enough to be read out. */
function Codes({ classCode, lessonCode }: { classCode: string; lessonCode: string }) {
  const { host } = useAddress();
  const code = (name: string, value: string) => (
    <Box component="span" sx={{ whiteSpace: 'nowrap' }}>
      {name}{' '}
      <Box component="strong" sx={{ fontSize: '1.35rem', letterSpacing: '0.04em' }}>
        {sayCode(value)}
      </Box>
    </Box>
  );
  return (
    <Stack
      direction="row"
      useFlexGap
      sx={{ columnGap: 2, flexWrap: 'wrap', alignItems: 'baseline' }}
      data-testid="codes"
    >
      {code(teacherText('share.class-code'), classCode)}
      {code(teacherText('share.lesson-code'), lessonCode)}
      <Typography component="span" color="text.secondary">
        {teacherText('share.at', { address: `${host}/go` })}
      </Typography>
    </Stack>
  );
}

/** What came back from the class so far. */
function Sent({ classId, students }: { classId: string; students: number }) {
  const { id } = useOpenLesson();
  const entries = classApi.useLogQuery({ classId, lesson: id }).data?.entries;
  const sent = useMemo(() => {
    const each = [...byStudent(entries ?? []).values()].map(standingOf);
    return {
      opened: each.filter(({ opened }) => opened).length,
      finished: each.filter(({ reached }) => reached >= FINISHED).length,
      numbers: each.reduce((sum, { scores }) => sum + scores.length, 0),
    };
  }, [entries]);
  if (!entries) return null;
  return (
    <Stack direction="row" useFlexGap sx={{ gap: 1, flexWrap: 'wrap', alignItems: 'center' }}>
      <Chip
        size="small"
        label={teacherText('share.opened', { opened: sent.opened, all: students })}
      />
      <Chip size="small" label={teacherText('share.finished', { n: sent.finished })} />
      <Chip size="small" label={teacherText('share.numbers', { n: sent.numbers })} />
      <Link to="../log">{teacherText('share.to-log')}</Link>
    </Stack>
  );
}

interface LinkCardProps {
  share: Share;
  schoolClass: Class | undefined;
  shown: boolean;
  onShow: () => void;
}

/** Whose card it is, whether it is open, and what is seldom done with it. */
function CardHead({
  share,
  schoolClass,
  shown,
  onShow,
  onClose,
}: LinkCardProps & { onClose: () => void }) {
  const [now] = useState(Date.now);
  const name = nameOf(schoolClass);
  const state = stateOf(share, now);
  return (
    <Stack direction="row" useFlexGap sx={{ gap: 1, alignItems: 'center' }}>
      <Typography variant="h2" component="h3" sx={{ flex: '0 1 auto', minWidth: 0 }}>
        {schoolClass ? <Link to={`/classes/${schoolClass.id}`}>{name}</Link> : name}
      </Typography>
      <Chip size="small" color={state.color} variant="outlined" label={state.words} />
      <Box sx={{ flex: 1 }} />
      <Tooltip title={teacherText(shown ? 'share.shown' : 'share.show')}>
        <IconButton
          aria-label={teacherText('share.show')}
          aria-pressed={shown}
          color={shown ? 'primary' : 'default'}
          onClick={onShow}
        >
          <PhoneIcon />
        </IconButton>
      </Tooltip>
      <MenuButton
        label={teacherText('share.more', { name })}
        entries={[{ name: teacherText('share.close'), run: onClose }]}
      />
    </Stack>
  );
}

/** What a class gets: link, codes, dates, a card to print, and what came back. */
export function LinkCard({ share, schoolClass, shown, onShow }: LinkCardProps) {
  const [change, changing] = api.useChangeShareMutation();
  const [revoke, revoking] = api.useRevokeShareMutation();
  const [copied, setCopied] = useState<boolean | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const dispatch = useAppDispatch();
  const { origin } = useAddress();
  const link = `${origin}/follow/${share.code}`;
  const name = nameOf(schoolClass);
  const renew = async () => {
    const unsaved = await dispatch(saveFirst());
    setProblem(unsaved);
    if (unsaved === null) await change({ code: share.code, toNewest: true });
  };
  const fetchCard = async () => {
    const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
    const url = urlOf(routes.shareCard, { code: share.code }, { zone });
    setProblem(await fetchFile('link.pdf', url));
  };
  const words = problem ?? problemText(changing.error ?? revoking.error);
  return (
    <Paper
      variant="outlined"
      data-testid="share"
      component="section"
      aria-label={name}
      sx={{ p: 2, ...(shown && { borderColor: 'primary.main' }) }}
    >
      <Stack spacing={1.5}>
        <Stack direction="row" spacing={2}>
          <QrPicture text={link} label={teacherText('share.qr')} size={116} />
          <Stack spacing={1} sx={{ flex: 1, minWidth: 0 }}>
            <CardHead
              {...{ share, schoolClass, shown, onShow }}
              onClose={() => void revoke(share.code)}
            />
            {schoolClass && share.spoken && (
              <Codes classCode={schoolClass.code} lessonCode={share.spoken} />
            )}
            <Typography
              component="a"
              href={link}
              target="_blank"
              rel="noopener"
              aria-label={teacherText('share.link', { name })}
              sx={{ overflowWrap: 'anywhere' }}
            >
              {link}
            </Typography>
            {schoolClass && <Sent classId={schoolClass.id} students={schoolClass.students} />}
          </Stack>
        </Stack>
        {share.changed.length > 0 && (
          <Alert
            severity="info"
            action={
              <Button
                variant="outlined"
                disabled={changing.isLoading}
                onClick={() => void renew()}
                sx={{ whiteSpace: 'nowrap' }}
              >
                {teacherText('share.renew')}
              </Button>
            }
          >
            {teacherText('share.changed', { what: share.changed.join(', ') })}{' '}
            {teacherText('share.renew-note')}
          </Alert>
        )}
        {copied === false && <Alert severity="warning">{teacherText('share.not-copied')}</Alert>}
        {words && <Alert severity="error">{words}</Alert>}
        <Stack
          direction="row"
          useFlexGap
          sx={{ flexWrap: 'wrap', gap: 1.5, alignItems: 'start', justifyContent: 'space-between' }}
        >
          <DateFields
            opensAt={share.opensAt}
            closesAt={share.closesAt}
            onChange={(dates) => void change({ code: share.code, ...dates })}
          />
          <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 1 }}>
            <Button
              variant="contained"
              startIcon={<CopyIcon />}
              onClick={async () => setCopied(await copyText(link))}
            >
              {teacherText(copied ? 'share.copied' : 'share.copy')}
            </Button>
            <Button variant="outlined" onClick={() => void fetchCard()}>
              {teacherText('share.card')}
            </Button>
            <Button
              variant="outlined"
              href={`/follow/${share.code}`}
              target="_blank"
              rel="noopener"
            >
              {teacherText('share.as-student')}
            </Button>
          </Stack>
        </Stack>
      </Stack>
    </Paper>
  );
}
