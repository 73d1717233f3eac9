import { findTowns } from '.';

const names = async (typed: string) => (await findTowns(typed)).map(({ name, country }) => `${name} ${country}`);

describe('towns by name', () => {
  // Where they are: GeoNames (geonames.org), checked against general knowledge of these towns, from memory, to a tenth of a degree.
  it.each([
    ['Ålesund', 62.5, 6.2],
    ['alesund', 62.5, 6.2],
    ['Tromsø', 69.6, 19.0],
    ['reykjavik', 64.1, -21.9],
    ['Helsinki', 60.2, 24.9],
    ['Kirkwall', 59.0, -3.0],
  ])('%s', async (typed, latitude, longitude) => {
    const [town] = await findTowns(typed);
    expect(town?.latitude).toBeCloseTo(latitude, 0);
    expect(Math.abs((town?.latitude ?? 0) - latitude)).toBeLessThan(0.1);
    expect(Math.abs((town?.longitude ?? 0) - longitude)).toBeLessThan(0.1);
  });

  it('the one that is called so goes first, then larger ones, then those with such a word', async () => {
    expect((await names('Bergen'))[0]).toBe('Bergen NO');
    expect((await names('bergen, nl'))[0]).toMatch(/^Bergen.* NL$/);
    expect((await names('san fran'))[0]).toMatch(/^San Francisco/);
    expect((await names('lake'))[0]).toBe('Lakewood US');
  });

  it('none for a letter, for nothing, and for what is no town; eight at most', async () => {
    expect(await names('a')).toEqual([]);
    expect(await names('')).toEqual([]);
    expect(await names('xqzzy')).toEqual([]);
    expect(await names('san')).toHaveLength(8);
  });
});
