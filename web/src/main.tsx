import '@fontsource-variable/spline-sans';
import '@fontsource-variable/spline-sans-mono';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { App } from './app/App.tsx';
import { keepEarlyDrops } from './app/early-drops.ts';
import './app/tokens.css';

keepEarlyDrops();
createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <App />
  </StrictMode>,
);
