import { DEFAULT_BUSINESS, businessSchema, priceRule } from './business';
import { messageFor } from './quote-message';
import { USUAL_HOURS, hoursLabel, spansFromText, spansText, workHoursSchema } from './shop-hours';
import { quoteOf } from './quote';

describe('hours', () => {
  test.each([
    ['9:00 to 13:00, 13:30 to 18:00', USUAL_HOURS.spans],
    ['9-13, 13.30–18', USUAL_HOURS.spans],
    ['22 to 24', [[1320, 1440]]],
  ])('%p is read', (text, spans) => expect(spansFromText(text)).toEqual({ ok: true, value: spans }));

  test.each(['', 'nine to five', '9 to 13 to 18', '18 to 9', '9 to 13, 12 to 18', '9:60 to 12', '20 to 25', '9 to 9'])(
    '%p is refused with what was got',
    (text) => {
      const read = spansFromText(text);
      expect(read.ok).toBe(false);
      expect(!read.ok && read.problems[0].message).toMatch(/^Expected .*; got /);
    },
  );

  test('what is read is written the same, and says its days', () => {
    const spans = spansFromText('8.15-12, 12:45-17').ok && '8:15 to 12:00, 12:45 to 17:00';
    const read = spansFromText(String(spans));
    expect(read.ok && spansText(read.value)).toBe(spans);
    expect(hoursLabel(USUAL_HOURS)).toBe('Monday to Friday, 9:00 to 13:00, 13:30 to 18:00');
    expect(hoursLabel({ days: [6, 2], spans: [[600, 840]] })).toBe('Tuesday, Saturday, 10:00 to 14:00');
  });

  test('more spans than a day has, and none, are refused', () => {
    expect(spansFromText('1-2,3-4,5-6,7-8,9-10,11-12,13-14').ok).toBe(false);
    expect(workHoursSchema.safeParse({ days: [1], spans: [] }).success).toBe(false);
    expect(workHoursSchema.safeParse({ days: [], spans: [[1, 2]] }).success).toBe(false);
    expect(workHoursSchema.safeParse({ days: [1], spans: [[5, 2]] }).success).toBe(false);
  });
});

describe('the price', () => {
  const sure = { searchMinutes: 10, proofMinutes: 5, sdLog: 0, comebackChance: 0 };
  const certain = { ...sure, ways: [{ label: 'U4', chance: 1, minutes: 45, parts: 10 }] };

  test('by the hour: fee, an hour and parts, and tax on all of it', () => {
    const rule = priceRule({ ...DEFAULT_BUSINESS, diagnosisFee: 15, taxPercent: 19 });
    expect(rule).not.toHaveProperty('flat');
    // 10 + 45 + 5 minutes are one hour.
    expect(quoteOf(certain, rule).price.mean).toBeCloseTo((15 + rule.hourPrice + 10) * 1.19, 6);
  });

  test('flat: one price whatever it takes', () => {
    const rule = priceRule({ ...DEFAULT_BUSINESS, diagnosisFee: 0, flat: 90 });
    expect(quoteOf(certain, rule).price).toMatchObject({ low: 90, mean: 90, high: 90 });
  });

  test('a shop may say that an hour is worth more, and that work is paid though it did not cure', () => {
    const rule = priceRule({ ...DEFAULT_BUSINESS, noCureNoFee: false }, { prices: { hour: 120 } });
    expect(rule).toMatchObject({ hourPrice: 120, noCureNoFee: false });
    const hopeless = { ...sure, ways: [{ label: 'U4', chance: 0, minutes: 45, parts: 0 }] };
    expect(quoteOf(hopeless, rule).price.mean).toBeCloseTo(20 + (10 / 60) * 120, 6);
  });
});

describe('the message to the owner', () => {
  const facts = { device: 'Heronlog 4', cause: 'replace U4', chance: '84', price: '95 EUR', fee: '20 EUR' };

  test('every fact stands where its name stood, as often as it did', () => {
    const told = messageFor('{device}: {price}. {device}!', facts);
    expect(told).toBe('Heronlog 4: 95 EUR. Heronlog 4!');
    expect(messageFor(DEFAULT_BUSINESS.message, facts)).not.toMatch(/[{}]/);
  });

  test('a name that is none is refused when the message is kept, not when it is sent', () => {
    const read = businessSchema.safeParse({ message: 'Dear {owner}, {price}.' });
    expect(read.error?.issues[0].message).toContain('got "{owner}"');
    expect(businessSchema.safeParse({ message: 'No names at all.' }).success).toBe(true);
  });
});
