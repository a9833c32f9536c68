import { Alert, Button, Divider, Menu, MenuItem, Stack, Typography } from '@mui/material';
import { teacherText } from '@zest/core/words';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, problemText } from '../../app/api.ts';
import { AskAddress } from '../../app/AskAddress.tsx';
import { saveFirst } from '../../app/autosave.ts';
import { classApi } from '../../app/class-api.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useOpenLesson } from '../../app/use-lesson.ts';
import { LinkCard } from './LinkCard.tsx';

interface LinkPanelProps {
  /** Code of the link whose page is shown. */
  shown: string | null;
  onShow: (code: string) => void;
}

/** Who gets the lesson: a card for each class, and for whoever has a link. */
export function LinkPanel({ shown, onShow }: LinkPanelProps) {
  const { id } = useOpenLesson();
  const shares = api.useSharesQuery(id);
  const classes = classApi.useClassesQuery();
  const [makeShare, making] = api.useMakeShareMutation();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const dispatch = useAppDispatch();
  const open = shares.data?.filter((share) => share.revokedAt === null) ?? [];
  const [unsaved, setUnsaved] = useState<string | null>(null);
  const problem = unsaved ?? problemText(shares.error ?? making.error);
  const share = async (classId: string | null) => {
    setAnchor(null);
    const notYet = await dispatch(saveFirst());
    setUnsaved(notYet);
    if (notYet !== null) return;
    const made = await makeShare({ lessonId: id, classId, opensAt: null, closesAt: null });
    if (made.data) onShow(made.data.code);
  };
  return (
    <Stack spacing={1.5}>
      <Stack direction="row" spacing={2} sx={{ alignItems: 'center' }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          {teacherText('share.classes')}
        </Typography>
        <Button
          variant={open.length === 0 ? 'contained' : 'outlined'}
          aria-haspopup="menu"
          disabled={making.isLoading}
          onClick={(event) => setAnchor(event.currentTarget)}
        >
          {teacherText('share.with')}
        </Button>
        <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
          {(classes.data ?? []).map(({ id: classId, name }) => (
            <MenuItem key={classId} onClick={() => void share(classId)}>
              {name}
            </MenuItem>
          ))}
          <MenuItem onClick={() => void share(null)}>{teacherText('share.anybody')}</MenuItem>
          <Divider />
          <MenuItem component={Link} to="/classes">
            {teacherText('share.new-class')}
          </MenuItem>
        </Menu>
      </Stack>
      {problem && <Alert severity="error">{problem}</Alert>}
      {open.length > 0 && <AskAddress />}
      {shares.data && open.length === 0 && (
        <Typography color="text.secondary">{teacherText('share.none')}</Typography>
      )}
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
