import '../design/quill.css';
import './client.css';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { AnyPage } from './AnyPage';

const root = document.getElementById('root');
const [, , token = '', payer = ''] = window.location.pathname.split('/');
if (root)
  createRoot(root).render(
    <StrictMode>
      <AnyPage token={token} payer={payer || null} />
    </StrictMode>,
  );
