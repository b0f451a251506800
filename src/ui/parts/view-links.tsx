import { Flex, Link } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { PageLink } from './page-link';

/** The views of one sheet, each with an address of its own; what else belongs on the line follows at the right. */
export function ViewLinks({
  label,
  views,
  current,
  children,
}: {
  label: string;
  /** Id, name and address of each. */
  views: readonly { readonly id: string; readonly name: string; readonly href: string }[];
  current: string;
  children?: ReactNode;
}) {
  return (
    <Flex gap="5" align="baseline" mb="3" wrap="wrap" fontSize="14px" as="nav" aria-label={label}>
      {views.map(({ id, name, href }) => (
        <Link key={id} asChild color="ink" _hover={{ textDecoration: 'none', borderColor: 'copper' }}>
          <PageLink
            href={href}
            scroll={false}
            aria-current={current === id ? 'page' : undefined}
            style={{
              fontWeight: current === id ? 700 : 400,
              borderBottom: `2px solid ${current === id ? 'var(--u-colors-copper)' : 'transparent'}`,
            }}
          >
            {name}
          </PageLink>
        </Link>
      ))}
      {children}
    </Flex>
  );
}
