import '@fontsource-variable/inter';
import '@fontsource-variable/jetbrains-mono';
import './ui/shared.css';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { reloadForLostChunks } from './app/lost-chunks.ts';
import { Root } from './app/root.tsx';
import { takeFormerSettings } from './ui/former-settings.ts';

takeFormerSettings();
reloadForLostChunks();

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <Root />
  </StrictMode>,
);
