'use client';

import { useState, type ReactNode } from 'react';
import { Box, Flex, Grid, Heading, Link, Text, chakra } from '@chakra-ui/react';
import {
  AnswerNote,
  FigureLine,
  FilePick,
  Headline,
  MainButton,
  Named,
  PlainButton,
  ProblemNote,
  SelectBox,
  TextInput,
} from '@/ui';
import {
  copyNow,
  eraseOwner,
  keepCopySetting,
  keepInstruments,
  keepRetention,
  letIn,
  restoreCopy,
  sendOff,
} from './actions';
import type { ShopState } from './queries';

type Answer = { readonly saved: boolean; readonly message: string };

/** The shop's own affairs: whether anything could be lost, who may sign in, whether the record is whole. */
export function ShopSheet({ shop, signedIn }: { shop: ShopState; signedIn: boolean }) {
  const { copies, seals } = shop;
  const broken = seals.jobs.broken ?? seals.stock.broken;
  return (
    <>
      <Headline
        title={
          broken
            ? 'An entry is not what was sealed'
            : copies.warning
              ? copies.last
                ? 'The last copy is old'
                : 'No copy to fall back on'
              : 'Copied, sealed and whole'
        }
        aside={copies.last ? `last copy ${copies.last.at.slice(0, 16).replace('T', ' ')} UTC` : 'no copy yet'}
      >
        What a dead disk, a stranger on the network or a changed entry could do here, and what stands against it.
      </Headline>
      <Grid templateColumns={{ base: '1fr', lg: '1fr 1fr' }} gap="10">
        <Box>
          <CopiesPart shop={shop} />
          <OutPart shop={shop} />
          <InstrumentsPart shop={shop} />
          <HealthPart shop={shop} />
        </Box>
        <PeoplePart shop={shop} signedIn={signedIn} />
      </Grid>
    </>
  );
}

const Part = ({ title, children }: { title: string; children: ReactNode }) => (
  <Box as="section" aria-label={title} mb="8">
    <Heading as="h2" fontSize="20px" mb="2" borderBottom="1px solid" borderColor="rule">
      {title}
    </Heading>
    {children}
  </Box>
);

function CopiesPart({ shop: { copies } }: { shop: ShopState }) {
  const [folder, setFolder] = useState(copies.setting?.folder ?? '');
  const [hours, setHours] = useState(String(copies.setting?.everyHours ?? 1));
  const [answer, setAnswer] = useState<Answer>();
  return (
    <Part title="Copies">
      {copies.warning && <ProblemNote text={copies.warning} />}
      <Flex
        as="form"
        gap="3"
        align="flex-end"
        wrap="wrap"
        onSubmit={(event) => {
          event.preventDefault();
          void keepCopySetting(folder, Number(hours)).then(setAnswer);
        }}
      >
        <Named name="Folder, better on another disk">
          <TextInput value={folder} onChange={(e) => setFolder(e.target.value)} w="22em" />
        </Named>
        <Named name="Every, hours">
          <TextInput value={hours} onChange={(e) => setHours(e.target.value)} w="5em" />
        </Named>
        <PlainButton type="submit">Keep and copy</PlainButton>
        {copies.setting && (
          <MainButton type="button" onClick={() => void copyNow().then(setAnswer)}>
            Copy now
          </MainButton>
        )}
      </Flex>
      <AnswerNote answer={answer} />
      <chakra.ul mt="3" listStyleType="none">
        {copies.names.slice(0, SHOWN_COPIES).map((name) => (
          <chakra.li key={name} fontFamily="mono" fontSize="13px" display="flex" gap="4" py="0.5">
            {name}
            <PlainButton type="button" onClick={() => void restoreCopy(name).then(setAnswer)}>
              Restore beside
            </PlainButton>
          </chakra.li>
        ))}
      </chakra.ul>
      {copies.names.length > SHOWN_COPIES && (
        <Text fontSize="13px" color="quiet">
          and {copies.names.length - SHOWN_COPIES} older
        </Text>
      )}
    </Part>
  );
}

