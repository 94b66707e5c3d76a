import type { Metadata } from 'next';
import { cookies } from 'next/headers';
import type { ReactNode } from 'react';
import './globals.css';

export const metadata: Metadata = { title: { default: 'Etagere', template: '%s – Etagere' } };

export default async function Root({ children }: { children: ReactNode }) {
  const said = (await cookies()).get('theme')?.value;
  // nothing said: as the system is
  const theme = said === 'dark' || said === 'light' ? said : undefined;
  return (
    <html lang="en" data-theme={theme}>
      <body>{children}</body>
    </html>
  );
}
