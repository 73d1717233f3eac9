import { Loudness } from './loudness';

test('what sounds follows the factor, now and later, each by its own volume, until it is dropped', () => {
  const loudness = new Loudness();
  const heard: Record<string, number> = {};
  const sounds = { film: {}, music: {} };
  loudness.apply(sounds.film, 0.5, (now) => (heard.film = now));
  loudness.set(0.4);
  loudness.apply(sounds.music, 1, (now) => (heard.music = now));
  expect(heard).toEqual({ film: 0.2, music: 0.4 });
  // A sound that begins again at another volume is one, not two.
  loudness.apply(sounds.film, 1, (now) => (heard.film = now));
  loudness.drop(sounds.music);
  loudness.set(0);
  expect(heard).toEqual({ film: 0, music: 0.4 });
});
