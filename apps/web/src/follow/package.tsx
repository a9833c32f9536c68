import '../ui/fonts.css';
import './follow.css';
import { createRoot } from 'react-dom/client';
import { FollowPage } from './FollowPage.tsx';
import { packageSource } from './packaged.ts';
import { languageFor, speak, tellDocument } from './words/index.ts';

const root = document.getElementById('root');
if (!root) throw new Error('The page has no root.');
tellDocument();
void speak(languageFor(navigator.languages));
createRoot(root).render(<FollowPage source={packageSource()} />);
