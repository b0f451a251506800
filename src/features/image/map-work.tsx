'use client';

import { useMemo, useState, useTransition } from 'react';
import { Box, Flex, Link, Text } from '@chakra-ui/react';
import type { ActionResult } from '@/application/action-result';
import type { FoundChecksum } from '@/core/checksum';
import { judgeImage, parseImageFamily, type ImageFamily, type ProposedStretch } from '@/core/image';
import { problemText } from '@/core/result';
import { formatBytes, formatOffset } from '@/core/units';
import { ImageScore, SCORE_BYTES } from '@/drawings/image-score';
import { ImageStrip } from '@/drawings/image-strip';
import { FilePick, Headline, MainButton, Named, PlainButton, ProblemNote, TextInput } from '@/ui';
import { saveMap } from './actions';
import { ChecksumPart } from './checksum-part';
import type { CompareProps } from './compare-work';
import { GoTo } from './go-to';
import { draftFromProposal, draftOf, emptyDraft, familyOfDraft, withRegion, type MapDraft } from './map-draft';
import { MapTable } from './map-table';
import { useSeen } from './use-seen';

const SYSTEMS = 10;
const NONE: readonly FoundChecksum[] = [];

/** The map of an image: what each part is for, drawn on its bytes; proposed for an unknown one. */
export function MapWork({ family, library, initial }: CompareProps) {
  const [found, setFound] = useState(NONE);
  const [sources] = useState(initial);
  const { seen, progress, problem } = useSeen(sources, family, found);
  if (!seen) {
    return (
      <>
        <Headline title="The map" aside={progress ? `${Math.round(100 * progress.done)} %` : 'no image yet'}>
          {problem ?? 'A map is drawn on an image: load one first.'}
        </Headline>
      </>
    );
  }
  const [{ bytes }] = seen.images;
  return (
    <MapEditor
      key={`${family?.id} ${seen.images[0].sha256}`}
      bytes={bytes}
      overview={seen.seen.overviews[0]}
      proposed={seen.proposed ?? []}
      family={family?.sizeBytes === bytes.length ? family : undefined}
      name={sources[0].name}
    >
      <ChecksumPart library={library} onFound={setFound} />
    </MapEditor>
  );
}

interface EditorProps {
  readonly bytes: Uint8Array;
  readonly overview: Parameters<typeof ImageStrip>[0]['rows'][number]['overview'];
  readonly proposed: readonly ProposedStretch[];
  readonly family?: ImageFamily;
  readonly name: string;
  readonly children: React.ReactNode;
}

/** Goes on with what is typed when the map that was kept comes back as a new revision: only its number is taken. */
function MapEditor({ bytes, overview, proposed, family, name, children }: EditorProps) {
  const [typed, setDraft] = useState<MapDraft>(() => (family ? draftOf(family) : emptyDraft(bytes)));
  const revision = family?.id === typed.id ? family.revision : typed.rest.revision;
  const draft = useMemo(() => ({ ...typed, rest: { ...typed.rest, revision } }), [typed, revision]);
  const [answer, setAnswer] = useState<ActionResult>();
  const [at, setAt] = useState(0);
  const [chosen, setChosen] = useState<{ from: number; to: number }>();
  const [busy, start] = useTransition();
  const voices = useMemo(() => [{ name, bytes }], [name, bytes]);
  const checked = useMemo(() => familyOfDraft(draft), [draft]);
  const shown = checked.ok ? checked.value : family;
  const go = (offset: number): void => setAt(offset - (offset % SCORE_BYTES));
  const choose = (offset: number, extend: boolean): void =>
    setChosen(
      extend && chosen
        ? { from: Math.min(chosen.from, offset), to: Math.max(chosen.to, offset + 1) }
        : { from: offset, to: offset + 1 },
    );
  async function load(file: File): Promise<void> {
    try {
      const parsed = parseImageFamily(JSON.parse(await file.text()));
      if (!parsed.ok) setAnswer({ saved: false, message: `${file.name}: ${problemText(parsed.problems)}` });
      else {
        setDraft(draftOf(parsed.value));
        setAnswer(undefined);
      }
    } catch {
      setAnswer({ saved: false, message: `${file.name}: expected a map as JSON; got something else.` });
    }
  }
  return (
    <>
      <MapHeadline checked={checked} bytes={bytes} draft={draft} name={name} />
      <ImageStrip
        family={shown}
        rows={[{ name, overview }]}
        sizeBytes={bytes.length}
        window={{ offset: at, length: SYSTEMS * SCORE_BYTES }}
        onGo={go}
      />
      <Flex gap="4" align="end" wrap="wrap" mt="2" fontSize="14px">
        <MapNames draft={draft} onDraft={setDraft} />
        <MainButton
          type="button"
          disabled={!checked.ok || busy}
          onClick={() => checked.ok && start(async () => setAnswer(await saveMap(checked.value)))}
        >
          Keep the map
        </MainButton>
        {checked.ok && (
          <Link
            href={`data:application/json,${encodeURIComponent(JSON.stringify(checked.value, null, 2))}`}
            download={`${draft.id}.json`}
            color="copperText"
            textDecoration="underline"
          >
            {draft.id}.json
          </Link>
        )}
        <FilePick label="Load a map" text="load a map" accept=".json,application/json" onFile={(f) => void load(f)} />
      </Flex>
      {!checked.ok && <ProblemNote text={problemText(checked.problems)} />}
      {answer &&
        (answer.saved ? (
          <Text color="leaf" mt="1">
            {answer.message}
          </Text>
        ) : (
          <ProblemNote text={answer.message} />
        ))}
      <MapTable draft={draft} onDraft={setDraft} onGo={go} />
      <Flex gap="4" align="center" mt="4" mb="1" fontSize="14px" wrap="wrap">
        <Text fontWeight="700">On the image</Text>
        <GoTo sizeBytes={bytes.length} onGo={go} />
        {chosen ? (
          <>
            <Text fontFamily="mono">
              {formatOffset(chosen.from)} to {formatOffset(chosen.to)}, {formatBytes(chosen.to - chosen.from)}
            </Text>
            <PlainButton type="button" onClick={() => setDraft(withRegion(draft, chosen.from, chosen.to))}>
              Make it a region
            </PlainButton>
          </>
        ) : (
          <Text color="quiet">Click a byte, and with Shift the last one, to choose a part.</Text>
        )}
      </Flex>
      <ImageScore
        voices={voices}
        family={shown}
        at={at}
        systems={SYSTEMS}
        onGo={setAt}
        selected={chosen}
        onChoose={choose}
      />
      {children}
      <Proposal proposed={proposed} onGo={go} onTake={() => setDraft(draftFromProposal(draft, proposed))} />
    </>
  );
}

