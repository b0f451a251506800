import { Text } from '@chakra-ui/react';
import { FigureLine, SidebarPart } from '@/ui';
import { sumHex } from '@/core/image';
import type { CustodyLink } from '@/core/job';
import type { ImageBench } from './queries';

const NAMES = { patient: 'Patient', donor: 'Donor', merged: 'New image' } as const;

/** The checksums of each image, and the rules of the merge. */
export function ImageSidebar({ bench }: { bench: ImageBench }) {
  return (
    <>
      {(['merged', 'patient', 'donor'] as const).flatMap((role) => {
        const view = bench.roles[role];
        if (!view) return [];
        return [
          <SidebarPart key={role} title={`${NAMES[role]}, ${view.verdict.sound ? 'sound' : 'not sound'}`}>
            {view.verdict.checksums.map((c) => (
              <FigureLine
                key={c.region}
                name={`${c.region}${c.holds ? '' : ', fails'}`}
                value={sumHex(c.stored, c)}
                colour={c.holds ? 'leaf' : 'rust'}
              />
            ))}
          </SidebarPart>,
        ];
      })}
      <Custody links={bench.custody} />
      <SidebarPart title="Rules">
        <Text fontSize="14px" mb="2">
          What holds stays; damaged code comes from the patient’s own copy, else from a sound donor; settings, identity,
          calibration and journal belong to the unit; checksums are computed.
        </Text>
        <Text fontSize="14px">
          The identity of another unit is taken only for a named reason. Nothing here defeats locks or ownership checks.
        </Text>
      </SidebarPart>
    </>
  );
}

const MOST_LINKS = 6;

/** What was kept and written, each sealed with all before it. */
function Custody({ links }: { links: readonly CustodyLink[] }) {
  if (links.length === 0) return null;
  const broken = links.find((l) => l.holds === false);
  return (
    <SidebarPart title={broken ? 'Chain of custody, broken' : 'Chain of custody, unbroken'}>
      {broken && (
        <Text fontSize="14px" color="rust">
          Entry {broken.seq} does not carry what came before it: something was changed or left out.
        </Text>
      )}
      {links.slice(-MOST_LINKS).map(({ seq, label, sha256, link, undone }) => (
        <Text key={seq} fontSize="13px" mb="1" textDecoration={undone ? 'line-through' : undefined}>
          {label}{' '}
          <Text as="span" fontFamily="mono" color="quiet" title={`Link ${link}`}>
            {sha256.slice(0, 10)}…
          </Text>
        </Text>
      ))}
      <Text fontSize="13px" color="quiet" fontFamily="mono" title={links.at(-1)!.link}>
        seal {links.at(-1)!.link.slice(0, 16)}…
      </Text>
    </SidebarPart>
  );
}
