'use client';

import { useEffect, useState } from 'react';
import { useRouter } from 'next/navigation';
import { Box, Flex, Text } from '@chakra-ui/react';
import { Key } from '../parts/key';
import { nextScale } from './arms-length';
import { GuideLink } from './guide-link';

const isTypedInto = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && target.closest('input, textarea, select, [contenteditable]') !== null;

/** An entry line that is empty takes keys as commands; anything else that is typed into keeps them. */
const isFree = ({ target }: KeyboardEvent): boolean =>
  !isTypedInto(target) ||
  (target instanceof HTMLInputElement && target.value === '' && target.getAttribute('aria-label') === 'Entry line');

/** The keys that work on every page: find a job, and the list of keys where no entry line shows it. */
export function Shortcuts() {
  const router = useRouter();
  const [shown, setShown] = useState(false);
  useEffect(() => {
    function onKey(event: KeyboardEvent): void {
      if (event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key === 'Escape') setShown(false);
      if (event.key === 'F8') {
        event.preventDefault();
        return nextScale();
      }
      if (!isFree(event)) return;
      if (event.key === '/') router.push('/jobs?find=');
      else if (event.key === '?') setShown((on) => !on);
      else return;
      event.preventDefault();
    }
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [router]);
  if (!shown) return null;
  return (
    <Box
      role="region"
      aria-label="Keys"
      position="fixed"
      top="44px"
      right="0"
      zIndex="3"
      bg="ground"
      border="1.5px solid"
      borderTop="none"
      borderRight="none"
      borderColor="ink"
      px="5"
      py="4"
      fontSize="14px"
    >
      {[
        ['/', 'find a job'],
        ['F8', 'everything larger, for an arm’s length'],
        ['?', 'this list'],
        ['Esc', 'close it'],
      ].map(([key, label]) => (
        <Flex key={key} gap="3" py="0.5">
          <Box w="3em" textAlign="right">
            <Key>{key}</Key>
          </Box>
          <Text as="span">{label}</Text>
        </Flex>
      ))}
      <GuideLink />
    </Box>
  );
}
