import { Alert, Box, LinearProgress } from '@mui/material';
import { teacherText } from '@zest/core/words';
import { EDIT_JOINTS, type EditJoint } from './joints.ts';
import { valueName, type Edit, type EditOf } from '@zest/core/lesson';
import { placeOfJoint } from '@zest/core/signal';
import { useEffect, useRef, useState } from 'react';
import { messageOf } from '../../app/message.ts';
import { ChoiceField } from '../../ui/fields.tsx';
import { posesAt } from '../../workers/poses.ts';
import type { FollowSource } from './FollowPerformer.tsx';

/** Finds a joint on the picture that stands still and points at it. */
export function PointAtJoint({
  edit,
  source,
  onChange,
}: {
  edit: EditOf<'freeze'>;
  source: FollowSource;
  onChange: (edit: Edit) => void;
}) {
  const [looksFor, setLooksFor] = useState<EditJoint | ''>('');
  const [fault, setFault] = useState<string | null>(null);
  const stop = useRef<AbortController>(null);
  useEffect(() => () => stop.current?.abort(), []);
  const look = async (joint: EditJoint) => {
    stop.current?.abort();
    const looking = new AbortController();
    stop.current = looking;
    setLooksFor(joint);
    setFault(null);
    try {
      // Looked at a second time about the performer: the first look is at the whole picture.
      const looks = await posesAt(
        source.url,
        [0, 33].map((ms) => source.startMs + edit.atMs + ms),
        () => undefined,
        looking.signal,
      );
      const place = placeOfJoint(looks.at(-1)?.pose ?? [], joint);
      if (!place) setFault(teacherText('assemble.not-seen-surely', { joint: valueName(joint) }));
      else
        onChange({
          ...edit,
          point: {
            x: Math.round(1_000 * Math.min(1, Math.max(0, place.x))),
            y: Math.round(1_000 * Math.min(1, Math.max(0, place.y))),
          },
          text: edit.text || valueName(joint),
        });
    } catch (error) {
      if (!(error instanceof DOMException && error.name === 'AbortError'))
        setFault(messageOf(error));
    } finally {
      if (stop.current === looking) setLooksFor('');
    }
  };
  return (
    <Box sx={{ flex: '1 1 100%' }}>
      <ChoiceField
        label={teacherText('assemble.point-performer-s')}
        value={looksFor}
        choices={EDIT_JOINTS}
        onChange={(joint) => joint !== '' && void look(joint)}
        sx={{ width: 220 }}
      />
      {looksFor !== '' && (
        <LinearProgress aria-label={teacherText('assemble.looking-joint')} sx={{ mt: 1 }} />
      )}
      {fault && (
        <Alert severity="error" sx={{ mt: 1 }}>
          {fault}
        </Alert>
      )}
    </Box>
  );
}
