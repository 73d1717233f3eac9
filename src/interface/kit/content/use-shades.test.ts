import { meanColour } from './use-shades';

test('a picture has the colour of what is colourful in it', () => {
  expect(meanColour([10, 20, 30, 255])).toBe('rgb(10 20 30)');
  // Half red, half white: white does not wash it out.
  expect(meanColour([255, 0, 0, 255, 255, 255, 255, 255])).toBe('rgb(255 8 8)');
  expect(meanColour([])).toBe('rgb(0 0 0)');
});
