import { Box, Text } from '@chakra-ui/react';

/** Rows of the database that cannot be read, each with its sentence; everything else is shown as always. */
export function UnreadableNote({
  rows,
}: {
  rows: readonly { readonly table: string; readonly id: string; readonly problem: string }[];
}) {
  if (rows.length === 0) return null;
  return (
    <Box role="alert" borderLeft="3px solid" borderColor="rust" pl="3" mb="4" fontSize="14px">
      <Text fontWeight="700">
        {rows.length === 1 ? 'One row cannot be read and does' : `${rows.length} rows cannot be read and do`} not count.
      </Text>
      {rows.map((r) => (
        <Text key={`${r.table} ${r.id}`}>
          <Text as="span" fontFamily="mono">
            {r.table.replaceAll('_', ' ')}, {r.id}
          </Text>
          : {r.problem}
        </Text>
      ))}
    </Box>
  );
}
