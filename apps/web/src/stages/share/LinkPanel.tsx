import { Alert, Button, Stack, TextField, Typography } from '@mui/material';
import { routes, urlOf, type Class, type Share } from '@zest/contract';
import { sayCode } from '@zest/core/results';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, problemText } from '../../app/api.ts';
import { saveFirst } from '../../app/autosave.ts';
import { classApi } from '../../app/class-api.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useOpenLesson } from '../../app/use-lesson.ts';
import { ChoiceField } from '../../ui/fields.tsx';
import { fetchFile } from '../../ui/save-file.ts';
import { copyText } from '../../ui/copy.ts';
import { DateFields, momentText } from './DateFields.tsx';
import { useAddress } from '../../app/use-address.ts';
import { AskAddress } from '../../app/AskAddress.tsx';

const when = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' });
/** No class has such an id. */
const ANYBODY = '*';

/** When the link leads somewhere, in words. */
function stateOf({ opensAt, closesAt }: Share, now: number): string {
  if (opensAt && Date.parse(opensAt) > now) return `Opens ${momentText(opensAt)}`;
  if (closesAt && Date.parse(closesAt) <= now) return `Was open until ${momentText(closesAt)}`;
  return closesAt ? `Open until ${momentText(closesAt)}` : 'Open';
}

interface LinkCardProps {
  share: Share;
  schoolClass: Class | undefined;
  shown: boolean;
  onShow: () => void;
}

function LinkCard({ share, schoolClass, shown, onShow }: LinkCardProps) {
  const [change, changing] = api.useChangeShareMutation();
  const [revoke, revoking] = api.useRevokeShareMutation();
  const [copied, setCopied] = useState<boolean | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [now] = useState(Date.now);
  const dispatch = useAppDispatch();
  const { origin, host } = useAddress();
  const link = `${origin}/follow/${share.code}`;
  const renew = async () => {
    const unsaved = await dispatch(saveFirst());
    setProblem(unsaved);
    if (unsaved === null) await change({ code: share.code, toNewest: true });
  };
  const words = problem ?? problemText(changing.error ?? revoking.error);
  return (
    <Stack spacing={1} data-testid="share" sx={{ borderTop: 1, borderColor: 'divider', pt: 1.5 }}>
      <Typography variant="h3">
        {schoolClass?.name ?? 'Whoever has the link'} · {stateOf(share, now)}
      </Typography>
      <TextField
        label={`Link of ${when.format(new Date(share.createdAt))}`}
        value={link}
        slotProps={{ input: { readOnly: true } }}
      />
      {schoolClass && share.spoken && (
        <Typography>
          To read out: <strong>{host}/go</strong>, class{' '}
          <strong>{sayCode(schoolClass.code)}</strong>, lesson{' '}
          <strong>{sayCode(share.spoken)}</strong>
        </Typography>
      )}
      {share.changed.length > 0 && (
        <Alert
          severity="info"
          action={
            <Button disabled={changing.isLoading} onClick={() => void renew()}>
              Show them the newest
            </Button>
          }
        >
          Changed since they see it: {share.changed.join(', ')}. Whoever is in the middle of it
          finishes as they began.
        </Alert>
      )}
      {share.version > 1 && (
        <Typography color="text.secondary">Renewed {share.version - 1} ×.</Typography>
      )}
      <DateFields
        opensAt={share.opensAt}
        closesAt={share.closesAt}
        onChange={(dates) => void change({ code: share.code, ...dates })}
      />
      {copied === false && (
        <Alert severity="warning">
          The browser did not let the link be copied. Mark it above and copy it by hand.
        </Alert>
      )}
      {words && <Alert severity="error">{words}</Alert>}
      <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 1 }}>
        <Button onClick={async () => setCopied(await copyText(link))}>
          {copied ? 'Copied' : 'Copy the link'}
        </Button>
        <Button href={`/follow/${share.code}`} target="_blank" rel="noopener">
          Open as a student
        </Button>
        <Button aria-pressed={shown} onClick={onShow}>
          {shown ? 'Shown on the phone' : 'Show on the phone'}
        </Button>
        <Button
          onClick={async () =>
            setProblem(
              await fetchFile(
                'link.pdf',
                urlOf(
                  routes.shareCard,
                  { code: share.code },
                  { zone: Intl.DateTimeFormat().resolvedOptions().timeZone },
                ),
              ),
            )
          }
        >
          Card with QR code (PDF)
        </Button>
        <Button color="error" onClick={() => void revoke(share.code)}>
          Close the link
        </Button>
      </Stack>
    </Stack>
  );
}

interface LinkPanelProps {
  /** Code of the link whose page is shown. */
  shown: string | null;
  onShow: (code: string) => void;
}

/** Links to the lesson: for a class and its dates, or for whoever has one. */
export function LinkPanel({ shown, onShow }: LinkPanelProps) {
  const { id } = useOpenLesson();
  const shares = api.useSharesQuery(id);
  const classes = classApi.useClassesQuery();
  const [makeShare, making] = api.useMakeShareMutation();
  const [classId, setClassId] = useState(ANYBODY);
  const [dates, setDates] = useState<{ opensAt: string | null; closesAt: string | null }>({
    opensAt: null,
    closesAt: null,
  });
  const dispatch = useAppDispatch();
  const open = shares.data?.filter((share) => share.revokedAt === null) ?? [];
  const [unsaved, setUnsaved] = useState<string | null>(null);
  const problem = unsaved ?? problemText(shares.error ?? making.error);
  const share = async () => {
    const notYet = await dispatch(saveFirst());
    setUnsaved(notYet);
    if (notYet !== null) return;
    const made = await makeShare({
      lessonId: id,
      classId: classId === ANYBODY ? null : classId,
      ...dates,
    });
    if (made.data) onShow(made.data.code);
  };
  const choices: (readonly [string, string])[] = [
    [ANYBODY, 'whoever has the link'],
    ...(classes.data ?? []).map(({ id: value, name }) => [value, name] as const),
  ];
  return (
    <Stack spacing={2}>
      <Typography variant="h2">Links for students</Typography>
      <Typography color="text.secondary">
        A link shows the lesson as it is now, without an account. For a class it can be found by two
        codes read out, and what students send comes to the Log bench under their nicknames.
      </Typography>
      <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 1.5, alignItems: 'center' }}>
        <ChoiceField
          label="For"
          value={classId}
          choices={choices}
          onChange={setClassId}
          sx={{ width: 260 }}
        />
        <Button component={Link} to="/classes">
          Classes
        </Button>
      </Stack>
      <DateFields
        opensAt={dates.opensAt}
        closesAt={dates.closesAt}
        onChange={(change) => setDates({ ...dates, ...change })}
      />
      {problem && <Alert severity="error">{problem}</Alert>}
      <Button
        variant="contained"
        sx={{ alignSelf: 'start' }}
        disabled={making.isLoading}
        onClick={() => void share()}
      >
        Share the lesson as it is now
      </Button>
      {open.length > 0 && <AskAddress />}
      {open.map((one) => (
        <LinkCard
          key={one.code}
          share={one}
          schoolClass={classes.data?.find(({ id: classOf }) => classOf === one.classId)}
          shown={one.code === shown}
          onShow={() => onShow(one.code)}
        />
      ))}
    </Stack>
  );
}
