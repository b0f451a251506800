import type { Metadata } from 'next';
import localFont from 'next/font/local';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { keepFilePreset } from '@/features/practice/actions';
import { loadFilePresets, loadPlace } from '@/features/practice/queries';
import { loadPerson } from '@/features/shop/queries';
import { FilePresetsProvider, PersonProvider, PlaceProvider, UiProvider } from '@/ui';

const text = localFont({
  src: '../../node_modules/@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2',
  variable: '--font-text',
  weight: '200 800',
});
const figures = localFont({
  src: '../../node_modules/@fontsource-variable/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-wght-normal.woff2',
  variable: '--font-figures',
  weight: '200 800',
});

export const metadata: Metadata = {
  title: 'Unisolda',
  description: 'Bench partner for port and charge controller repair',
};

export default async function RootLayout({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get('x-nonce') ?? undefined;
  // Every page is made when it is asked for: the request was looked at before the database is.
  const [place, presets, person] = await Promise.all([loadPlace(), loadFilePresets(), loadPerson()]);
  return (
    <html lang="en" className={`${text.variable} ${figures.variable}`} suppressHydrationWarning>
      <body data-asleep="">
        <UiProvider nonce={nonce}>
          <PlaceProvider place={place}>
            <FilePresetsProvider presets={presets} onKeep={keepFilePreset}>
              <PersonProvider person={person && { name: person.name, bench: person.bench }}>{children}</PersonProvider>
            </FilePresetsProvider>
          </PlaceProvider>
        </UiProvider>
      </body>
    </html>
  );
}
