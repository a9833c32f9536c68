import '../ui/fonts.css';
import './follow.css';
import { createRoot } from 'react-dom/client';
import { FollowPage } from './FollowPage.tsx';
import { packageSource } from './packaged.ts';

const root = document.getElementById('root');
if (!root) throw new Error('The page has no root.');
createRoot(root).render(<FollowPage source={packageSource()} />);
