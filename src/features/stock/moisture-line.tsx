import { Text } from '@chakra-ui/react';
import { hoursWords } from '@/core/parts';
import type { MoistureView } from './view';

/** The moisture clock in a few words: sealed, so much left, or bake. */
export function MoistureLine({ moisture }: { moisture: MoistureView | undefined }) {
  if (!moisture)
    return (
      <Text as="span" color="amberText">
        level not known
      </Text>
    );
  const { level, bake, unknown, leftH, exposedH, bakeWords } = moisture;
  if (level === '1')
    return (
      <Text as="span" color="quiet">
        level 1, no limit
      </Text>
    );
  if (bake)
    return (
      <Text as="span" color="amberText">
        △ {unknown ? 'history not known' : `open ${hoursWords(exposedH)}`}: bake {bakeWords}
      </Text>
    );
  return (
    <span>
      level {level}, {exposedH === 0 ? 'sealed' : `${hoursWords(leftH)} left`}
    </span>
  );
}
