import '../ui/fonts.css';
import './follow.css';
import { createRoot } from 'react-dom/client';
import { WORKER } from './cache-names.ts';
import { FollowPage } from './FollowPage.tsx';
import { GoPage } from './GoPage.tsx';
import { linkSource } from './source.ts';
import { languageFor, speak, tellDocument } from './words/index.ts';

const root = document.getElementById('root');
if (!root) throw new Error('The page has no root.');
tellDocument();
void speak(languageFor(navigator.languages));
const [, place, code = ''] = location.pathname.split('/');
createRoot(root).render(place === 'go' ? <GoPage /> : <FollowPage source={linkSource(code)} />);
// Once opened, a lesson plays without a connection. Where this is not to be had, it plays with one.
if ('serviceWorker' in navigator)
  void navigator.serviceWorker.register(WORKER, { scope: '/follow/' }).catch(() => undefined);
