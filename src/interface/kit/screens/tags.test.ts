import { countTags, tagsOf } from '@/core/plan';
import { tagsLike, tagsText, tagsTextSchema } from './tags';

describe('tags as they are written', () => {
  it.each([
    ['north coast', ['north-coast']],
    ['North coast, pier', ['north-coast', 'pier']],
    ['pier,outdoor', ['pier', 'outdoor']],
    ['pier; outdoor\nquay', ['pier', 'outdoor', 'quay']],
    [' Pier ,, pier, ', ['pier']],
    ['', []],
    ['kai   øst', ['kai-øst']],
  ])('%j', (text, tags) => {
    expect(tagsOf(text)).toEqual(tags);
    expect(tagsTextSchema.parse(tagsText(tags))).toEqual(tags);
  });

  it.each(['and', 'a/b', 'is:portrait', '-'])('%j is told to be none', (text) => {
    expect(tagsTextSchema.safeParse(text).success).toBe(false);
  });
});

describe('tags that are offered', () => {
  const known = [
    { tag: 'north', count: 3 },
    { tag: 'hall-north', count: 9 },
    { tag: 'north-coast', count: 5 },
    { tag: 'quay', count: 1 },
  ];
  it('begin with what is typed, then hold it; the most used first', () => {
    expect(tagsLike('nor', known, []).map(({ tag }) => tag)).toEqual(['north-coast', 'north', 'hall-north']);
  });
  it('are none that stand there already, nor the one that is typed out', () => {
    expect(tagsLike('north', known, ['north-coast']).map(({ tag }) => tag)).toEqual(['hall-north']);
  });
  it('are found by words with a space', () => {
    expect(tagsLike('north co', known, []).map(({ tag }) => tag)).toEqual(['north-coast']);
  });
  it('are eight at most', () => {
    const many = Array.from({ length: 20 }, (_, i) => ({ tag: `t${i}`, count: i }));
    expect(tagsLike('', many, []).map(({ count }) => count)).toEqual([19, 18, 17, 16, 15, 14, 13, 12]);
  });
  it('are counted over all that bears them', () => {
    expect(countTags([{ tags: ['a', 'b'] }, { tags: ['a'] }, {}])).toEqual([
      { tag: 'a', count: 2 },
      { tag: 'b', count: 1 },
    ]);
  });
});
