'use client';

import { chakra } from '@chakra-ui/react';

export interface FilePickProps {
  /** For assistive technology and tests. */
  readonly label: string;
  readonly text: string;
  readonly accept?: string;
  readonly onFile: (file: File) => void;
}

/** A text that opens the file dialog, and on which a file can be dropped; the same file can be picked again after it was mended. */
export function FilePick({ label, text, accept, onFile }: FilePickProps) {
  return (
    <chakra.label
      cursor="pointer"
      color="copperText"
      textDecoration="underline"
      position="relative"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        const file = e.dataTransfer.files[0];
        if (file) onFile(file);
      }}
      _focusWithin={{ outline: '2px solid', outlineColor: 'copper' }}
    >
      {text}
      <chakra.input
        type="file"
        accept={accept}
        aria-label={label}
        position="absolute"
        opacity="0"
        w="1px"
        h="1px"
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) onFile(file);
          e.target.value = '';
        }}
      />
    </chakra.label>
  );
}
