import type { Metadata, Viewport } from 'next';
import { cookies, headers } from 'next/headers';
import type { ReactNode } from 'react';
import './globals.css';

export const metadata: Metadata = {
  title: { default: 'Lanternpost', template: '%s · Lanternpost' },
  icons: '/icon.svg',
};
export const viewport: Viewport = { width: 'device-width', initialScale: 1 };

/** Before anything is drawn, and when the system changes at dusk: the theme that was chosen, else the system's. */
const THEME = `{
  const dark = matchMedia('(prefers-color-scheme: dark)');
  const follow = () => {
    if (!document.cookie.includes('lanternpost-theme=')) document.documentElement.dataset.theme = dark.matches ? 'dark' : 'light';
  };
  follow();
  dark.addEventListener('change', follow);
}`;

export default async function RootLayout({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get('x-nonce') ?? undefined;
  const theme = (await cookies()).get('lanternpost-theme')?.value;
  return (
    <html lang="en" data-theme={theme === 'dark' || theme === 'light' ? theme : undefined} suppressHydrationWarning>
      <head>
        <script nonce={nonce} suppressHydrationWarning dangerouslySetInnerHTML={{ __html: THEME }} />
      </head>
      <body>{children}</body>
    </html>
  );
}
