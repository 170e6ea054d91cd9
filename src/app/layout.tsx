import '@fontsource-variable/newsreader/opsz.css';
import '@fontsource-variable/newsreader/opsz-italic.css';
import '@fontsource-variable/ysabeau-office/wght.css';
import './globals.css';
import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import { StorageNotice } from '../features/shared/storage-notice';
import { KEEP_EARLY_PRESSES } from '../ui/early-presses';
import { APPLY_THEME } from '../ui/theme-switch';

export const metadata: Metadata = { title: { default: 'Sphaera', template: '%s: Sphaera' } };

export default function Layout({ children }: { children: ReactNode }) {
  return (
    <html lang="en" suppressHydrationWarning>
      <head>
        <script>{APPLY_THEME}</script>
        <script>{KEEP_EARLY_PRESSES}</script>
      </head>
      <body>
        <StorageNotice />
        {children}
      </body>
    </html>
  );
}
