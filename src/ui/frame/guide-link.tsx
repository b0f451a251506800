'use client';

import NextLink from 'next/link';
import { usePathname } from 'next/navigation';
import { Link } from '@chakra-ui/react';

/** The way to the page of the guide about where one is. */
export const GuideLink = () => (
  <Link asChild display="block" mt="2" color="copperText" fontWeight="700">
    <NextLink href={`/guide?for=${encodeURIComponent(usePathname())}`}>The guide to this page</NextLink>
  </Link>
);
