import { Grid } from '@chakra-ui/react';

/** The names over the columns of a list; the last one stands at the right where it heads figures. */
export function ColumnHeads({ columns, names, mt }: { columns: string; names: readonly string[]; mt?: string }) {
  return (
    <Grid
      templateColumns={columns}
      columnGap="4"
      fontSize="13px"
      fontWeight="700"
      color="quiet"
      borderBottom="1px solid"
      borderColor="rule"
      pb="1"
      mt={mt}
    >
      {names.map((name) => (
        <span key={name}>{name}</span>
      ))}
    </Grid>
  );
}
