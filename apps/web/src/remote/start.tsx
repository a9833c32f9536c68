import '@fontsource-variable/atkinson-hyperlegible-next/wght.css';
import '../ui/fonts.css';
import './remote.css';
import { createRoot } from 'react-dom/client';
import { RemotePage } from './RemotePage.tsx';

const root = document.getElementById('root');
if (!root) throw new Error('The page has no root.');
createRoot(root).render(<RemotePage />);
