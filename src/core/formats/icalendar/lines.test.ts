import { namesFalseTime, componentsOf, escapeText, fold, unescapeText, unfold } from './lines';

test('content lines: unfolded, whatever ends them, with the line that each begins on', () => {
  expect(unfold('A:1\r\n 2\n\n\tB\rC:3\r\n \r\n')).toEqual([
    { line: 1, text: 'A:12B' },
    { line: 5, text: 'C:3' },
  ]);
  expect(unfold(' lost\nA:1')).toEqual([
    { line: 1, text: ' lost' },
    { line: 2, text: 'A:1' },
  ]);
});

test('folded at 75 octets, the space of a continuation among them', () => {
  expect(fold('x'.repeat(75))).toBe('x'.repeat(75));
  expect(fold('x'.repeat(76))).toBe(`${'x'.repeat(75)}\r\n x`);
  expect(
    fold('x'.repeat(150))
      .split('\r\n')
      .map((line) => line.length),
  ).toEqual([75, 75, 2]);
  expect(fold(`${'x'.repeat(74)}é`)).toBe(`${'x'.repeat(74)}\r\n é`);
});

test('a text is escaped and read back (section 3.3.11)', () => {
  expect(escapeText('a\\b;c,d\r\ne\nf')).toBe('a\\\\b\\;c\\,d\\ne\\nf');
  expect(unescapeText('a\\\\b\\;c\\,d\\ne\\Nf\\x')).toBe('a\\b;c,d\ne\nf\\x');
});

describe('components of a calendar', () => {
  const blocks = (...lines: string[]) => {
    const found = componentsOf(lines.map((text, i) => ({ line: i + 1, text })));
    return 'message' in found ? found : found.map(({ name, lines: own }) => [name, own.length, own[0]?.line]);
  };

  test('those that stand in it directly, with what stands in them; capitals and spaces do not matter', () => {
    expect(
      blocks(
        'junk',
        'begin:vcalendar ',
        'VERSION:2.0',
        'BEGIN:VEVENT',
        'BEGIN:VALARM',
        'END:VALARM',
        'end:vevent',
        'BEGIN:VTODO',
        'END:VTODO',
        'END:VCALENDAR',
      ),
    ).toEqual([
      ['VEVENT', 4, 4],
      ['VTODO', 2, 8],
    ]);
  });

  test('a second calendar in the file is read too', () => {
    expect(
      blocks(
        'BEGIN:VCALENDAR',
        'BEGIN:VEVENT',
        'END:VEVENT',
        'END:VCALENDAR',
        'BEGIN:VCALENDAR',
        'BEGIN:VEVENT',
        'END:VEVENT',
        'END:VCALENDAR',
      ),
    ).toEqual([
      ['VEVENT', 2, 2],
      ['VEVENT', 2, 6],
    ]);
  });

  test('what is no calendar, and what is cut short', () => {
    expect(blocks('BEGIN:VEVENT', 'END:VEVENT')).toMatchObject({
      line: 1,
      message: expect.stringContaining('no BEGIN:VCALENDAR'),
    });
    expect(blocks('BEGIN:VCALENDAR', 'X:1', 'BEGIN:VEVENT', 'X:2')).toEqual({
      line: 3,
      message: 'The VEVENT that begins here has no end. The file is incomplete.',
    });
  });
});

test.each([
  ['DTSTART:20260199T080000', true],
  ['DTSTART;TZID=Europe/Oslo:20260230T080000', true],
  ['DTSTART;TZID="A:20261399":20260228T080000', false],
  ['DTEND;VALUE=DATE:20261301', true],
  ['DTSTART:20261205T240000', true],
  ['DTSTART:20261205T236000Z', true],
  ['DTSTART:20261205T235960Z', false],
  ['DTSTART:20261205T235961Z', true],
  ['RDATE:20261205T080000,20260229T080000', true],
  ['RDATE;VALUE=PERIOD:20261205T080000/PT1H,20261206T080000/20261206T090000', false],
  ['EXDATE;VALUE=DATE:20280229', false],
  ['RECURRENCE-ID:20260431T080000', true],
  ['RRULE:FREQ=DAILY;UNTIL=20260230', true],
  ['RRULE:FREQ=DAILY;UNTIL=20260228T080000Z;COUNT=20269999', false],
  ['SUMMARY:20269999', false],
])('%s names a time that does not exist: %s', (text, expected) => {
  expect(namesFalseTime(text)).toBe(expected);
});
