import {
  Alert,
  Box,
  Button,
  Paper,
  Stack,
  Table,
  TableBody,
  TableCell,
  TableContainer,
  TableHead,
  TableRow,
  Typography,
} from '@mui/material';
import { teacherText } from '@zest/core/words';
import { useState } from 'react';
import { Link } from 'react-router';
import { problemText } from '../../app/api.ts';
import { teamApi } from '../../app/team-api.ts';
import { ageText } from '../../ui/day-text.ts';
import { PageFrame } from '../../frame/PageFrame.tsx';
import { sizeText } from '../../ui/size-text.ts';

interface Item {
  id: string;
  name: string;
  lesson: string;
  /** Where it is worked on. */
  to: string;
  bytes: number;
  at: string;
}

/** The same in both tables, so that ages stand under ages. */
const columns = [
  [teacherText('team.what'), '28%'],
  [teacherText('common.lesson'), '24%'],
  [teacherText('team.size'), '20%'],
  [teacherText('team.age'), '12%'],
  ['', '16%'],
] as const;

/** Things that take up room, each with a bar as long as its share of the largest. */
function Items({
  title,
  items,
  empty,
  isBusy,
  onDelete,
}: {
  title: string;
  items: readonly Item[];
  empty: string;
  isBusy: boolean;
  onDelete: (id: string) => void;
}) {
  const [asked, setAsked] = useState<string | null>(null);
  const most = Math.max(1, ...items.map(({ bytes }) => bytes));
  const total = items.reduce((sum, { bytes }) => sum + bytes, 0);
  return (
    <Paper variant="outlined" sx={{ p: 2 }}>
      <Typography variant="h2">
        {title}
        {items.length > 0 && `, ${sizeText(total)}`}
      </Typography>
      {items.length === 0 && <Typography color="text.secondary">{empty}</Typography>}
      {items.length > 0 && (
        <TableContainer>
          <Table size="small" aria-label={title} sx={{ tableLayout: { md: 'fixed' } }}>
            <TableHead>
              <TableRow>
                {columns.map(([head, width]) => (
                  <TableCell key={head} sx={{ width }}>
                    {head}
                  </TableCell>
                ))}
              </TableRow>
            </TableHead>
            <TableBody>
              {items.map(({ id, name, lesson, to, bytes, at }) => (
                <TableRow key={id} data-testid="stored">
                  <TableCell sx={{ fontWeight: 650, overflowWrap: 'anywhere' }}>{name}</TableCell>
                  <TableCell>
                    <Link to={to}>{lesson || teacherText('untitled')}</Link>
                  </TableCell>
                  <TableCell sx={{ minWidth: 190 }}>
                    <Stack direction="row" sx={{ gap: 1, alignItems: 'center' }}>
                      <Box
                        aria-hidden
                        sx={{ height: 12, borderRadius: 1, bgcolor: 'primary.main' }}
                        style={{ width: `${Math.max(2, (100 * bytes) / most)}px` }}
                      />
                      {sizeText(bytes)}
                    </Stack>
                  </TableCell>
                  <TableCell>{ageText(new Date(at), new Date())}</TableCell>
                  <TableCell align="right">
                    {asked === id ? (
                      <Stack direction="row" sx={{ gap: 1, justifyContent: 'flex-end' }}>
                        <Button onClick={() => setAsked(null)}>{teacherText('team.keep')}</Button>
                        <Button
                          color="error"
                          variant="contained"
                          disabled={isBusy}
                          onClick={() => {
                            setAsked(null);
                            onDelete(id);
                          }}
                        >
                          {teacherText('team.delete-good')}
                        </Button>
                      </Stack>
                    ) : (
                      <Button
                        color="error"
                        aria-label={teacherText('team.delete-of', { name, lesson })}
                        onClick={() => setAsked(id)}
                      >
                        {teacherText('team.delete')}
                      </Button>
                    )}
                  </TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
        </TableContainer>
      )}
    </Paper>
  );
}

/** Exports and footage by size and age, and how to be rid of them. */
export function StoragePage() {
  const stored = teamApi.useStoredQuery(undefined, { refetchOnMountOrArgChange: true });
  const [deleteExport, exporting] = teamApi.useDeleteExportMutation();
  const [deleteTake, taking] = teamApi.useDeleteTakeMutation();
  const problem = problemText(stored.error ?? exporting.error ?? taking.error);
  return (
    <PageFrame
      title={teacherText('team.what-takes-up-room')}
      back={{ to: '/', name: teacherText('team.all-lessons') }}
    >
      <Stack spacing={2}>
        {problem && <Alert severity="error">{problem}</Alert>}
        {stored.data && (
          <>
            <Items
              title={teacherText('team.exports')}
              empty={teacherText('team.no-exports-kept')}
              isBusy={exporting.isLoading}
              onDelete={(id) => void deleteExport(id)}
              items={stored.data.exports.map(({ jobId, what, lesson, lessonId, bytes, at }) => ({
                id: jobId,
                name: what,
                lesson,
                to: `/lessons/${lessonId}/share`,
                bytes,
                at,
              }))}
            />
            <Items
              title={teacherText('team.footage')}
              empty={teacherText('team.no-footage-kept')}
              isBusy={taking.isLoading}
              onDelete={(id) => void deleteTake(id)}
              items={stored.data.footage.map(
                ({ takeId, name, lesson, lessonId, bytes, at, inBin }) => ({
                  id: takeId,
                  name: inBin ? teacherText('team.bin', { name }) : name,
                  lesson,
                  to: `/lessons/${lessonId}/film`,
                  bytes,
                  at,
                }),
              )}
            />
            <Typography color="text.secondary">
              {teacherText('team.export-can-made-again')}
            </Typography>
          </>
        )}
      </Stack>
    </PageFrame>
  );
}
