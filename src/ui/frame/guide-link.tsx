'use client';

import { usePathname } from 'next/navigation';
import { Link } from '@chakra-ui/react';
import { PageLink } from '../parts/page-link';

/** The way to the page of the guide about where one is. */
export const GuideLink = () => (
  <Link asChild display="block" mt="2" color="copperText" fontWeight="700">
    <PageLink href={`/guide?for=${encodeURIComponent(usePathname())}`}>The guide to this page</PageLink>
  </Link>
);