/** What the family is called, and the bytes that its images begin with. */
const MapNames = ({ draft, onDraft }: { draft: MapDraft; onDraft: (draft: MapDraft) => void }) => (
  <>
    <Named name="family">
      <TextInput
        aria-label="Name of the family"
        w="14em"
        value={draft.name}
        onChange={(e) => onDraft({ ...draft, name: e.target.value })}
      />
    </Named>
    <Named name="id">
      <TextInput
        aria-label="Id of the family"
        w="10em"
        fontFamily="mono"
        value={draft.id}
        onChange={(e) => onDraft({ ...draft, id: e.target.value })}
      />
    </Named>
    <Named name="begins with">
      <TextInput
        aria-label="Bytes that it begins with"
        w="9em"
        fontFamily="mono"
        value={draft.magicHex}
        onChange={(e) => onDraft({ ...draft, magicHex: e.target.value.trim() })}
      />
    </Named>
  </>
);

function MapHeadline({
  checked,
  bytes,
  draft,
  name,
}: {
  checked: ReturnType<typeof familyOfDraft>;
  bytes: Uint8Array;
  draft: MapDraft;
  name: string;
}) {
  const verdict = checked.ok ? judgeImage(checked.value, bytes) : undefined;
  const held = verdict?.checksums.filter((c) => c.holds).length ?? 0;
  const title = !checked.ok
    ? 'The map does not hold together'
    : draft.regions.length === 0
      ? 'No map yet'
      : `${draft.regions.length} regions; ${held} of ${verdict!.checksums.length} checksums hold here`;
  return (
    <Headline title={title} aside={`${draft.id}${draft.rest.revision ? `, revision ${draft.rest.revision}` : ''}`}>
      Drawn on {name}. {verdict?.troubles[0] ?? ''}
    </Headline>
  );
}

const MOST_PROPOSED = 24;

/** What the parts of the image seem to be, by their content alone. */
function Proposal({
  proposed,
  onGo,
  onTake,
}: {
  proposed: readonly ProposedStretch[];
  onGo: (offset: number) => void;
  onTake: () => void;
}) {
  return (
    <Box
      as="section"
      aria-label="What the parts seem to be"
      borderTop="1px solid"
      borderColor="rule"
      mt="5"
      pt="2"
      fontSize="14px"
    >
      <Flex gap="3" align="center">
        <Text fontWeight="700">What the parts seem to be, by their content</Text>
        <PlainButton type="button" onClick={onTake}>
          Take these {proposed.length} for the map
        </PlainButton>
      </Flex>
      {proposed.slice(0, MOST_PROPOSED).map(({ offset, length, words }) => (
        <Flex key={`${offset} ${length}`} gap="4" py="0.5" borderBottom="1px solid" borderColor="rule">
          <Link as="button" fontFamily="mono" color="copperText" onClick={() => onGo(offset)}>
            {formatOffset(offset)}
          </Link>
          <Text fontFamily="mono" w="7em">
            {formatBytes(length)}
          </Text>
          <Text>{words}</Text>
        </Flex>
      ))}
      {proposed.length > MOST_PROPOSED && <Text color="quiet">And {proposed.length - MOST_PROPOSED} more.</Text>}
    </Box>
  );
}
