import { Alert, Box, CircularProgress } from '@mui/material';
import { teacherText } from '@zest/core/words';
import { useEffect } from 'react';
import {
  createBrowserRouter,
  Navigate,
  Outlet,
  useLocation,
  useNavigationType,
} from 'react-router';
import { RouterProvider } from 'react-router/dom';
import { Shelf } from '../stages/shelf/Shelf.tsx';
import { api, problemText } from './api.ts';
import { Entry } from './Entry.tsx';
import { JoinTeam } from './JoinTeam.tsx';
import { LessonShell } from '../frame/LessonShell.tsx';
import { NewPassword } from './NewPassword.tsx';
import { useJobEvents } from './events.ts';

function Waiting() {
  return (
    <Box component="main" sx={{ display: 'grid', placeItems: 'center', minHeight: '100vh' }}>
      <CircularProgress aria-label={teacherText('app.loading')} />
    </Box>
  );
}

/** A page that is gone to opens at its top; one that is gone back to, where the browser kept it. */
function AtTop() {
  const { pathname } = useLocation();
  const how = useNavigationType();
  useEffect(() => {
    if (how !== 'POP') scrollTo(0, 0);
    // Going back and forth changes how, not where.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [pathname]);
  return <Outlet />;
}

/** Each bench is fetched when it is first gone to. */
const router = createBrowserRouter([
  {
    element: <AtTop />,
    children: [
      { path: '/', element: <Shelf /> },
      {
        path: '/series/:seriesId',
        HydrateFallback: Waiting,
        lazy: async () => ({
          Component: (await import('../stages/series/SeriesPage.tsx')).SeriesPage,
        }),
      },
      {
        path: '/lessons/:lessonId',
        element: <LessonShell />,
        HydrateFallback: Waiting,
        children: [
          { index: true, element: <Navigate to="plan" replace /> },
          {
            path: 'plan',
            lazy: async () => ({
              Component: (await import('../stages/plan/PlanBench.tsx')).PlanBench,
            }),
          },
          {
            path: 'script',
            lazy: async () => ({
              Component: (await import('../stages/script/ScriptBench.tsx')).ScriptBench,
            }),
          },
          {
            path: 'film',
            lazy: async () => ({
              Component: (await import('../stages/film/FilmBench.tsx')).FilmBench,
            }),
          },
          {
            path: 'assemble',
            lazy: async () => ({
              Component: (await import('../stages/assemble/AssembleBench.tsx')).AssembleBench,
            }),
          },
          {
            path: 'check',
            lazy: async () => ({
              Component: (await import('../stages/check/CheckBench.tsx')).CheckBench,
            }),
          },
          {
            path: 'log',
            lazy: async () => ({
              Component: (await import('../stages/log/LogBench.tsx')).LogBench,
            }),
          },
          {
            path: 'share',
            lazy: async () => ({
              Component: (await import('../stages/share/ShareBench.tsx')).ShareBench,
            }),
          },
        ],
      },
      {
        path: '/team',
        HydrateFallback: Waiting,
        lazy: async () => ({ Component: (await import('../stages/team/TeamPage.tsx')).TeamPage }),
      },
      {
        path: '/storage',
        HydrateFallback: Waiting,
        lazy: async () => ({
          Component: (await import('../stages/team/StoragePage.tsx')).StoragePage,
        }),
      },
      {
        path: '/classes',
        HydrateFallback: Waiting,
        lazy: async () => ({
          Component: (await import('../stages/classes/ClassesPage.tsx')).ClassesPage,
        }),
      },
      {
        path: '/classes/:classId',
        HydrateFallback: Waiting,
        lazy: async () => ({
          Component: (await import('../stages/classes/ClassPage.tsx')).ClassPage,
        }),
      },
      {
        path: '/classes/:classId/students/:studentId',
        HydrateFallback: Waiting,
        lazy: async () => ({
          Component: (await import('../stages/classes/StudentPage.tsx')).StudentPage,
        }),
      },
      { path: '*', element: <Navigate to="/" replace /> },
    ],
  },
]);

function SignedIn() {
  useJobEvents();
  return <RouterProvider router={router} />;
}

export function App() {
  const session = api.useSessionQuery();
  if (location.pathname === '/join') return <JoinTeam />;
  if (location.pathname === '/password') return <NewPassword />;
  if (session.isLoading) return <Waiting />;
  if (!session.data) {
    return (
      <Box component="main" sx={{ p: 4 }}>
        <Alert severity="error">{problemText(session.error)}</Alert>
      </Box>
    );
  }
  return session.data.user ? <SignedIn /> : <Entry session={session.data} />;
}