/** Everything out in open forms, and an owner's data gone on request. */
function OutPart({ shop: { retention } }: { shop: ShopState }) {
  const [answer, setAnswer] = useState<Answer>();
  const [job, setJob] = useState('');
  const [months, setMonths] = useState(String(retention.months ?? ''));
  return (
    <Part title="Out of the shop">
      <Text fontSize="14px" mb="2">
        Everything that is known here, as JSON lines, images and pictures with their hashes. Brought into another shop
        by{' '}
        <Box as="span" fontFamily="mono">
          npm run shop:archive -- in FILE
        </Box>
        .
      </Text>
      <Link href="/shop/archive" download color="copperText" fontWeight="700">
        Everything as one archive
      </Link>
      <Flex
        as="form"
        gap="3"
        mt="4"
        align="flex-end"
        onSubmit={(event) => {
          event.preventDefault();
          void eraseOwner(Number(job), crypto.randomUUID()).then(setAnswer);
        }}
      >
        <Named name="Erase the owner’s words and pictures of closed job">
          <TextInput value={job} onChange={(e) => setJob(e.target.value)} w="6em" inputMode="numeric" />
        </Named>
        <PlainButton type="submit" disabled={!/^\d+$/.test(job)}>
          Erase them for good
        </PlainButton>
      </Flex>
      <Flex
        as="form"
        gap="3"
        mt="4"
        align="flex-end"
        onSubmit={(event) => {
          event.preventDefault();
          void keepRetention(months.trim() === '' ? null : Number(months)).then(setAnswer);
        }}
      >
        <Named name="Erase every owner’s, months after closing; empty: never">
          <TextInput value={months} onChange={(e) => setMonths(e.target.value)} w="6em" inputMode="numeric" />
        </Named>
        <PlainButton type="submit" disabled={!/^\d*$/.test(months.trim())}>
          Keep the time
        </PlainButton>
      </Flex>
      {retention.due > 0 && (
        <Text fontSize="14px" color="quiet" mt="1">
          {retention.due === 1 ? 'One job is' : `${retention.due} jobs are`} due: erased at the next look, at the latest
          in a day.
        </Text>
      )}
      <AnswerNote answer={answer} />
    </Part>
  );
}

/** Instruments on the network, and those that the shop has described itself. */
function InstrumentsPart({ shop: { instruments } }: { shop: ShopState }) {
  const [addresses, setAddresses] = useState(instruments.addresses.join(' '));
  const [answer, setAnswer] = useState<Answer>();
  const send = (change: unknown): void => void keepInstruments(change).then(setAnswer);
  async function addFile(file: File): Promise<void> {
    try {
      const added: unknown = JSON.parse(await file.text());
      send({ definitions: [...instruments.definitions, added] });
    } catch {
      setAnswer({ saved: false, message: `Expected an instrument as JSON; ${file.name} is none.` });
    }
  }
  return (
    <Part title="Instruments">
      <Flex
        as="form"
        gap="3"
        align="flex-end"
        onSubmit={(event) => {
          event.preventDefault();
          send({ addresses: addresses.split(/[\s,;]+/).filter((a) => a !== '') });
        }}
      >
        <Named name="Addresses on the network that may be reached, host:port">
          <TextInput
            value={addresses}
            onChange={(e) => setAddresses(e.target.value)}
            w="22em"
            fontFamily="mono"
            placeholder="192.0.2.7:5025"
          />
        </Named>
        <PlainButton type="submit">Keep</PlainButton>
      </Flex>
      {instruments.definitions.map((d) => (
        <Flex key={d.name} align="baseline" gap="4" py="1" borderBottom="1px dotted" borderColor="rule">
          <Text fontWeight="700">{d.name}</Text>
          <Text color="quiet" fontSize="14px">
            {d.dialect.kind}
          </Text>
          <Box ml="auto">
            <PlainButton
              type="button"
              onClick={() => send({ definitions: instruments.definitions.filter((o) => o !== d) })}
            >
              Drop
            </PlainButton>
          </Box>
        </Flex>
      ))}
      <Box mt="2">
        <FilePick
          label="Instrument of your own"
          text="An instrument of your own (JSON)"
          accept=".json"
          onFile={(file) => void addFile(file)}
        />
      </Box>
      <AnswerNote answer={answer} />
    </Part>
  );
}

const SHOWN_COPIES = 6;

