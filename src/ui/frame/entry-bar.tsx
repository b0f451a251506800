'use client';

import { useEffect, useRef, useState, type KeyboardEvent, type RefObject } from 'react';
import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import { MainButton } from '../parts/button';
import { Key } from '../parts/key';
import { ChoiceList, KeyHint, KeyList, keyName, type EntryForm } from './entry-keys';
import { useEntryOffer } from './entry-offer';
import { useCommandKeys, useTypingAnywhere, type EntryCommand } from './use-command-keys';
import { useEntry, type EntryDelivery } from './use-entry';
import { useEntryText } from './use-entry-text';

/** What a typed line would mean, or what is wrong with it. */
export interface Echo {
  readonly message: string;
  readonly state: 'plain' | 'good' | 'bad' | 'problem';
}

export interface EntryBarProps extends EntryDelivery {
  /** Keeps recalled lines apart, for example by job. */
  readonly name: string;
  readonly placeholder: string;
  readonly echo: (text: string) => Echo | undefined;
  /** Undefined while it is not known yet. */
  readonly complete: (text: string) => readonly string[] | undefined;
  readonly applyCompletion: (text: string, completion: string) => string;
  /** Number of the newest entry that the page shows; an entry counts as kept on the screen once it is reached. */
  readonly version: number;
  /** What Enter fills in while the line is empty. */
  readonly suggestion?: string;
  readonly commands: readonly EntryCommand[];
  /** True for a line that asks and keeps nothing. */
  readonly asks?: (text: string) => boolean;
  /** What can be typed, for the list of keys. */
  readonly forms?: readonly EntryForm[];
}

/** What the line says while it is not known whether an entry is on disk. */
const BUSY = {
  idle: 'Writing to disk …',
  sending: 'Writing to disk …',
  unknown: 'No answer came: it is not known whether this was kept. Looking …',
  asking: 'Weighing …',
} as const;

const COLOUR = { plain: 'quiet', good: 'leaf', bad: 'rust', problem: 'rust' } as const;

/** Focus brings a keyboard over the page where there is only a finger. */
const focusUnlessTouched = (input: HTMLInputElement | null): void => {
  if (!window.matchMedia('(pointer: coarse)').matches) input?.focus();
};

/** The line itself: what is typed or offered, sent under one key until its answer is known, and answered. */
function useEntryLine(props: EntryBarProps, input: RefObject<HTMLInputElement | null>) {
  const { echo, submit, settle, version } = props;
  const { offer, pedalRef, hasPedal } = useEntryOffer();
  const line = useEntryText(props);
  const { text, setText } = line;
  const [answer, setAnswer] = useState<Echo>();
  const { phase, send } = useEntry({ submit, settle });
  const [awaited, setAwaited] = useState(0);
  // The suggestion is about the board after the entry: it is offered only when the page has caught up with it.
  const busy = phase !== 'idle' || version < awaited;

  const [taken, setTaken] = useState(offer?.stamp);
  if (offer && offer.stamp !== taken) {
    setTaken(offer.stamp);
    setText(offer.text);
    setAnswer(undefined);
  }
  useEffect(() => {
    if (offer) focusUnlessTouched(input.current);
    if (offer?.take) void latest.current(offer.text);
  }, [offer, input]);

  // An instrument's reading is kept by the function of the newest render.
  const latest = useRef(keep);
  useEffect(() => {
    latest.current = keep;
  });

  async function keep(typed: string): Promise<void> {
    // What was changed after an instrument offered it is typed.
    const result = await send(typed.trim(), offer?.text === typed ? offer.origin : undefined);
    if (!result) return;
    const { saved, answered, message, seq } = result;
    setAwaited(seq ?? 0);
    setAnswer({ message: saved ? `Kept: ${message}` : message, state: saved || answered ? 'plain' : 'problem' });
    if (saved || answered) line.remember(typed.trim());
    focusUnlessTouched(input.current);
  }

  /** Keeps what is typed; with the pedal takes the reading that is due; else takes what is suggested. */
  function enter(pedal: boolean): void {
    if (busy) return;
    if (text.trim()) void keep(text);
    else if (pedal && pedalRef.current) pedalRef.current();
    else if (props.suggestion) setText(props.suggestion);
  }

  function change(typed: string): void {
    setText(typed);
    setAnswer(undefined);
  }

  const shown = answer ?? (text.trim() ? echo(text) : undefined);
  const waiting = busy ? BUSY[phase === 'sending' && props.asks?.(text) ? 'asking' : phase] : undefined;
  return { ...line, change, enter, shown, waiting, phase, pedalRef, hasPedal };
}

