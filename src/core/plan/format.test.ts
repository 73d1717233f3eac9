import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readDocument, readPlan } from './read';
import { FORMAT, currentDocument, currentPlan } from './format';
import { ALL_KINDS, isKind, type Kind } from './registry';
import type { Plan } from './schema';

interface Fixture {
  readonly format: number;
  readonly plan: object;
  readonly documents: Record<Kind, object>;
}

const fixture = (format: number) =>
  JSON.parse(readFileSync(join(__dirname, 'fixtures', `format-${format}.json`), 'utf8')) as Fixture;

/** Every format that ever was, today's too. */
const FORMATS = Array.from({ length: FORMAT }, (_, i) => i + 1);

describe.each(FORMATS)('format %i', (format) => {
  const { plan, documents } = fixture(format);

  test('an edition of it is a plan today', () => {
    const now = currentPlan(plan, format);
    expect(readPlan(now)).toEqual({ ok: true, value: now });
  });

  test('a document of each kind that there was is valid today', () => {
    expect(Object.keys(documents).length).toBeGreaterThanOrEqual(7);
    for (const [kind, document] of Object.entries(documents)) {
      if (!isKind(kind)) throw new Error(`${kind} is no kind any more: say what becomes of its documents`);
      expect(readDocument(kind, currentDocument(kind, document, format))).toMatchObject({ ok: true });
    }
  });
});

test("an edition of today's format that was written before a kind came has its list, empty", () => {
  const { calendars: _later, ...before } = fixture(FORMAT).plan as Plan;
  expect(currentPlan(before, FORMAT).calendars).toEqual([]);
});

test("today's format has every kind of today", () => {
  expect(Object.keys(fixture(FORMAT).documents).sort()).toEqual([...ALL_KINDS].sort());
});

test('items of format 1 get ids by their places; the same ones each time that they are read', () => {
  const { documents } = fixture(1);
  const read = currentDocument('playlist', documents.playlist, 1) as { items: { id: string }[] };
  expect(read.items.map((item) => item.id)).toEqual(['e1', 'e2', 'e3', 'e4']);
  expect(currentDocument('playlist', documents.playlist, 1)).toEqual(read);
});

test('a document of a newer format is refused, not guessed at', () => {
  expect(() => currentDocument('screen', {}, FORMAT + 1)).toThrow('newer');
});
