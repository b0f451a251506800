import { Grid } from '@chakra-ui/react';

/** As narrow as the columns of a list may become: on a narrower screen the list is pushed sideways in its place. */
export const LIST_WIDTH = { base: '640px', lg: '0' } as const;

export interface ColumnHeadsProps {
  readonly columns: string;
  readonly names: readonly string[];
  /** The last column holds figures, set to the right. */
  readonly lastRight?: boolean;
  readonly mt?: string;
  readonly maxW?: string;
  /** The list stands in rows of its own on a narrow screen, where names over columns would name nothing. */
  readonly wideOnly?: boolean;
}

/** The names over the columns of a list. */
export function ColumnHeads({ columns, names, lastRight = false, mt, maxW, wideOnly = false }: ColumnHeadsProps) {
  return (
    <Grid
      templateColumns={columns}
      minW={LIST_WIDTH}
      display={wideOnly ? { base: 'none', lg: 'grid' } : 'grid'}
      columnGap="4"
      fontSize="13px"
      fontWeight="700"
      color="quiet"
      borderBottom="1px solid"
      borderColor="rule"
      pb="1"
      mt={mt}
      maxW={maxW}
    >
      {names.map((name, i) => (
        <span key={name} style={lastRight && i === names.length - 1 ? { textAlign: 'right' } : undefined}>
          {name}
        </span>
      ))}
    </Grid>
  );
}
