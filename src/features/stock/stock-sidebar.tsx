import { Box, Text } from '@chakra-ui/react';
import { grammarForms } from '@/core/command-line';
import { SERVICE_LEVEL, STOCK_GRAMMAR, USE_DAYS } from '@/core/stock';
import { CautionNote, FigureLine, SidebarPart } from '@/ui';
import type { Shelf } from './queries';

/** What to order by use, and what the entry line takes. */
export function StockSidebar({ shelf: { reorders } }: { shelf: Shelf }) {
  return (
    <>
      <SidebarPart title={`Use in ${USE_DAYS / 7} weeks, and when to order`}>
        {reorders.map((r) => (
          <FigureLine
            key={r.typeId}
            name={`${r.typeId}: ${r.used} used`}
            value={r.order ? `order, ${r.onHand} left` : `${r.onHand}, order at ${r.point}`}
            colour={r.order ? 'copperText' : 'ink'}
          />
        ))}
        {reorders.length === 0 && <Text fontSize="14px">Nothing used yet.</Text>}
        <Text fontSize="13px" color="quiet" mt="1">
          Orders in time with {(100 * SERVICE_LEVEL).toFixed(0)} %.
        </Text>
      </SidebarPart>
      <SidebarPart title="What the line takes">
        {grammarForms(STOCK_GRAMMAR).map(({ example, help }) => (
          <Box key={example} mb="1">
            <Text fontFamily="mono" fontSize="13px">
              {example}
            </Text>
            <Text fontSize="13px" color="quiet" lineHeight="1.2">
              {help}
            </Text>
          </Box>
        ))}
      </SidebarPart>
    </>
  );
}

/** Why donor and patient chips lie apart. */
export const StockCaution = () => (
  <CautionNote
    title="Two trays."
    text="Donor and patient chips never share a tray. A patient’s chip goes back to its own job, or the record says why not."
  />
);
