import { still, type Drawn } from './drawn';

/** So many sizes are tried, from the largest on, each a tenth smaller than the one before. */
const SIZES = 40;

/** Draws words, in their middle and as large as all of them fit. */
export function drawCard(text: string): Promise<Drawn> {
  const element = document.createElement('div');
  element.dataset.card = '';
  const words = element.appendChild(document.createElement('p'));
  words.textContent = text;
  const fit = () => {
    let size = element.clientHeight / 3;
    for (let i = 0; i < SIZES; i++, size *= 0.9) {
      words.style.fontSize = `${size}px`;
      if (words.scrollWidth <= element.clientWidth && words.scrollHeight <= element.clientHeight) return;
    }
  };
  const sizes = new ResizeObserver(fit);
  sizes.observe(element);
  return Promise.resolve(still(element, () => sizes.disconnect()));
}
