import { Text } from '@chakra-ui/react';
import { ProblemNote } from './problem';

/** What the server said of something that was to be kept: in a calm colour where it was, as a problem where it was not. */
export function AnswerNote({ answer }: { answer: { readonly saved: boolean; readonly message: string } | undefined }) {
  if (!answer) return null;
  if (!answer.saved) return <ProblemNote text={answer.message} />;
  return (
    <Text role="status" color="leaf" fontSize="14px">
      {answer.message}
    </Text>
  );
}
