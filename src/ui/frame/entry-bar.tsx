'use client';

import { useEffect, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import { MainButton } from '../parts/button';
import { Key } from '../parts/key';
import { useEntryOffer } from './entry-offer';
import { GuideLink } from './guide-link';
import { useEntry, type EntryDelivery } from './use-entry';

/** What a typed line would mean, or what is wrong with it. */
export interface Echo {
  readonly words: string;
  readonly state: 'plain' | 'good' | 'bad' | 'problem';
}

/** A command that one key gives while the line is empty. Letters are typed with Shift, so that entries stay free. */
export interface EntryCommand {
  readonly key: string;
  readonly label: string;
  readonly run?: () => void;
  /** What it asks for next, by one key. */
  readonly choices?: readonly { readonly key: string; readonly label: string; readonly run: () => void }[];
  /** Listed with the keys only, not at the right of the line. */
  readonly quiet?: boolean;
}

/** A line that can be typed, and what it means. */
export interface EntryForm {
  readonly example: string;
  readonly help: string;
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

function recalled(name: string): string[] {
  try {
    return JSON.parse(sessionStorage.getItem(`entries ${name}`) ?? '[]') as string[];
  } catch {
    return [];
  }
}

function remember(name: string, text: string): void {
  sessionStorage.setItem(`entries ${name}`, JSON.stringify([...recalled(name), text].slice(-50)));
}

/** The entry line: what is typed, what it means in words, and the keys that work here. */
export function EntryBar(props: EntryBarProps) {
  const {
    name,
    placeholder,
    echo,
    complete,
    applyCompletion,
    submit,
    settle,
    version,
    suggestion,
    commands,
    forms = [],
    asks,
  } = props;
  const { offer, pedalRef, hasPedal } = useEntryOffer();
  const input = useRef<HTMLInputElement>(null);
  const [text, setText] = useState('');
  const [answer, setAnswer] = useState<Echo>();
  const { phase, send } = useEntry({ submit, settle });
  const [awaited, setAwaited] = useState(0);
  // The suggestion is about the board after the entry: it is offered only when the page has caught up with it.
  const busy = phase !== 'idle' || version < awaited;
  const [menu, setMenu] = useState<EntryCommand>();
  const [recall, setRecall] = useState(0);
  const [showKeys, setShowKeys] = useState(false);
  const [taken, setTaken] = useState(offer?.stamp);

  if (offer && offer.stamp !== taken) {
    setTaken(offer.stamp);
    setText(offer.text);
    setAnswer(undefined);
  }
  useEffect(() => {
    if (offer) focusUnlessTouched(input.current);
    if (offer?.take) void latest.current(offer.text);
  }, [offer]);

  // An instrument's reading is kept by the function of the newest render.
  const latest = useRef(keep);
  useEffect(() => {
    latest.current = keep;
  });

  const shown = answer ?? (text.trim() ? echo(text) : undefined);
  const completions = text.trim() ? complete(text) : [];
  // Asked for before it was known what could follow: taken as soon as it is, unless the line has changed.
  const [tabAt, setTabAt] = useState<string>();
  if (tabAt !== undefined && completions) {
    setTabAt(undefined);
    if (tabAt === text && completions.length > 0) setText(applyCompletion(text, completions[0]));
  }

  async function keep(line: string): Promise<void> {
    // What was changed after an instrument offered it is typed.
    const result = await send(line.trim(), offer?.text === line ? offer.origin : undefined);
    if (!result) return;
    const { saved, answered, message, seq } = result;
    setAwaited(seq ?? 0);
    setAnswer({ words: saved ? `Kept: ${message}` : message, state: saved || answered ? 'plain' : 'problem' });
    if (saved || answered) {
      remember(name, line.trim());
      setText('');
      setRecall(0);
    }
    focusUnlessTouched(input.current);
  }

  function step(by: number): void {
    const lines = recalled(name);
    const at = Math.min(lines.length, Math.max(0, recall + by));
    setRecall(at);
    setText(at === 0 ? '' : lines[lines.length - at]);
  }

  /** Commands act while the line is empty, so that no entry is ever mistaken for one. */
  function command(event: Pick<KeyboardEvent, 'key' | 'shiftKey' | 'getModifierState'>): boolean {
    if (event.key === '?') {
      setShowKeys((on) => !on);
      return true;
    }
    const letter = /^[a-z]$/i.test(event.key);
    if (letter && (!event.shiftKey || event.getModifierState('CapsLock'))) return false;
    const found = commands.find((c) => c.key === event.key.toUpperCase() || c.key === event.key);
    if (found?.choices) setMenu(found);
    else found?.run?.();
    return found !== undefined;
  }

  /** While a command asks which: one key answers, any other closes it. */
  function choose(event: Pick<KeyboardEvent, 'key'>): boolean {
    if (!menu?.choices || event.key === 'Shift') return false;
    setMenu(undefined);
    menu.choices.find((c) => c.key === event.key)?.run();
    return true;
  }

  /** Keeps what is typed; with the pedal takes the reading that is due; else takes what is suggested. */
  function enter(pedal: boolean): void {
    if (busy) return;
    if (text.trim()) void keep(text);
    else if (pedal && pedalRef.current) pedalRef.current();
    else if (suggestion) setText(suggestion);
  }

  function onKeyDown(event: KeyboardEvent<HTMLInputElement>): void {
    if (choose(event)) {
      event.preventDefault();
    } else if (event.key === 'Enter' || event.key === 'F9') {
      event.preventDefault();
      enter(event.key === 'F9');
    } else if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
      event.preventDefault();
      step(event.key === 'ArrowUp' ? 1 : -1);
    } else if (event.key === 'Tab' && !event.shiftKey && completions?.length !== 0) {
      event.preventDefault();
      if (completions) setText(applyCompletion(text, completions[0]));
      else setTabAt(text);
    } else if (event.key === 'Escape') {
      setText('');
      setShowKeys(false);
    } else if (text === '' && !event.ctrlKey && !event.metaKey && !event.altKey && command(event)) {
      event.preventDefault();
    }
  }

  const commandRef = useRef(command);
  useEffect(() => {
    commandRef.current = (event) => choose(event) || command(event);
  });
  useEffect(() => {
    /** Typing anywhere lands in the line: the hand need not find it first. */
    function catchKey(event: globalThis.KeyboardEvent): void {
      const target = event.target as HTMLElement;
      if (event.key === 'F9' && target !== input.current) {
        // The foot knows nothing of the focus.
        event.preventDefault();
        if (pedalRef.current && input.current?.value === '') pedalRef.current();
        return input.current?.focus();
      }
      const elsewhere = target.closest('input, textarea, select, button, a, [role="slider"], dialog');
      if (elsewhere || event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key.length !== 1 && event.key !== 'Enter') return;
      input.current?.focus();
      if (input.current?.value === '' && commandRef.current(event)) event.preventDefault();
    }
    window.addEventListener('keydown', catchKey);
    return () => window.removeEventListener('keydown', catchKey);
  }, [pedalRef]);

  return (
    <Box position="relative">
      {menu?.choices && <ChoiceList title={menu.label} choices={menu.choices} />}
      {showKeys && <KeyList commands={commands} forms={forms} />}
      <Flex align="center" minH="48px" px="4.5" gap="3.5" wrap={{ base: 'wrap', md: 'nowrap' }}>
        <chakra.input
          ref={input}
          aria-label="Entry line"
          value={text}
          readOnly={phase === 'unknown'}
          autoFocus
          autoComplete="off"
          spellCheck={false}
          placeholder={placeholder}
          onChange={(e) => {
            setText(e.target.value);
            setAnswer(undefined);
          }}
          onKeyDown={onKeyDown}
          fontFamily="mono"
          fontSize="17px"
          bg="transparent"
          border="none"
          outline="none"
          _focusVisible={{ outline: 'none' }}
          _placeholder={{ color: 'quiet', opacity: 1 }}
          caretColor="var(--u-colors-copper)"
          w={{ base: '11em', md: '16em' }}
          flexShrink="0"
        />
        <Text
          role="status"
          flex="1"
          minW="0"
          fontSize="14px"
          color={shown ? COLOUR[shown.state] : 'quiet'}
          lineHeight="1.25"
        >
          {busy ? BUSY[phase === 'sending' && asks?.(text) ? 'asking' : phase] : (shown?.words ?? '')}
          {completions !== undefined && completions.length > 0 && !busy && (
            <Text as="span" color="quiet" fontFamily="mono" fontSize="13px" ml={shown ? '3' : '0'}>
              <Key>Tab</Key> {completions.slice(0, 4).join('  ')}
            </Text>
          )}
        </Text>
        <FingerButton
          words={text.trim() ? 'Keep' : hasPedal ? 'Take the reading' : suggestion ? 'What is due' : undefined}
          disabled={busy}
          onPress={() => {
            enter(true);
            // What is suggested wants its value typed.
            if (!text.trim() && !hasPedal) input.current?.focus();
          }}
        />
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
            <KeyHint name="Enter">{text.trim() || !suggestion ? 'keep' : 'take'}</KeyHint>
          </Box>
          {commands
            .filter((c) => !c.quiet)
            .map((c) => (
              <KeyHint
                key={c.key}
                name={/^[A-Z]$/.test(c.key) ? `⇧${c.key}` : c.key}
                onClick={c.choices ? () => setMenu(c) : c.run}
              >
                {c.label}
              </KeyHint>
            ))}
          <KeyHint name="?" onClick={() => setShowKeys((on) => !on)}>
            keys
          </KeyHint>
        </Flex>
      </Flex>
    </Box>
  );
}

/** Focus brings a keyboard over the page where there is only a finger. */
const focusUnlessTouched = (input: HTMLInputElement | null): void => {
  if (!window.matchMedia('(pointer: coarse)').matches) input?.focus();
};

/** Enter and pedal in one for a finger, as wide as a thumb; only where there is no finer pointer. */
function FingerButton({
  words,
  disabled,
  onPress,
}: {
  readonly words?: string;
  readonly disabled: boolean;
  readonly onPress: () => void;
}) {
  if (words === undefined) return null;
  return (
    <Box display="none" css={{ '@media (pointer: coarse)': { display: 'block' } }}>
      <MainButton type="button" disabled={disabled} onClick={onPress}>
        {words}
      </MainButton>
    </Box>
  );
}

function KeyHint({ name, onClick, children }: { name: string; onClick?: () => void; children: ReactNode }) {
  if (!onClick) {
    return (
      <span>
        <Key>{name}</Key> {children}
      </span>
    );
  }
  return (
    <chakra.button type="button" onClick={onClick} cursor="pointer" color="quiet">
      <Key>{name}</Key> {children}
    </chakra.button>
  );
}

/** What a command asks for: one key each. */
function ChoiceList({ title, choices }: { title: string; choices: NonNullable<EntryCommand['choices']> }) {
  return (
    <Box
      role="region"
      aria-label={title}
      position="absolute"
      bottom="100%"
      left="0"
      bg="ground"
      border="1.5px solid"
      borderColor="ink"
      borderLeft="none"
      px="4.5"
      py="3"
      fontSize="16px"
    >
      <Text fontWeight="700" mb="1.5">
        {title}
      </Text>
      {choices.map(({ key, label, run }) => (
        <chakra.button key={key} type="button" display="flex" gap="3" py="1" cursor="pointer" onClick={run}>
          <Key>{key}</Key>
          <span>{label}</span>
        </chakra.button>
      ))}
    </Box>
  );
}

function KeyList({ commands, forms }: { commands: readonly EntryCommand[]; forms: readonly EntryForm[] }) {
  const fixed = [
    ['Enter', 'keep the line; empty: take the suggestion'],
    ['F9', 'the foot pedal: as Enter'],
    ['Tab', 'complete the word'],
    ['↑ ↓', 'recall what was typed'],
    ['Esc', 'clear the line'],
    ['/', 'find a job'],
  ];
  return (
    <Box
      role="region"
      aria-label="Keys"
      position="absolute"
      bottom="100%"
      right="0"
      bg="ground"
      border="1.5px solid"
      borderColor="ink"
      borderRight="none"
      px="5"
      py="4"
      fontSize="14px"
      maxH="calc(100vh - 110px)"
      maxW="min(1040px, 100vw)"
      overflowY="auto"
    >
      <Flex gap="10" align="flex-start">
        {forms.length > 0 && <FormList forms={forms} />}
        <Box flexShrink="0">
          <Text fontWeight="700" mb="2">
            Keys, while the line is empty
          </Text>
          {[...commands.map((c) => [/^[A-Z]$/.test(c.key) ? `⇧${c.key}` : c.key, c.label]), ...fixed].map(
            ([key, label]) => (
              <Flex key={key} gap="3" py="0.5" align="baseline">
                <Box w="4em" textAlign="right">
                  <Key>{key}</Key>
                </Box>
                <Text as="span">{label}</Text>
              </Flex>
            ),
          )}
          <GuideLink />
        </Box>
      </Flex>
    </Box>
  );
}

/** Every form of the line, from the grammar itself. */
const FormList = ({ forms }: { forms: readonly EntryForm[] }) => (
  <Box minW="0">
    <Text fontWeight="700" mb="2">
      What can be typed
    </Text>
    {forms.map(({ example, help }) => (
      <Flex key={example} gap="3" py="0.5" align="baseline">
        <Text as="span" fontFamily="mono" fontSize="13px" minW="17.5em" flexShrink="0">
          {example}
        </Text>
        <Text as="span" color="quiet" lineHeight="1.25">
          {help}
        </Text>
      </Flex>
    ))}
  </Box>
);
