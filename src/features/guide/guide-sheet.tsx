import Markdown, { type Components } from 'react-markdown';
import { Box, Grid, Link, Text } from '@chakra-ui/react';
import { inProgram, type GuidePage } from './pages';
import { PageLink } from '@/ui';

/** A page of the guide, with the others beside it. */
export function GuideSheet({ page, pages }: { page: GuidePage; pages: readonly GuidePage[] }) {
  return (
    <Grid templateColumns={{ base: '1fr', md: '190px minmax(0, 46em)' }} gap="10">
      <Box as="nav" aria-label="Guide">
        {pages.map(({ id, title }) => (
          <Link
            key={id}
            asChild
            display="block"
            py="1"
            color={id === page.id ? 'copperText' : 'ink'}
            fontWeight={id === page.id ? '700' : '400'}
          >
            <PageLink href={`/guide/${id}`}>{title}</PageLink>
          </Link>
        ))}
      </Box>
      <Box fontSize="16px" lineHeight="1.55" css={LAYOUT}>
        <Markdown components={COMPONENTS} urlTransform={inProgram}>
          {page.text}
        </Markdown>
      </Box>
    </Grid>
  );
}

const LAYOUT = {
  '& h1': { fontSize: '34px', fontWeight: '700', lineHeight: '1.15', marginBottom: '10px' },
  '& h2': { fontSize: '20px', fontWeight: '700', marginTop: '22px', marginBottom: '4px' },
  '& p': { marginBottom: '10px' },
  '& ol, & ul': { paddingLeft: '1.4em', marginBottom: '12px' },
  '& ol': { listStyleType: 'decimal' },
  '& ul': { listStyleType: 'disc' },
  '& li': { marginBottom: '4px' },
  '& code': { fontFamily: 'mono', fontSize: '0.92em' },
  '& pre': {
    borderLeft: '3px solid',
    borderColor: 'copper',
    paddingLeft: '12px',
    marginBottom: '12px',
    overflowX: 'auto',
  },
};

const COMPONENTS: Components = {
  a: ({ href = '', children }) => (
    <Link asChild color="copperText" textDecoration="underline">
      <PageLink href={href}>{children}</PageLink>
    </Link>
  ),
  img: ({ src, alt }) => (
    <Box as="span" display="block" border="1px solid" borderColor="rule" my="3">
      {/* eslint-disable-next-line @next/next/no-img-element -- a picture of our own, already as small as it gets */}
      <img src={src as string} alt={alt} width={1280} height={800} style={{ width: '100%', height: 'auto' }} />
    </Box>
  ),
  pre: ({ children }) => <pre tabIndex={0}>{children}</pre>,
  code: ({ className, children }) => (
    <>
      {className && (
        <Text as="span" display="block" fontSize="13px" color="quiet" fontFamily="body">
          {typedWhere(className)}
        </Text>
      )}
      <code>{children}</code>
    </>
  ),
};

/** Where an example is typed, by the name of its block. */
function typedWhere(className: string): string {
  switch (className.replace('language-', '')) {
    case 'job':
      return 'typed into the job’s entry line';
    case 'stock':
      return 'typed into the stock’s entry line';
    default:
      return 'in a terminal, in the program’s folder';
  }
}