function HealthPart({ shop: { seals, fileBytes, memoryBytes, upS, problems } }: { shop: ShopState }) {
  const rows = [['Job record', seals.jobs] as const, ['Stock record', seals.stock] as const];
  return (
    <Part title="Health">
      {rows.map(([name, found]) => (
        <FigureLine
          key={name}
          name={`${name}, sealed entries${found.before > 0 ? `, ${found.before} from before` : ''}`}
          value={found.broken ? `entry ${found.broken.id} ${found.broken.message}` : `${found.sealed}, whole`}
          colour={found.broken ? 'rust' : 'leaf'}
        />
      ))}
      {fileBytes !== undefined && (
        <FigureLine name="Database and its log" value={`${(fileBytes / 1e6).toFixed(1)} MB`} />
      )}
      <FigureLine name="Memory of the server" value={`${Math.round(memoryBytes / 1e6)} MB`} />
      <FigureLine name="Running for" value={`${(upS / 3600).toFixed(1)} h`} />
      <Problems problems={problems} />
    </Part>
  );
}

/** What went wrong since the start: when, at what, and the kind of error; nothing of an owner's. */
const Problems = ({ problems }: { problems: ShopState['problems'] }) =>
  problems.length === 0 ? (
    <Text mt="3" fontSize="14px" color="quiet">
      Nothing went wrong since the start. The journal lies beside the database.
    </Text>
  ) : (
    <Box mt="3" role="list" aria-label="What went wrong since the start">
      {problems.map(({ at, doing, error, message }) => (
        <Text key={`${at} ${doing}`} role="listitem" fontSize="14px" py="0.5">
          <Text as="span" fontFamily="mono" color="quiet">
            {at.slice(5, 16).replace('T', ' ')}
          </Text>{' '}
          <b>{doing}</b>: {error}, {message}
        </Text>
      ))}
    </Box>
  );

const ROLE_NAMES = [
  ['lead', 'lead'],
  ['technician', 'technician'],
  ['apprentice', 'apprentice'],
] as const;

function PeoplePart({ shop: { people }, signedIn }: { shop: ShopState; signedIn: boolean }) {
  const [role, setRole] = useState<string>(people.length === 0 ? 'lead' : 'technician');
  const [answer, setAnswer] = useState<Answer>();
  return (
    <Part title="People">
      {!signedIn && (
        <Text mb="3">
          Nobody has an account: whoever sits at this machine is let in, and nobody else can reach it. With the first
          lead everybody signs in.
        </Text>
      )}
      {people.map((p) => (
        <Flex key={p.id} align="baseline" gap="4" py="1" borderBottom="1px dotted" borderColor="rule">
          <Text fontWeight="700">{p.name}</Text>
          <Text color="quiet" fontSize="14px">
            {p.username}, {p.role}
          </Text>
          <Box ml="auto">
            <PlainButton type="button" onClick={() => void sendOff(p.id).then(setAnswer)}>
              Leaves the shop
            </PlainButton>
          </Box>
        </Flex>
      ))}
      <Flex
        as="form"
        direction="column"
        gap="3"
        mt="4"
        maxW="340px"
        onSubmit={(event) => {
          event.preventDefault();
          const form = event.currentTarget as unknown as HTMLFormElement;
          const given = new FormData(form);
          const [name, username, password] = ['name', 'username', 'password'].map((n) => String(given.get(n) ?? ''));
          void letIn(name, username, password, role).then((told) => {
            setAnswer(told);
            if (told.saved) form.reset();
          });
        }}
      >
        <Named name="Name, as entries carry it">
          <TextInput name="name" autoComplete="off" required />
        </Named>
        <Named name="Name to sign in with">
          <TextInput name="username" autoComplete="off" required />
        </Named>
        <Named name="Password, 8 characters or more">
          <TextInput name="password" type="password" autoComplete="new-password" required />
        </Named>
        <Named name="Role">
          <SelectBox label="Role" value={role} options={ROLE_NAMES} onChange={setRole} />
        </Named>
        <Flex>
          <MainButton type="submit">Let in</MainButton>
        </Flex>
      </Flex>
      <AnswerNote answer={answer} />
    </Part>
  );
}
