'use client';

import { useState } from 'react';
import { Box, Flex, Grid, Link, Text } from '@chakra-ui/react';
import { messageFor, type Business, type Quote } from '@/core/day';
import type { JobView, KeepEvent } from '@/core/job';
import { formatMinutes } from '@/core/units';
import { AnswerNote, FigureLine, Headline, MainButton, Named, PageLink, PlainButton, TextInput, usePlace } from '@/ui';

/** Prices are told in round figures. */
const ROUND_TO = 5;

/** What the job will take and cost over all that may be wrong; what was told to the owner, and what they said. */
export function QuoteWork({
  job,
  quote,
  business,
  onKeep,
}: {
  job: JobView;
  quote: Quote;
  business: Business;
  onKeep: KeepEvent;
}) {
  const { money } = usePlace();
  const suggested = Math.max(ROUND_TO, Math.ceil(quote.priceCured.high / ROUND_TO) * ROUND_TO);
  const [price, setPrice] = useState(String(suggested));
  const [answer, setAnswer] = useState<{ saved: boolean; message: string }>();
  const kept = job.state.quote;
  const keep = (state: 'sent' | 'accepted' | 'refused' | 'expired', of: number): void => {
    const range = {
      low: round2(quote.priceCured.low),
      high: round2(quote.priceCured.high),
      successChance: quote.successChance,
    };
    void onKeep(
      job.number,
      { kind: 'quote', state, price: of, ...(state === 'sent' && range) },
      crypto.randomUUID(),
    ).then(setAnswer);
  };
  const worth = job.state.story?.worth;
  return (
    <>
      <Headline
        title={`${money(Math.round(quote.priceCured.low))} to ${money(Math.round(quote.priceCured.high))}, cured in ${Math.round(100 * quote.successChance)} of 100`}
        aside="eight of ten lie between"
      >
        By what the readings leave to suspect; it moves as they arrive. {ruleWords(business, money)}
      </Headline>
      <Grid templateColumns={{ base: '1fr', lg: '1fr 1fr' }} gap="10" mt="4">
        <Box>
          <FigureLine name="Price where cured, expected" value={money(quote.priceCured.mean)} />
          <FigureLine name="Price over all outcomes, expected" value={money(quote.price.mean)} />
          <FigureLine
            name="Minutes, eight of ten"
            value={`${formatMinutes(quote.minutes.low)} to ${formatMinutes(quote.minutes.high)}`}
          />
          <FigureLine name="Parts, expected" value={money(quote.parts.mean)} />
          <FigureLine name="Comes back" value={`${Math.round(100 * quote.comebackChance)} in 100`} />
          <FigureLine
            name="The shop keeps, after parts and hours"
            value={money(quote.marginMean)}
            colour={quote.marginMean >= 0 ? 'leaf' : 'rust'}
          />
          {quote.breakEvenChance !== undefined && worth !== undefined && (
            <FigureLine
              name={`Worth it to the owner (${money(worth)}) from a chance of`}
              value={`${Math.round(100 * quote.breakEvenChance)} %`}
              colour={quote.successChance >= quote.breakEvenChance ? 'leaf' : 'rust'}
            />
          )}
        </Box>
        <Box>
          <Flex
            as="form"
            gap="3"
            align="flex-end"
            onSubmit={(event) => {
              event.preventDefault();
              keep('sent', Number(price));
            }}
          >
            <Named name="Price told to the owner">
              <TextInput value={price} inputMode="decimal" w="8em" onChange={(e) => setPrice(e.target.value)} />
            </Named>
            <MainButton type="submit" disabled={!(Number(price) > 0)}>
              It was sent
            </MainButton>
          </Flex>
          {kept && (
            <Box mt="4">
              <Text>
                Told: <b>{money(kept.price)}</b>, {kept.state}.
              </Text>
              {kept.state === 'sent' && (
                <Flex gap="3" mt="2">
                  <PlainButton type="button" onClick={() => keep('accepted', kept.price)}>
                    Accepted
                  </PlainButton>
                  <PlainButton type="button" onClick={() => keep('refused', kept.price)}>
                    Refused
                  </PlainButton>
                  <PlainButton type="button" onClick={() => keep('expired', kept.price)}>
                    Ran out
                  </PlainButton>
                </Flex>
              )}
            </Box>
          )}
          <AnswerNote answer={answer} />
          <OwnerMessage
            text={messageFor(business.message, {
              device: job.board.device,
              cause: job.suspects[0]?.label ?? 'not known yet',
              chance: String(Math.round(100 * quote.successChance)),
              price: money(Number(price) || suggested),
              fee: money(business.diagnosisFee),
            })}
          />
        </Box>
      </Grid>
    </>
  );
}

/** The shop's rule for a price, in a sentence. */
function ruleWords({ flat, diagnosisFee, noCureNoFee, taxPercent }: Business, money: (v: number) => string): string {
  const what = flat === null ? 'By the hour and parts' : `${money(flat)} for a cure`;
  const fee = diagnosisFee > 0 ? `, and ${money(diagnosisFee)} for looking` : '';
  const otherwise = noCureNoFee ? '; nothing else where it is not cured' : '; also where it is not cured';
  return `${what}${fee}${otherwise}.${taxPercent > 0 ? ` ${taxPercent} % tax is in it.` : ''}`;
}

/** What the owner is told, in the shop's words, ready to be taken along. */
function OwnerMessage({ text }: { text: string }) {
  const [copied, setCopied] = useState(false);
  return (
    <Box mt="5" pl="3" borderLeft="2px solid" borderColor="copper">
      <Text fontSize="13px" color="quiet">
        To the owner
      </Text>
      <Text fontSize="15px" whiteSpace="pre-wrap">
        {text}
      </Text>
      <Flex mt="2" gap="3" align="baseline">
        <PlainButton
          type="button"
          onClick={() =>
            void navigator.clipboard.writeText(text).then(
              () => setCopied(true),
              () => setCopied(false),
            )
          }
        >
          Copy
        </PlainButton>
        {copied && <Text role="status">Copied.</Text>}
        <Link asChild fontSize="13px" color="copperText">
          <PageLink href="/library/practice?view=business">Its words</PageLink>
        </Link>
      </Flex>
    </Box>
  );
}

const round2 = (v: number): number => Math.round(100 * v) / 100;
