import { Alert, Box, CircularProgress } from '@mui/material';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import { Shelf } from '../stages/shelf/Shelf.tsx';
import { AssembleBench } from '../stages/assemble/AssembleBench.tsx';
import { FilmBench } from '../stages/film/FilmBench.tsx';
import { PlanBench } from '../stages/plan/PlanBench.tsx';
import { ShareBench } from '../stages/share/ShareBench.tsx';
import { api, problemText } from './api.ts';
import { Entry } from './Entry.tsx';
import { LessonShell } from './LessonShell.tsx';
import { useJobEvents } from './events.ts';

const router = createBrowserRouter([
  { path: '/', element: <Shelf /> },
  {
    path: '/lessons/:lessonId',
    element: <LessonShell />,
    children: [
      { index: true, element: <Navigate to="plan" replace /> },
      { path: 'plan', element: <PlanBench /> },
      { path: 'film', element: <FilmBench /> },
      { path: 'assemble', element: <AssembleBench /> },
      { path: 'share', element: <ShareBench /> },
    ],
  },
  { path: '*', element: <Navigate to="/" replace /> },
]);

function SignedIn() {
  useJobEvents();
  return <RouterProvider router={router} />;
}

export function App() {
  const session = api.useSessionQuery();
  if (session.isLoading) {
    return (
      <Box component="main" sx={{ display: 'grid', placeItems: 'center', minHeight: '100vh' }}>
        <CircularProgress aria-label="Loading" />
      </Box>
    );
  }
  if (!session.data) {
    return (
      <Box component="main" sx={{ p: 4 }}>
        <Alert severity="error">{problemText(session.error)}</Alert>
      </Box>
    );
  }
  return session.data.user ? <SignedIn /> : <Entry session={session.data} />;
}