/** The entry line: what is typed, what it means in words, and the keys that work here. */
export function EntryBar(props: EntryBarProps) {
  const { placeholder, suggestion, commands, forms = [] } = props;
  const input = useRef<HTMLInputElement>(null);
  const line = useEntryLine(props, input);
  const { text, completions, enter } = line;
  const keys = useCommandKeys(commands);
  useTypingAnywhere({ input, pedalRef: line.pedalRef, onKey: (event) => keys.choose(event) || keys.command(event) });

  function onKeyDown(event: KeyboardEvent<HTMLInputElement>): void {
    if (keys.choose(event)) {
      event.preventDefault();
    } else if (event.key === 'Enter' || event.key === 'F9') {
      event.preventDefault();
      enter(event.key === 'F9');
    } else if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
      event.preventDefault();
      line.step(event.key === 'ArrowUp' ? 1 : -1);
    } else if (event.key === 'Tab' && !event.shiftKey && completions?.length !== 0) {
      event.preventDefault();
      line.takeCompletion();
    } else if (event.key === 'Escape') {
      line.setText('');
      keys.setShowKeys(false);
    } else if (text === '' && !event.ctrlKey && !event.metaKey && !event.altKey && keys.command(event)) {
      event.preventDefault();
    }
  }

  return (
    <Box position="relative">
      {keys.menu?.choices && <ChoiceList title={keys.menu.label} choices={keys.menu.choices} />}
      {keys.showKeys && <KeyList commands={commands} forms={forms} />}
      <Flex align="center" minH="48px" px="4.5" gap="3.5" wrap={{ base: 'wrap', md: 'nowrap' }}>
        <EntryInput
          ref={input}
          value={text}
          readOnly={line.phase === 'unknown'}
          placeholder={placeholder}
          onChange={(e) => line.change(e.target.value)}
          onKeyDown={onKeyDown}
        />
        <EntryStatus shown={line.shown} waiting={line.waiting} completions={completions ?? []} />
        <FingerButton
          message={text.trim() ? 'Keep' : line.hasPedal ? 'Take the reading' : suggestion ? 'What is due' : undefined}
          disabled={line.waiting !== undefined}
          onPress={() => {
            enter(true);
            // What is suggested wants its value typed.
            if (!text.trim() && !line.hasPedal) input.current?.focus();
          }}
        />
        <KeyHints
          commands={commands}
          enter={text.trim() || !suggestion ? 'keep' : 'take'}
          onMenu={keys.setMenu}
          onKeys={() => keys.setShowKeys((on) => !on)}
        />
      </Flex>
    </Box>
  );
}

const EntryInput = chakra(
  'input',
  {
    base: {
      fontFamily: 'mono',
      fontSize: '17px',
      bg: 'transparent',
      border: 'none',
      outline: 'none',
      _focusVisible: { outline: 'none' },
      _placeholder: { color: 'quiet', opacity: 1 },
      caretColor: 'var(--u-colors-copper)',
      w: { base: '11em', md: '16em' },
      flexShrink: '0',
    },
  },
  { defaultProps: { 'aria-label': 'Entry line', autoFocus: true, autoComplete: 'off', spellCheck: false } },
);

/** What the line would mean, what came of the last one, and the words that can follow. */
function EntryStatus({
  shown,
  waiting,
  completions,
}: {
  readonly shown?: Echo;
  readonly waiting?: string;
  readonly completions: readonly string[];
}) {
  return (
    <Text
      role="status"
      flex="1"
      minW="0"
      fontSize="14px"
      color={shown ? COLOUR[shown.state] : 'quiet'}
      lineHeight="1.25"
    >
      {waiting ?? shown?.message ?? ''}
      {completions.length > 0 && waiting === undefined && (
        <Text as="span" color="quiet" fontFamily="mono" fontSize="13px" ml={shown ? '3' : '0'}>
          <Key>Tab</Key> {completions.slice(0, 4).join('  ')}
        </Text>
      )}
    </Text>
  );
}

interface KeyHintsProps {
  readonly commands: readonly EntryCommand[];
  /** What Enter does now. */
  readonly enter: string;
  readonly onMenu: (command: EntryCommand) => void;
  readonly onKeys: () => void;
}

/** The keys at the right of the line; gone where the page is read from afar or is narrow. */
function KeyHints({ commands, enter, onMenu, onKeys }: KeyHintsProps) {
  return (
    <Flex
      gap="3"
      align="center"
      justify="flex-end"
      wrap={{ base: 'wrap', lg: 'nowrap' }}
      flexShrink={{ base: '1', lg: '0' }}
      fontSize="14px"
      color="quiet"
      display={{ base: 'none', md: 'flex' }}
      css={{ 'html[data-far] &': { display: 'none' } }}
    >
      <Box as="span" css={{ '@media (pointer: coarse)': { display: 'none' } }}>
        <KeyHint name="Enter">{enter}</KeyHint>
      </Box>
      {commands
        .filter((c) => !c.quiet)
        .map((c) => (
          <KeyHint key={c.key} name={keyName(c)} onClick={c.choices ? () => onMenu(c) : c.run}>
            {c.label}
          </KeyHint>
        ))}
      <KeyHint name="?" onClick={onKeys}>
        keys
      </KeyHint>
    </Flex>
  );
}

/** Enter and pedal in one for a finger, as wide as a thumb; only where there is no finer pointer. */
function FingerButton({
  message,
  disabled,
  onPress,
}: {
  readonly message?: string;
  readonly disabled: boolean;
  readonly onPress: () => void;
}) {
  if (message === undefined) return null;
  return (
    <Box display="none" css={{ '@media (pointer: coarse)': { display: 'block' } }}>
      <MainButton type="button" disabled={disabled} onClick={onPress}>
        {message}
      </MainButton>
    </Box>
  );
}
