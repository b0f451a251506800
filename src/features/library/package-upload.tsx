'use client';

import { useRef, useState, useTransition } from 'react';
import { Box, Text, chakra } from '@chakra-ui/react';
import type { ActionResult } from '@/application/action-result';
import type { PackageLook } from '@/application/library/packages';
import { AnswerNote, FilePick, MainButton } from '@/ui';
import { lookIntoPackage, takePackage } from './actions';

const formOf = (file: File): FormData => {
  const form = new FormData();
  form.set('package', file);
  return form;
};

/** A board package from another shop: a new board is added; of one that is there the lines that differ are chosen one by one. */
export function PackageUpload() {
  const [file, setFile] = useState<File>();
  const [look, setLook] = useState<PackageLook>();
  const [taken, setTaken] = useState<ReadonlySet<string>>(new Set());
  const [answer, setAnswer] = useState<ActionResult>();
  const [busy, start] = useTransition();
  const key = useRef<string>(crypto.randomUUID());

  const open = (next: File): void =>
    start(async () => {
      setAnswer(undefined);
      const found = await lookIntoPackage(formOf(next));
      if ('saved' in found) {
        setLook(undefined);
        setAnswer(found);
        return;
      }
      setFile(next);
      setLook(found);
      // What only they have adds to the own file; what differs is looked at first.
      setTaken(new Set(found.differences.filter((d) => d.kind === 'added').map((d) => d.id)));
    });
  const take = (): void =>
    start(async () => {
      const result = await takePackage(formOf(file!), [...taken], key.current).catch(() => undefined);
      if (!result) return setAnswer({ saved: false, message: 'No answer came. Press again: it is not taken twice.' });
      key.current = crypto.randomUUID();
      setAnswer(result);
      if (result.saved) setLook(undefined);
    });
  function choose(id: string, on: boolean): void {
    const next = new Set(taken);
    if (on) next.add(id);
    else next.delete(id);
    setTaken(next);
  }

  return (
    <Box mt="3">
      <FilePick
        label="Open a board package"
        text={busy ? 'Looking …' : 'Open a board package'}
        accept=".zip,application/zip"
        onFile={open}
      />
      <Text as="span" color="quiet" fontSize="14px" ml="3">
        file, photographs and good boards of another shop
      </Text>
      {look && (
        <Box mt="2" pl="4" borderLeft="3px solid" borderColor="copper">
          <Text fontWeight="700">
            {look.name}
            {look.isNew ? ', not in this library yet' : `, ${differ(look.differences.length)}`}
          </Text>
          {look.along.length > 0 && (
            <Text fontSize="14px" color="quiet">
              With it come {look.along.join(', ')}.
            </Text>
          )}
          {look.differences.map(({ id, summary }) => (
            <chakra.label key={id} display="flex" gap="2" fontSize="14px" py="0.5" cursor="pointer">
              <input type="checkbox" checked={taken.has(id)} onChange={(e) => choose(id, e.target.checked)} />
              {summary}
            </chakra.label>
          ))}
          <MainButton type="button" mt="2" disabled={busy} onClick={take}>
            {look.isNew ? 'Add this board' : `Take ${taken.size} of ${look.differences.length} lines`}
          </MainButton>
        </Box>
      )}
      <AnswerNote answer={answer} />
    </Box>
  );
}

const differ = (n: number): string =>
  n === 0 ? 'the same as yours' : n === 1 ? 'one line differs' : `${n} lines differ`;
