'use client';

import type { ReactNode } from 'react';
import { usePathname } from 'next/navigation';
import { Box, Flex, Link } from '@chakra-ui/react';
import { Key } from '../parts/key';
import { useSignedIn } from '../person';
import { Clocks } from './clocks';
import { Shortcuts } from './shortcuts';
import { ScaleSwitch } from './scale-switch';
import { ThemeSwitch } from './theme-switch';
import { PageLink } from '../parts/page-link';

const PLACES = [
  { href: '/', name: 'Bench' },
  { href: '/jobs', name: 'Jobs' },
  { href: '/library', name: 'Library' },
  { href: '/stock', name: 'Stock' },
  { href: '/records', name: 'Records' },
  { href: '/drills', name: 'Drills' },
  { href: '/shop', name: 'Shop' },
] as const;

/** The top strip: where you are, and the way to everywhere else. */
export function Strip({ where }: { where?: ReactNode }) {
  const pathname = usePathname();
  const person = useSignedIn();
  return (
    <Flex
      h={{ lg: '44px' }}
      wrap={{ base: 'wrap', lg: 'nowrap' }}
      align="center"
      columnGap="5"
      px="4.5"
      pt={{ base: '2', lg: '0' }}
      borderBottom="1.5px solid"
      borderColor="ink"
      whiteSpace="nowrap"
    >
      <Link asChild fontWeight="800" fontSize="18px" color="ink" _hover={{ textDecoration: 'none' }}>
        <PageLink href="/">Unisolda</PageLink>
      </Link>
      {where && (
        <Box color="quiet" overflow="hidden" textOverflow="ellipsis" flex={{ base: '1 1 0', lg: '0 1 auto' }} minW="0">
          {where}
        </Box>
      )}
      <Flex ml="auto" />
      <Shortcuts />
      <Clocks />
      <Flex
        as="nav"
        aria-label="Places"
        gap="4.5"
        align="center"
        flexBasis={{ base: '100%', lg: 'auto' }}
        overflowX={{ base: 'auto', lg: 'visible' }}
        css={{ 'html[data-far] &': { '& > *:not(:first-of-type):not([data-stays])': { display: 'none' } } }}
      >
        {PLACES.map(({ href, name }) => (
          <Link
            key={href}
            asChild
            color={pathname === href ? 'copperText' : 'ink'}
            fontWeight={pathname === href ? '700' : '400'}
          >
            <PageLink href={href}>{name}</PageLink>
          </Link>
        ))}
        <Link asChild color="quiet">
          <PageLink href="/jobs?find=">
            Find <Key>/</Key>
          </PageLink>
        </Link>
        {person && (
          <Link asChild color="quiet">
            <PageLink href="/sign-in">
              {person.name}, {person.bench}
            </PageLink>
          </Link>
        )}
        <ScaleSwitch />
        <ThemeSwitch />
      </Flex>
    </Flex>
  );
}
