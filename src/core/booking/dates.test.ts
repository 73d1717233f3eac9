import { emptyPlan, type Booking } from '../plan';
import { addDays, parseDate, type LocalDate, type SetOfHours } from '../when';
import { aloneOn, partWhen, shiftWhen, withDate, withoutDate } from './dates';
import { freeName, spokenDate } from './reschedule';

const date = (text: string) => parseDate(text) as LocalDate;

describe('a set of hours carried by days', () => {
  const shifted = (when: SetOfHours, days = 1) => {
    const made = shiftWhen(when, days);
    return made.ok ? made.value : made.message;
  };

  test('its dates and its weekdays move alike', () => {
    expect(
      shifted({
        from: '2026-01-05',
        to: '2026-02-27',
        repeat: 'FREQ=WEEKLY;BYDAY=MO,SU',
        also: ['2026-03-31'],
        except: ['2026-01-12'],
        windows: [['06:00', '07:00']],
      }),
    ).toEqual({
      from: '2026-01-06',
      to: '2026-02-28',
      repeat: 'FREQ=WEEKLY;BYDAY=TU,MO',
      also: ['2026-04-01'],
      except: ['2026-01-13'],
      windows: [['06:00', '07:00']],
    });
    expect(shifted({ from: '2026-01-05', repeat: 'FREQ=WEEKLY;INTERVAL=2;BYDAY=MO' }, -1)).toEqual({
      from: '2026-01-04',
      repeat: 'FREQ=WEEKLY;INTERVAL=2;BYDAY=SU;WKST=SU',
    });
    expect(shifted({ from: '2026-01-05', repeat: 'FREQ=DAILY;UNTIL=20260131' })).toMatchObject({
      repeat: 'FREQ=DAILY;UNTIL=20260201',
    });
    expect([shifted({ to: '2026-01-05' }), shifted({ from: '2026-01-05' })]).toEqual([
      { to: '2026-01-06' },
      { from: '2026-01-06' },
    ]);
  });

  test('by no days it is the same, and what shows every day can not be carried as a whole', () => {
    const when = { windows: [['06:00', '07:00']] } as SetOfHours;
    expect(shifted(when, 0)).toBe(when);
    expect(shifted(when)).toContain('It shows every day');
  });

  test.each([
    'FREQ=MONTHLY;BYMONTHDAY=1',
    'FREQ=YEARLY;BYMONTH=6;BYMONTHDAY=1',
    'FREQ=DAILY;BYMONTH=6',
    'FREQ=WEEKLY;BYDAY=MO;BYMONTH=6',
    'FREQ=WEEKLY;BYDAY=MO,TU;BYSETPOS=1',
    'FREQ=DAILY;BYMONTHDAY=1',
  ])('%s has no even length: one day alone is carried', (repeat) => {
    expect(shifted({ from: '2026-01-05', repeat })).toContain(
      'A repeat like this can’t be moved to other days as a whole.',
    );
  });
});

test('one date alone keeps what chooses times, and nothing that chooses dates', () => {
  const when: SetOfHours = {
    from: '2026-01-05',
    repeat: 'FREQ=DAILY',
    only: ['storm'],
    clock: 'Europe/Oslo',
    windows: [['06:00', '07:00']],
  };
  expect(aloneOn(when, '2026-02-02')).toEqual({
    from: '2026-02-02',
    to: '2026-02-02',
    clock: 'Europe/Oslo',
    windows: [['06:00', '07:00']],
  });
});

test('a date more, and a date less: each list once, in order', () => {
  expect(withDate({ also: ['2026-03-01'], except: ['2026-02-01', '2026-02-02'] }, '2026-02-01')).toEqual({
    also: ['2026-02-01', '2026-03-01'],
    except: ['2026-02-02'],
  });
  expect(withDate({ except: ['2026-02-01'] }, '2026-02-01')).toEqual({ also: ['2026-02-01'] });
  expect(withDate({ also: ['2026-02-01'] }, '2026-02-01')).toEqual({ also: ['2026-02-01'] });
  expect(withoutDate({ also: ['2026-02-01', '2026-03-01'], except: ['2026-05-01'] }, '2026-02-01')).toEqual({
    also: ['2026-03-01'],
    except: ['2026-02-01', '2026-05-01'],
  });
  expect(withoutDate({ also: ['2026-02-01'], except: ['2026-02-01'] }, '2026-02-01')).toEqual({
    except: ['2026-02-01'],
  });
});

describe('a SetOfHours parted at a date', () => {
  test('lists go to their side; a plain one goes on from that date', () => {
    const when: SetOfHours = {
      to: '2026-12-31',
      also: ['2026-01-01', '2026-06-01'],
      except: ['2026-05-31', '2026-07-01'],
    };
    expect(partWhen(when, date('2026-06-01'))).toEqual([
      { to: '2026-05-31', also: ['2026-01-01'], except: ['2026-05-31'] },
      { to: '2026-12-31', from: '2026-06-01', also: ['2026-06-01'], except: ['2026-07-01'] },
    ]);
  });

  test('a rule goes on in step, and its count is shared', () => {
    const when: SetOfHours = { from: '2026-01-05', repeat: 'FREQ=WEEKLY;INTERVAL=2;COUNT=5;BYDAY=MO' };
    expect(partWhen(when, date('2026-01-20'))).toEqual([
      { ...when, to: '2026-01-19' },
      { from: '2026-02-02', repeat: 'FREQ=WEEKLY;INTERVAL=2;COUNT=3;BYDAY=MO' },
    ]);
    // At a date of its own it begins with it.
    expect(partWhen(when, date('2026-01-19'))[1]).toEqual({
      from: '2026-01-19',
      repeat: 'FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=MO',
    });
  });
});

describe('a name that no booking has', () => {
  const plan = (...names: string[]) => ({ ...emptyPlan('N'), bookings: names.map((name) => ({ name }) as Booking) });

  test('the wanted one, else with the first number that is free', () => {
    expect(freeName(plan(), 'Drill')).toBe('Drill');
    expect(freeName(plan('Drill'), 'Drill')).toBe('Drill (2)');
    expect(freeName(plan('Drill', 'Drill (2)', 'Drill (4)'), 'Drill')).toBe('Drill (3)');
  });

  test('as long as a name may be, the number within it, and no character in halves', () => {
    const long = 'x'.repeat(130);
    expect(freeName(plan(), long)).toBe('x'.repeat(120));
    expect(freeName(plan('x'.repeat(120)), long)).toBe(`${'x'.repeat(116)} (2)`);
    expect(freeName(plan(), `${'x'.repeat(119)}🛳`)).toBe('x'.repeat(119));
  });
});

test('a date as one says it, without its year', () => {
  expect([spokenDate(date('2026-12-05')), spokenDate(addDays(date('2026-12-31'), 1))]).toEqual(['5 Dec', '1 Jan']);
});
