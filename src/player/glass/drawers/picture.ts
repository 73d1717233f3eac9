import { still, type Drawn } from './drawn';

/** Draws pictures: decoded before they are seen. */
export async function drawPicture(url: string): Promise<Drawn> {
  const element = document.createElement('img');
  const free = () => element.removeAttribute('src');
  element.src = url;
  try {
    await element.decode();
  } catch (error) {
    free();
    throw error;
  }
  return still(element, free);
}
