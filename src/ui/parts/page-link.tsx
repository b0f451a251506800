'use client';

import type { ComponentProps } from 'react';
import Link from 'next/link';

/**
 * A link to a page of the program. Each page is computed when it is gone to: links that fetched theirs ahead asked the server for
 * thirty-five pages after every entry (measured on Prove).
 */
export const PageLink = (props: ComponentProps<typeof Link>) => <Link prefetch={false} {...props} />;
